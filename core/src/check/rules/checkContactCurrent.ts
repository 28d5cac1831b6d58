import { findFamily } from '../../catalogue';
import { listCavities } from '../../model';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** EN5, stop: a contact carries more than its rating, derated to 0.8 where more than half of the cavities carry over half of it. */
export const checkContactCurrent: Rule = (context) => {
  const { job, loom, plan, catalogue } = context;
  const rating = new Map(catalogue.contacts.map(({ id, currentA }) => [id, currentA]));
  const circuitOf = new Map(
    Object.entries(loom.circuits).flatMap(([id, { terminations }]) =>
      terminations.map((one) => [`${one.endId} ${one.cavity}`, id] as const),
    ),
  );
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId): Finding[] => {
      const family = findFamily(job, catalogue, loom.ends[endId]!.familyId);
      if (!family) return [];
      const loaded = plan.terminations
        .filter((one) => one.endId === endId)
        .flatMap((one) => {
          const circuitId = circuitOf.get(`${endId} ${one.cavity}`)!;
          const { currentA } = loom.circuits[circuitId]!;
          const ratedA = one.contactId === null ? undefined : rating.get(one.contactId);
          return currentA === null || ratedA === undefined ? [] : [{ cavity: one.cavity, circuitId, currentA, ratedA }];
        });
      const busy = loaded.filter(({ currentA, ratedA }) => currentA > ratedA / 2).length;
      const factor = busy > listCavities(family).length / 2 ? 0.8 : 1;
      return loaded
        .filter(({ currentA, ratedA }) => currentA > ratedA * factor)
        .map(({ cavity, circuitId, currentA, ratedA }) =>
          createFinding(
            context,
            'EN5',
            'stop',
            [
              { kind: 'end', id: endId },
              { kind: 'circuit', id: circuitId },
            ],
            `${loom.ends[endId]!.name} cavity ${cavity} carries ${currentA} A; its contact is good for ${(ratedA * factor).toFixed(1)} A here.`,
            { measured: currentA, limit: ratedA * factor },
          ),
        );
    });
};
