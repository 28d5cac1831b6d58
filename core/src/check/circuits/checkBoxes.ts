import { createCircuit, type Job, type PinOffer } from '../../model';
import { compareIds, toCount } from '../../units';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, JobRule, WiringRule } from '../types';
import { listBuses } from './listBuses';
import { type NetPin, listNetPins, toBox, toPinWords, toTakeOut } from '../../netlist';

interface Rail {
  box: string;
  group: string;
  limitA: number;
  usedA: number;
  pins: readonly NetPin[];
}

/** CI8, check: a 5 V rail is loaded over its share. The fix moves what draws most to a rail of the same box that has room. */
export const checkRails: WiringRule = ({ job, plan, standard }) => {
  const rails = new Map<string, Rail>();
  for (const net of plan.power.nets) {
    const pins = listNetPins(job, net);
    const host = pins.find(({ offer }) => offer?.can.includes('sensor-supply'));
    const { group, limitA } = host?.offer ?? { group: null, limitA: null };
    if (!host || group === null || limitA === null) continue;
    const key = `${toBox(job, host)} ${group}`;
    const rail = rails.get(key) ?? { box: toBox(job, host), group, limitA, usedA: 0, pins: [] };
    rail.usedA += Math.max(0, ...net.onA);
    rail.pins = [...rail.pins, ...pins];
    rails.set(key, rail);
  }
  return [...rails.keys()].sort(compareIds).flatMap((key) => {
    const rail = rails.get(key)!;
    const most = rail.limitA * standard.railShare;
    if (rail.usedA <= most + 1e-9) return [];
    const host = rail.pins.find(({ offer }) => offer?.group === rail.group)!;
    return [
      createFinding(
        host,
        'CI8',
        // a plug may give two rails
        toPlacesAt(host.endId, rail.group.replaceAll(/[^A-Za-z0-9]+/g, '-')),
        `${rail.box} gives ${Math.round(rail.usedA * 1000)} mA on 5 V rail ${rail.group}, ${Math.round((rail.usedA / rail.limitA) * 100)} % of its ${Math.round(rail.limitA * 1000)} mA; the shop keeps ${Math.round(standard.railShare * 100)} %.`,
        { measured: rail.usedA, limit: most, fix: moveToOtherRail(job, rail, rails, rail.usedA - most, standard.railShare) },
      ),
    ];
  });
};

/** Heaviest sensors of the rail's own loom, as few as it takes, onto a free pin of another rail of the box. */
function moveToOtherRail(job: Job, rail: Rail, rails: ReadonlyMap<string, Rail>, overA: number, share: number): Finding['fix'] {
  const host = rail.pins.find(({ offer }) => offer?.group === rail.group)!;
  const loom = job.looms[host.loomId]!;
  const used = new Set(Object.values(loom.circuits).flatMap(({ terminations }) => terminations.map((one) => `${one.endId} ${one.cavity}`)));
  const free = Object.keys(loom.ends)
    .sort(compareIds)
    .filter((endId) => toBox(job, { loomId: host.loomId, endId }) === rail.box)
    .flatMap((endId) => Object.entries(loom.ends[endId]!.offers).map(([cavity, offer]) => ({ endId, cavity, offer })))
    .find(
      ({ endId, cavity, offer }) => offer.can.includes('sensor-supply') && offer.group !== rail.group && !used.has(`${endId} ${cavity}`),
    );
  if (!free || free.offer.limitA === null) return null;
  const room = free.offer.limitA * share - (rails.get(`${rail.box} ${free.offer.group}`)?.usedA ?? 0);
  // tracks that have a rail of their own stay on it
  const movable = rail.pins
    .filter(({ loomId, need }) => loomId === host.loomId && need?.currentA && need.noise === null)
    .sort((a, b) => b.need!.currentA! - a.need!.currentA! || a.index - b.index);
  const moved: NetPin[] = [];
  let sum = 0;
  for (const pin of movable) {
    if (sum >= overA) break;
    if (sum + pin.need!.currentA! > room + 1e-9) continue;
    moved.push(pin);
    sum += pin.need!.currentA!;
  }
  const isLeftAlone = moved.some(
    ({ circuitId }) => loom.circuits[circuitId]!.terminations.length - moved.filter((one) => one.circuitId === circuitId).length < 2,
  );
  if (sum < overA || isLeftAlone) return null;
  const number = String(Math.max(100, ...Object.values(loom.circuits).map((one) => Number.parseInt(one.number, 10) || 0)) + 1);
  const old = loom.circuits[host.circuitId]!;
  return {
    label: `Move ${moved.map((pin) => loom.ends[pin.endId]!.name).join(', ')} to ${loom.ends[free.endId]!.name} ${free.cavity} (rail ${free.offer.group})`,
    patch: [
      ...[...moved].sort((a, b) => b.index - a.index).flatMap(toTakeOut),
      {
        op: 'add' as const,
        path: `/looms/${host.loomId}/circuits/c${number}`,
        value: createCircuit(
          number,
          `5 V rail ${free.offer.group}`,
          [{ endId: free.endId, cavity: free.cavity }, ...moved.map(({ endId, cavity }) => ({ endId, cavity }))],
          { kind: 'sensor-supply', wireTable: old.wireTable, colour: old.colour },
        ),
      },
    ],
  };
}

/** CI10, check: the two tracks of a redundant sensor hang on one supply or one ground. CI11, stop: an electronic throttle with one track. */
export const checkTracks: WiringRule = ({ job, plan }) => {
  const netOf = new Map<string, number>();
  const railOf = new Map<number, string>();
  plan.power.nets.forEach((net, index) => {
    for (const pin of listNetPins(job, net)) {
      netOf.set(`${pin.loomId}/${pin.endId}/${pin.cavity}`, index);
      if (pin.offer?.can.includes('sensor-supply') && pin.offer.group !== null) railOf.set(index, `${toBox(job, pin)} ${pin.offer.group}`);
    }
  });
  return Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(job.looms[loomId]!.ends)
        .sort(compareIds)
        .flatMap((endId): Finding[] => {
          const end = job.looms[loomId]!.ends[endId]!;
          const pins = Object.keys(end.pins).sort(compareIds);
          const wired = (cavity: string) => netOf.get(`${loomId}/${endId}/${cavity}`);
          const place = [{ kind: 'end' as const, id: endId }];
          const findings: Finding[] = [];
          for (const kind of ['sensor-supply', 'sensor-ground'] as const) {
            const own = pins.filter((pin) => end.pins[pin]!.kind === kind && end.pins[pin]!.noise !== null && wired(pin) !== undefined);
            const where = own.map((pin) => (kind === 'sensor-supply' ? (railOf.get(wired(pin)!) ?? wired(pin)!) : wired(pin)!));
            const isRedundant = new Set(own.map((pin) => end.pins[pin]!.noise)).size > 1;
            if (isRedundant && new Set(where).size < where.length)
              findings.push(
                createFinding(
                  { loomId },
                  'CI10',
                  [...place, { kind: 'circuit', id: kind }],
                  `Both tracks of ${end.name} hang on one ${kind === 'sensor-supply' ? 'supply' : 'ground'}: one fault takes both.`,
                  { measured: new Set(where).size, limit: where.length },
                ),
              );
          }
          const drives = pins.some((pin) => end.pins[pin]!.wants === 'half-bridge' && wired(pin) !== undefined);
          const tracks = pins.filter((pin) => end.pins[pin]!.wants === 'analogue');
          const live = tracks.filter((pin) => wired(pin) !== undefined);
          // what a bridge drives and reads back by a track is steered in a loop: one track alone may lie
          if (drives && tracks.length > 0 && live.length < 2)
            findings.push(
              createFinding(
                { loomId },
                'CI11',
                place,
                `${end.name} has ${live.length === 1 ? 'one track' : 'no track'} to the controller; an electronic throttle needs two.`,
                { measured: live.length, limit: 2 },
              ),
            );
          return findings;
        }),
    );
};

const SHOWN = [
  'analogue',
  'temperature',
  'digital',
  'frequency',
  'low-side',
  'ignition',
  'half-bridge',
  'feed',
  'sensor-supply',
  'sensor-ground',
];

/** CI14, note: what each box has left. */
export const checkSpares: WiringRule = ({ job }) => {
  const left = new Map<string, Map<string, number>>();
  for (const [loomId, { ends, circuits }] of Object.entries(job.looms)) {
    const used = new Set(Object.values(circuits).flatMap(({ terminations }) => terminations.map((one) => `${one.endId} ${one.cavity}`)));
    for (const [endId, end] of Object.entries(ends)) {
      if (end.kind === 'ring') continue;
      for (const [cavity, offer] of Object.entries(end.offers) as [string, PinOffer][]) {
        if (used.has(`${endId} ${cavity}`)) continue;
        const shown = SHOWN.find((one) => (offer.can as string[]).includes(one));
        if (shown === undefined) continue;
        const counts = left.get(toBox(job, { loomId, endId })) ?? new Map<string, number>();
        counts.set(shown, (counts.get(shown) ?? 0) + 1);
        left.set(toBox(job, { loomId, endId }), counts);
      }
    }
  }
  return [...left.keys()].sort(compareIds).map((box) => {
    const counts = left.get(box)!;
    const words = SHOWN.filter((one) => counts.has(one)).map((one) => `${counts.get(one)} ${one}`);
    return createFinding(
      { loomId: '' },
      'CI14',
      [{ kind: 'item', id: box.replaceAll(/[^A-Za-z0-9]+/g, '-') }],
      `${box} has pins to spare: ${words.join(', ')}.`,
      { measured: [...counts.values()].reduce((sum, count) => sum + count, 0) },
    );
  });
};

/** CI12, check: a bus without exactly two terminators, or with a node on too long a stub. */
export const checkBuses: JobRule = ({ job, plan, standard }) =>
  listBuses(job, plan).flatMap(({ host, terminators, stubs }): Finding[] => [
    ...(terminators.length === 2
      ? []
      : [
          createFinding(
            host,
            'CI12',
            [{ kind: 'circuit', id: host.circuitId }],
            `The bus at ${toPinWords(job, host)} has ${toCount(terminators.length, 'terminator')}; it needs 120 Ω at both its ends and nowhere else (60 Ω across the pair, power off).`,
            { measured: terminators.length, limit: 2 },
          ),
        ]),
    ...stubs
      .filter(({ lengthMm }) => lengthMm > standard.canStubMm)
      .map(({ loomId, circuitId, spliceId, number, lengthMm }) =>
        createFinding(
          { loomId },
          'CI12',
          [
            { kind: 'circuit', id: circuitId },
            { kind: 'splice', id: spliceId },
          ],
          `${job.looms[loomId]!.circuits[circuitId]!.name} leaves the line on a stub of ${Math.round(lengthMm)} mm (${number}); ${standard.canStubMm} mm at 1 Mbit/s.`,
          { measured: lengthMm, limit: standard.canStubMm },
        ),
      ),
  ]);

/** CI13, check: a screen drained at both ends or at none. */
export const checkScreens: WiringRule = ({ job, plan }) => {
  const findings: Finding[] = [];
  for (const net of plan.power.nets) {
    const pins = listNetPins(job, net);
    const screens = pins.filter(({ loomId, circuitId }) => job.looms[loomId]!.circuits[circuitId]!.kind === 'screen');
    const screen = screens[0];
    if (screen) {
      const drains = screens.filter((pin) => pin.offer?.can.some((one) => one === 'screen' || one === 'chassis' || one === 'ground'));
      if (drains.length !== 1)
        findings.push(
          createFinding(
            screen,
            'CI13',
            [{ kind: 'circuit', id: screen.circuitId }],
            drains.length === 0
              ? `${job.looms[screen.loomId]!.circuits[screen.circuitId]!.name} is drained nowhere: it screens nothing.`
              : `${job.looms[screen.loomId]!.circuits[screen.circuitId]!.name} is drained at ${drains.map((pin) => toPinWords(job, pin)).join(' and ')}; one end only.`,
            {
              measured: drains.length,
              limit: 1,
              fix:
                drains.length > 1
                  ? {
                      label: `Take ${toPinWords(job, drains.at(-1)!)} off`,
                      patch: toTakeOut(drains.at(-1)!),
                    }
                  : null,
            },
          ),
        );
    }
  }
  return findings;
};
