import { listLive, type LiveLine } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, JobContext, JobRule } from '../types';

const list = (names: readonly string[], most = 4) =>
  names.length > most ? `${names.slice(0, most).join(', ')} and ${names.length - most} more` : names.join(', ');

/** What an engine runs by: its ignition, and the box that fires it. */
function listRunners({ job, plan }: Pick<JobContext, 'job' | 'plan'>, lines: readonly LiveLine[]): string[] {
  const fires = new Set(
    plan.power.nets.flatMap(({ root }) => {
      const offer = root && job.looms[root.loomId]!.ends[root.endId]!.offers[root.cavity];
      if (!root || !offer?.can.includes('ignition')) return [];
      const device = Object.values(job.devices).find(({ at }) => at?.loomId === root.loomId && at.endId === root.endId);
      return device ? [device.unit] : [];
    }),
  );
  fires.delete('');
  return lines.flatMap(({ loads }) =>
    loads.flatMap(({ name, load, deviceId }) =>
      load === 'ignition' || (deviceId !== null && fires.has(job.devices[deviceId]!.unit)) ? [name] : [],
    ),
  );
}

/**
 * PO21, stop: the isolator is open and what the engine runs by stays live. PO22, check: what goes round the isolator has a fuse that carries
 * what runs the engine, or none.
 */
export const checkIsolator: JobRule = ({ job, plan }) => {
  const { states, sourceA, modeIds } = plan.power;
  const running = modeIds.flatMap((id, mode) => (job.modes[id]!.engine === 'running' && sourceA ? [sourceA.on[mode]!] : []));
  const leastA = running.length > 0 ? Math.min(...running) : null;
  return states.flatMap(({ modeId, isIsolated }, mode): Finding[] => {
    if (!isIsolated) return [];
    const lines = listLive(job, plan, mode);
    const name = job.modes[modeId]!.name;
    const runners = listRunners({ job, plan }, lines);
    const round = lines.filter(({ isByPassed, fuse }) => isByPassed && leastA !== null && (fuse?.ratingA ?? Infinity) >= leastA);
    const largest = round.reduce((most, { fuse }) => Math.max(most, fuse?.ratingA ?? Infinity), 0);
    const place = [{ kind: 'item' as const, id: modeId }];
    return [
      ...(runners.length > 0
        ? [
            createFinding(
              { loomId: '' },
              'PO21',
              place,
              `In "${name}" the isolator is open and ${list(runners)} ${runners.length === 1 ? 'stays' : 'stay'} live: the engine runs on.`,
              { measured: runners.length, limit: 0 },
            ),
          ]
        : []),
      ...(round.length > 0
        ? [
            createFinding(
              { loomId: '' },
              'PO22',
              place,
              `In "${name}" ${list(round.map((line) => line.name))} ${round.length === 1 ? 'is' : 'are'} fed round the isolator ${largest === Infinity ? 'without a fuse' : `behind a fuse of ${largest} A`}; the engine runs on ${leastA!.toFixed(1)} A.`,
              { measured: largest === Infinity ? null : largest, limit: leastA! },
            ),
          ]
        : []),
    ];
  });
};

/** PO23, note: nobody said how a switch, a relay or a channel stands in a mode, so nothing can be told of what hangs on it. One for each device. */
export const checkUnsaidStates: JobRule = ({ job, plan }) => {
  const { states, protections, sourceA } = plan.power;
  if (!sourceA) return [];
  const wired = new Map(protections.flatMap((one) => (one.netId === null ? [] : [[one.id, one] as const])));
  const unsaid = new Map<string, { links: Set<string>; modes: Set<string> }>();
  for (const { modeId, unsaid: ids } of states)
    for (const id of ids) {
      const link = wired.get(id);
      if (!link) continue;
      const of = unsaid.get(link.deviceId) ?? { links: new Set(), modes: new Set() };
      of.links.add(link.name);
      of.modes.add(`"${job.modes[modeId]!.name}"`);
      unsaid.set(link.deviceId, of);
    }
  return [...unsaid].map(([deviceId, { links, modes }]) =>
    createFinding(
      { loomId: '' },
      'PO23',
      [{ kind: 'item', id: deviceId }],
      `How ${list([...links])} ${links.size === 1 ? 'stands' : 'stand'} is not said in ${modes.size === states.length && modes.size > 2 ? `any of ${modes.size} modes` : list([...modes])}: counted as closed, and no voltage behind it is told.`,
    ),
  );
};
