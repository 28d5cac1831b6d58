import type { PlannedProtection } from '../../plan';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, JobRule } from '../types';

type WithCoil = PlannedProtection & { coil: NonNullable<PlannedProtection['coil']> };

const hasCoil = (one: PlannedProtection): one is WithCoil => one.coil !== null;

/** PO7, check: a relay coil whose kick nothing takes. The fix enters a suppressor across it. */
export const checkSuppression: JobRule = ({ job, plan }) =>
  plan.power.protections.filter(hasCoil).flatMap(({ id, coil, name }): Finding[] => {
    if (!coil.by) return [];
    const driver = job.looms[coil.by.loomId]!.ends[coil.by.endId]!;
    const offer = driver.offers[coil.by.cavity];
    if (!offer || offer.suppressed) return [];
    const { loomId, endId, cavity } = coil.switch;
    const isTaken = Object.values(job.parts).some(
      ({ kind, at }) =>
        (kind === 'diode' || kind === 'suppressor') && at.loomId === loomId && at.endId === endId && at.cavities.includes(cavity),
    );
    if (isTaken) return [];
    const value = {
      kind: 'suppressor',
      ohms: null,
      watts: null,
      at: { loomId, endId, cavities: [coil.feed.cavity, cavity] },
      inside: false,
      reason: 'takes the kick of the coil',
    };
    return [
      createFinding(
        { loomId },
        'PO7',
        toPlacesAt(endId, id),
        `The coil of ${name} kicks into ${driver.name} ${coil.by.cavity}, which does not take it.`,
        {
          fix: {
            label: 'Put a suppressor across the coil',
            patch: [{ op: 'add', path: `/parts/sup-${endId.slice(0, 26)}-${cavity}`, value }],
          },
        },
      ),
    ];
  });

/** PO12, stop: a relay feeds loads, and its coil is not fed or nothing switches it: they never run. */
export const checkCoils: JobRule = ({ job, plan }) =>
  plan.power.protections.filter(hasCoil).flatMap(({ id, name, coil, loadIds }): Finding[] => {
    if (loadIds.length === 0 || (coil.fed && coil.by)) return [];
    const first = plan.power.loads.find((load) => load.id === loadIds[0])!;
    const { loomId, endId } = coil.switch;
    const dead = coil.fed ? `nothing switches its coil (pin ${coil.switch.cavity})` : `its coil is not fed (pin ${coil.feed.cavity})`;
    const others = loadIds.length > 1 ? ` and ${loadIds.length - 1} more` : '';
    return [
      createFinding(
        { loomId },
        'PO12',
        [
          { kind: 'item', id },
          { kind: 'end', id: endId },
        ],
        `${name} at ${job.looms[loomId]!.ends[endId]!.name} feeds ${first.name}${others}, and ${dead}.`,
      ),
    ];
  });
