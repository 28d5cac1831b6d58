import { findFamily, type Catalogue } from '../../catalogue';
import { listCavities, type Job } from '../../model';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/**
 * EN5, stop: a contact carries more than its rating, derated to 0.8 where more than half of the cavities carry over half of it. The fix
 * takes a housing of as many ways whose contacts are good for it.
 */
export const checkContactCurrent: Rule = (context) => {
  const { job, loomId, loom, plan, catalogue } = context;
  const rating = new Map(catalogue.contacts.map(({ id, currentA }) => [id, currentA]));
  const currents = new Map(plan.currents.map(({ wireId, designA }) => [wireId, designA]));
  const circuitOf = new Map(plan.wires.map(({ id, circuitId }) => [id, circuitId]));
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId): Finding[] => {
      const end = loom.ends[endId]!;
      const family = findFamily(job, catalogue, end.familyId);
      if (!family) return [];
      const loaded = plan.terminations
        .filter((one) => one.endId === endId)
        .flatMap(({ cavity, contactId, wireIds }) => {
          const known = wireIds.map((id) => currents.get(id) ?? null);
          const ratedA = contactId === null ? undefined : rating.get(contactId);
          // of wires that meet in a double crimp the contact carries what goes on: the most of them
          return known.includes(null) || ratedA === undefined
            ? []
            : [{ cavity, circuitId: circuitOf.get(wireIds[0]!)!, currentA: Math.max(0, ...(known as number[])), ratedA }];
        });
      const busy = loaded.filter(({ currentA, ratedA }) => currentA > ratedA / 2).length;
      const factor = busy > listCavities(family).length / 2 ? 0.8 : 1;
      return loaded
        .filter(({ currentA, ratedA }) => currentA > ratedA * factor + 1e-9)
        .map(({ cavity, circuitId, currentA, ratedA }) =>
          createFinding(
            context,
            'EN5',
            'stop',
            [
              { kind: 'end', id: endId },
              { kind: 'circuit', id: circuitId },
              { kind: 'item', id: cavity },
            ],
            `${end.name} cavity ${cavity} carries ${Number(currentA.toFixed(2))} A; its contact is good for ${(ratedA * factor).toFixed(1)} A here.`,
            { measured: currentA, limit: ratedA * factor, fix: findHousing(job, catalogue, loomId, endId, currentA) },
          ),
        );
    });
};

/** A housing of as many cavities whose contacts bear the current even derated. */
function findHousing(job: Job, catalogue: Catalogue, loomId: string, endId: string, currentA: number): Finding['fix'] {
  if (Object.values(job.mates).some(({ a, b }) => [a, b].some((side) => side.loomId === loomId && side.endId === endId))) return null;
  const ways = listCavities(findFamily(job, catalogue, job.looms[loomId]!.ends[endId]!.familyId)!).length;
  const familyId = Object.keys(catalogue.families)
    .sort(compareIds)
    .find((id) => {
      const family = catalogue.families[id]!;
      const most = Math.max(
        0,
        ...catalogue.contacts.filter(({ cavitySize }) => cavitySize === family.cavitySize).map((one) => one.currentA),
      );
      return listCavities(family).length === ways && most * 0.8 >= currentA;
    });
  if (familyId === undefined) return null;
  const at = `/looms/${loomId}/ends/${endId}`;
  return {
    label: `Take a ${catalogue.families[familyId]!.name}`,
    patch: [
      { op: 'replace', path: `${at}/familyId`, value: familyId },
      { op: 'replace', path: `${at}/key`, value: catalogue.families[familyId]!.keys[0] ?? null },
    ],
  };
}
