import type { Mode } from '../../model';
import { findHarm, FUSE_RATINGS, measureFuseCarries, type PlannedProtection } from '../../plan';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, FindingPlace, JobContext, JobRule, WiringRule } from '../types';

const amperes = (value: number) => `${Number(value.toFixed(value < 10 ? 1 : 0))} A`;
const what = (kind: PlannedProtection['kind']) => (kind === 'channel' ? 'setting' : 'fuse');

/**
 * PO2, PO3, PO5, PO9: what is wrong with each fuse, channel and contact, those before a plug outside the job among them. Nothing is said of
 * one behind which nothing is wired.
 */
export const checkProtections: JobRule = (context) => {
  const { plan } = context;
  return [...plan.power.protections, ...plan.power.outside].flatMap((one) =>
    one.problems.flatMap((problem) => toFinding(context, one, problem)),
  );
};

function toFinding(context: JobContext, one: PlannedProtection, problem: PlannedProtection['problems'][number]): Finding[] {
  const { job } = context;
  const places: FindingPlace[] = [{ kind: 'item', id: one.id }];
  const of = { loomId: '' };
  const rating = one.ratingA === null ? '' : amperes(one.ratingA);
  const letCompute: Finding['fix'] = one.pinned
    ? { label: 'Let it be computed', patch: [{ op: 'remove', path: `/devices/${one.deviceId}/ratings/${one.linkId}` }] }
    : null;
  switch (problem) {
    case 'over-wire':
    case 'short-time': {
      const { wireId, loomId, steadyA } = one.weakest!;
      const wire = context.plan.looms.find((loom) => loom.loomId === loomId)!.wires.find(({ id }) => id === wireId)!;
      const name = job.looms[loomId]!.circuits[wire.circuitId]!.name;
      return [
        createFinding(
          of,
          'PO2',
          places,
          problem === 'over-wire'
            ? `${one.name}: a ${rating} ${what(one.kind)} over ${wire.number} (${name}), which bears ${amperes(steadyA)} in its bundle.`
            : `${one.name}: ${wire.number} (${name}) is burnt before the ${rating} ${what(one.kind)} opens.`,
          { measured: one.ratingA, limit: steadyA, fix: lowerRating(context, one) ?? freeSize(job, loomId, wire.circuitId) ?? letCompute },
        ),
      ];
    }
    case 'over-load':
      return [
        createFinding(
          of,
          'PO3',
          places,
          one.ratingA === null
            ? `${one.name} carries ${amperes(one.loadA)}; it is good for ${amperes(one.maxA!)}.`
            : `${one.name} carries ${amperes(one.loadA)} on a ${rating} ${what(one.kind)}${one.tripS === null ? `: over ${Math.round(measureFuseCarries(one.ambientC, context.standard) * 100)} % of it at ${one.ambientC} °C` : ''}.`,
          { measured: one.loadA, limit: one.ratingA ?? one.maxA, fix: letCompute },
        ),
      ];
    case 'no-rating':
      return [createFinding(of, 'PO3', places, `${one.name}: ${one.because}.`, { measured: one.loadA, limit: one.maxA })];
    case 'slow-fault':
      return [
        createFinding(
          of,
          'PO5',
          places,
          `A short at the far end behind ${one.name} draws ${amperes(one.leastFaultA!)}: the ${rating} ${what(one.kind)} is not sure to open within 5 s.`,
          { measured: one.leastFaultA, limit: one.ratingA! * (one.tripS === null ? 2 : 1.05), fix: letCompute },
        ),
      ];
    case 'over-peak':
      return [
        createFinding(
          of,
          'PO9',
          places,
          `${one.name}: ${amperes(one.inrushA)} flow as what it switches starts together; it bears ${amperes(one.peakA!)} for a moment.`,
          { measured: one.inrushA, limit: one.peakA },
        ),
      ];
    case 'inrush':
      return [
        createFinding(of, 'PO9', places, `${one.name}: an inrush of ${amperes(one.inrushA)} may open its ${rating} ${what(one.kind)}.`, {
          measured: one.inrushA,
          limit: one.ratingA,
          fix: letCompute,
        }),
      ];
  }
}

/** The largest that is made, that the wire bears and that still carries the load. */
function lowerRating({ standard }: JobContext, one: PlannedProtection): Finding['fix'] {
  if (!one.pinned || one.weakest === null) return null;
  const { weakest } = one;
  const fitting = FUSE_RATINGS.filter(
    (ratingA) =>
      ratingA <= weakest.steadyA &&
      ratingA * measureFuseCarries(one.ambientC, standard) >= one.loadA &&
      findHarm(ratingA, one.tripS, weakest) === null,
  ).at(-1);
  return fitting === undefined
    ? null
    : {
        label: `Fit ${amperes(fitting)}`,
        patch: [
          {
            op: 'replace',
            path: `/devices/${one.deviceId}/ratings/${one.linkId}`,
            value: { ratingA: fitting, reason: `what its wire bears` },
          },
        ],
      };
}

function freeSize(job: JobContext['job'], loomId: string, circuitId: string): Finding['fix'] {
  return job.looms[loomId]!.circuits[circuitId]!.sizePin === null
    ? null
    : {
        label: 'Let the size be computed',
        patch: [{ op: 'replace', path: `/looms/${loomId}/circuits/${circuitId}/sizePin`, value: null }],
      };
}

/** PO4, check: more is lost on the way out and back than the load's budget. The fix lets a size that was pinned be computed. */
export const checkDrops: JobRule = ({ job, plan }) =>
  plan.power.loads.flatMap(({ id, name, pin, steps, dropV, budgetV }) => {
    if (dropV <= budgetV * 1.0005) return [];
    const circuitOf = (loomId: string, wireId: string) =>
      plan.looms.find((one) => one.loomId === loomId)!.wires.find((wire) => wire.id === wireId)!.circuitId;
    const wires = steps.filter(({ wireId, counts }) => wireId !== null && counts).sort((a, b) => b.dropV - a.dropV);
    const pinned = wires
      .map(({ loomId, wireId }) => ({ loomId: loomId!, circuitId: circuitOf(loomId!, wireId!) }))
      .find(({ loomId, circuitId }) => job.looms[loomId]!.circuits[circuitId]!.sizePin !== null);
    const worst = wires[0];
    return [
      createFinding(
        pin,
        'PO4',
        toPlacesAt(pin.endId, id),
        `${name} loses ${dropV.toFixed(2)} V on the way; its budget is ${budgetV.toFixed(2)} V.${worst ? ` Most is lost in ${worst.words}: ${worst.dropV.toFixed(2)} V.` : ''}`,
        { measured: dropV, limit: budgetV, fix: pinned ? freeSize(job, pinned.loomId, pinned.circuitId) : null },
      ),
    ];
  });

/** PO20, check: feed and load path together lose more than both their budgets, in a mode in which the load is on. */
export const checkWholeWays: JobRule = ({ job, plan }) => {
  // a feed that is over its own budget says so itself, once, and not at each of its loads
  const overFeeds = plan.power.loads.filter(({ load, dropV, budgetV }) => load === 'feed' && dropV > budgetV * 1.0005);
  const isBehind = (linkIds: readonly string[]) => overFeeds.some((feed) => feed.linkIds.every((id, index) => linkIds[index] === id));
  return plan.power.loads.flatMap(({ id, name, pin, load, onA, linkIds, dropV, budgetV, totalByModeV, totalBudgetV }) => {
    // while the engine is cranked the starter's own budget counts
    const counts = (mode: number) => onA[mode]! > 0 && job.modes[plan.power.modeIds[mode]!]!.engine !== 'cranking';
    const totalV = Math.max(0, ...totalByModeV.filter((_, mode) => counts(mode)));
    if (load === 'feed' || totalV <= totalBudgetV * 1.0005 || dropV > budgetV * 1.0005 || isBehind(linkIds)) return [];
    const mode = plan.power.modeIds[totalByModeV.indexOf(totalV)]!;
    return [
      createFinding(
        pin,
        'PO20',
        toPlacesAt(pin.endId, id),
        `${name} and the feed of its box together lose ${totalV.toFixed(2)} V from the battery and back in "${job.modes[mode]!.name}"; their budgets are ${totalBudgetV.toFixed(2)} V.`,
        { measured: totalV, limit: totalBudgetV },
      ),
    ];
  });
};

/** PO14, stop: the engine runs in no mode, so nothing is summed of what runs else. The fix adds a mode. */
export const checkModes: JobRule = ({ job, plan }) => {
  const { loads, modeIds } = plan.power;
  if (loads.length === 0 || modeIds.some((id) => job.modes[id]!.engine === 'running')) return [];
  const free = ['running', ...modeIds.map((_, index) => `running-${index + 1}`)].find((id) => !Object.hasOwn(job.modes, id))!;
  const value: Mode = { name: 'running', engine: 'running' };
  return [
    createFinding(
      { loomId: '' },
      'PO14',
      [],
      `No mode in which the engine runs: currents, fuses, wires and drops of ${loads.length} ${loads.length === 1 ? 'load' : 'loads'} are not summed.`,
      { measured: 0, limit: 1, fix: { label: 'Add the mode “running”', patch: [{ op: 'add', path: `/modes/${free}`, value }] } },
    ),
  ];
};

/** PO6, check: what is on together is more than the generator gives for good. PO8, check: a battery without a main fuse. PO10: not settled. */
export const checkSource: JobRule = ({ job, plan }) => {
  const { power } = plan;
  const findings: Finding[] = [];
  const { continuousA } = job.source;
  if (power.sourceA && continuousA !== null) {
    power.modeIds.forEach((modeId, mode) => {
      const mean = power.sourceA!.mean[mode]!;
      if (job.modes[modeId]!.engine !== 'running' || mean <= continuousA) return;
      findings.push(
        createFinding(
          { loomId: '' },
          'PO6',
          [{ kind: 'item', id: modeId }],
          `All that is on in "${job.modes[modeId]!.name}" draws ${amperes(mean)}; the generator gives ${amperes(continuousA)}.`,
          { measured: mean, limit: continuousA },
        ),
      );
    });
  }
  // what hangs on the battery with no fuse in between: the starter may
  const fuses = new Set(power.protections.flatMap(({ id, kind }) => (kind === 'fuse' ? [id] : [])));
  const bare = power.loads.filter(
    ({ load, linkIds, faultA }) => load !== 'starter' && faultA !== null && !linkIds.some((id) => fuses.has(id)),
  );
  const first = bare[0];
  if (first)
    findings.push(
      createFinding(
        { loomId: '' },
        'PO8',
        [],
        `No main fuse at the battery: ${bare.length} ${bare.length === 1 ? 'load hangs' : 'loads hang'} on it with no fuse in between, ${first.name} among them.`,
        { measured: bare.length, limit: 0 },
      ),
    );
  if (!power.settled)
    findings.push(
      createFinding(
        { loomId: '' },
        'PO10',
        [],
        `Sizes, heat and drop did not settle within ${power.rounds} rounds: pin a size in the warmest bundle.`,
        { measured: power.rounds, limit: 8 },
      ),
    );
  return findings;
};

/** PO11, check: a low-side or high-side pin of a controller switches more than the shop lets it without a relay or channel. */
export const checkDirect: WiringRule = ({ job, plan, standard }) =>
  plan.power.nets.flatMap((net) => {
    const most = Math.max(0, ...net.onA);
    if (net.root === null || net.fedBy !== null || most <= standard.directA) return [];
    const end = job.looms[net.root.loomId]!.ends[net.root.endId]!;
    const offer = end.offers[net.root.cavity];
    if (!offer?.can.some((one) => one === 'low-side' || one === 'high-side')) return [];
    return [
      createFinding(
        net.root,
        'PO11',
        toPlacesAt(net.root.endId, net.root.cavity),
        `${end.name} ${net.root.cavity} switches ${amperes(most)} by itself; above ${standard.directA} A the shop uses a relay or a channel.`,
        { measured: most, limit: standard.directA },
      ),
    ];
  });
