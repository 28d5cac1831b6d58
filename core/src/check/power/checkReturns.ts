import type { Job } from '../../model';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, JobRule, WiringRule } from '../types';
import { listSwitchgearLinks, toPinKey } from '../../netlist';

/** Does the job have a battery: without one nothing is known of what its looms are bolted to. */
const hasBattery = (job: Job) =>
  Object.values(job.looms).some(({ ends }) =>
    Object.values(ends).some(({ offers }) => Object.values(offers).some(({ can }) => can.includes('battery-negative'))),
  );

/**
 * PO15, stop: the current of a load has no way home: bolted to an engine without a strap, to a chassis that nothing ties to battery
 * negative, or to a composite tub, which conducts nothing.
 */
export const checkReturns: JobRule = ({ job, plan }) => {
  if (!hasBattery(job)) return [];
  return plan.power.loads.flatMap(({ id, name, pin, returns, returnBy, load, currentA }): Finding[] => {
    if (returns || load === 'feed' || currentA === 0) return [];
    const words = {
      'engine-case':
        'returns by its case through the engine block, and no strap bolted at both ends leads from that to the chassis or to battery negative',
      'chassis-case':
        job.source.chassisMilliohm === null
          ? 'returns by its case, and it stands on a composite tub: it needs a wire'
          : 'returns by its case through the chassis, and nothing ties that to battery negative',
      pin: 'has no way back to battery negative',
    }[returnBy];
    return [createFinding(pin, 'PO15', toPlacesAt(pin.endId, id), `${name} ${words}.`, { measured: currentA })];
  });
};

/**
 * PO17, stop: a load that is wired has neither a drop nor a protection, for nothing feeds it or nobody said what it draws. PO18, note: a
 * loom is fed from outside the job; what has to protect it, and how much of the drop budget is spent in it.
 */
export const checkUncounted: JobRule = ({ plan, standard }) => {
  const { loads, outside } = plan.power;
  const unfed = loads.flatMap(({ id, name, pin, steps, load }): Finding[] =>
    steps.length > 0 || load === 'feed'
      ? []
      : [createFinding(pin, 'PO17', toPlacesAt(pin.endId, id), `${name} has no drop and no protection: nothing feeds it.`)],
  );
  const alone = outside.map(({ id, name, loadA, ratingA, because, weakest, loadIds }) => {
    const place = id.slice('outside '.length).split('/');
    const bears = weakest === null ? '' : `; its wires bear ${weakest.steadyA.toFixed(1)} A`;
    const fuse = ratingA === null ? because : `${ratingA} A protects it (${because})${bears}`;
    const drawers = loadIds.length === 0 ? 'its wires carry' : loadIds.length === 1 ? '1 load draws' : `${loadIds.length} loads draw`;
    const share = `${Math.round(standard.aloneShare * 100)} % of each drop budget counts from there on`;
    return createFinding(
      { loomId: place[0]! },
      'PO18',
      toPlacesAt(place[1]!, place[2]!),
      `${name}: ${drawers} ${loadA.toFixed(1)} A from outside this job. ${fuse}; ${share}.`,
      { measured: loadA, limit: weakest?.steadyA ?? null },
    );
  });
  return [...unfed, ...alone];
};

/** PO17, stop, of what is wired and says nothing of itself: a pin without a current, a circuit with one and nobody that takes it. */
export const checkUnsaidPins: WiringRule = ({ job, plan, catalogue }) => {
  const known = new Set(plan.power.loads.map(({ pin }) => toPinKey(pin)));
  // a box hands on what it is fed: its feed is no load
  const handedOn = new Set(listSwitchgearLinks(job, catalogue).flatMap(({ a, b }) => [toPinKey(a), toPinKey(b)]));
  const silent = plan.power.nets.flatMap(({ kind, circuits }) =>
    (kind === 'supply' ? circuits : []).flatMap(({ loomId, circuitId }) =>
      job.looms[loomId]!.circuits[circuitId]!.terminations.flatMap(({ endId, cavity }): Finding[] => {
        const end = job.looms[loomId]!.ends[endId]!;
        const need = end.pins[cavity];
        const key = toPinKey({ loomId, endId, cavity });
        if (need?.kind !== 'supply' || need.currentA !== null || known.has(key) || handedOn.has(key)) return [];
        const { currentA, terminations } = job.looms[loomId]!.circuits[circuitId]!;
        const isOnly = terminations.filter((one) => job.looms[loomId]!.ends[one.endId]!.pins[one.cavity]?.kind === 'supply').length === 1;
        return [
          createFinding(
            { loomId },
            'PO17',
            toPlacesAt(endId, cavity),
            `${end.name} ${cavity} (${need.function}) gives no current: neither drop nor fuse nor size can be computed for it.`,
            {
              fix:
                currentA !== null && isOnly
                  ? {
                      label: `Take the ${currentA} A of its circuit`,
                      patch: [{ op: 'replace', path: `/looms/${loomId}/ends/${endId}/pins/${cavity}/currentA`, value: currentA }],
                    }
                  : null,
            },
          ),
        ];
      }),
    ),
  );
  // a current that somebody gave a circuit without saying what takes it
  const isDescribed = (loomId: string, endId: string, cavity: string) => {
    const end = job.looms[loomId]!.ends[endId]!;
    const isMated = Object.values(job.mates).some(({ a, b }) => [a, b].some((side) => side.loomId === loomId && side.endId === endId));
    return isMated || end.kind === 'ring' || Object.hasOwn(end.pins, cavity) || Object.hasOwn(end.offers, cavity);
  };
  const nameless = Object.entries(job.looms).flatMap(([loomId, { circuits }]) =>
    Object.entries(circuits).flatMap(([id, { name, kind, currentA, terminations }]): Finding[] => {
      const takers = terminations.slice(1);
      if (kind !== 'supply' || !currentA || takers.length === 0) return [];
      if (takers.some(({ endId, cavity }) => isDescribed(loomId, endId, cavity))) return [];
      return [
        createFinding(
          { loomId },
          'PO17',
          [{ kind: 'circuit', id }],
          `${name} carries ${currentA} A and nothing says what takes it: put the device on the list for its drop and its fuse.`,
          { measured: currentA },
        ),
      ];
    }),
  );
  return [...silent, ...nameless];
};

/** PO19, check: more wire than the shop lets lies between the battery and its first fuse: a short in it meets the whole battery. */
export const checkUnfused: JobRule = ({ plan, standard }) => {
  const { unfused } = plan.power;
  if (!unfused || unfused.lengthMm <= standard.unfusedMm) return [];
  return [
    createFinding(
      { loomId: unfused.loomId },
      'PO19',
      unfused.wireIds.map((id) => ({ kind: 'wire', id })),
      `${Math.round(unfused.lengthMm)} mm of wire lie between the battery and its first fuse (${unfused.words}); the shop keeps ${standard.unfusedMm} mm: a short in it meets the whole battery.`,
      { measured: unfused.lengthMm, limit: standard.unfusedMm },
    ),
  ];
};
