import { findFamily, listCavityContacts, listSealWindows, toSizeWords } from '../../catalogue';
import { listCavities } from '../../model';
import { createAmbients, measureContactPeak, measureContactRating, type PlannedTermination } from '../../plan';
import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, PlainContext, PlainRule } from '../types';

/**
 * EN5, stop: a contact carries more than its rating where it is that warm, less where its housing is crowded; or an inrush passes what it
 * bears for a moment. The fix takes the stronger contact of the cavity with its wire, else a housing of as many ways whose contacts are good
 * for it.
 */
export const checkContactCurrent: PlainRule = (context) => {
  const { job, loom, plan, catalogue } = context;
  const contacts = new Map(catalogue.contacts.map((one) => [one.id, one]));
  const currents = new Map(plan.currents.map((one) => [one.wireId, one]));
  const circuitOf = new Map(plan.wires.map(({ id, circuitId }) => [id, circuitId]));
  const ambientAt = createAmbients(job, loom, context.standard);
  const crimps = new Map<string, PlannedTermination[]>();
  for (const one of plan.terminations) pushTo(crimps, one.endId, one);
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId): Finding[] => {
      const end = loom.ends[endId]!;
      const family = findFamily(job, catalogue, end.familyId);
      if (!family) return [];
      const ambientC = ambientAt(end.nodeId);
      const loaded = (crimps.get(endId) ?? []).flatMap(({ cavity, contactId, wireIds }) => {
        const known = wireIds.map((id) => currents.get(id)?.designA ?? null);
        const contact = contactId === null ? undefined : contacts.get(contactId);
        if (known.includes(null) || !contact) return [];
        // of wires that meet in a double crimp the contact carries what goes on: the most of them
        const currentA = Math.max(0, ...(known as number[]));
        const inrushA = Math.max(0, ...wireIds.map((id) => currents.get(id)!.inrushA));
        return [
          { cavity, circuitId: circuitOf.get(wireIds[0]!)!, currentA, inrushA, contact, ratedA: measureContactRating(contact, ambientC) },
        ];
      });
      const busy = loaded.filter(({ currentA, ratedA }) => currentA > ratedA / 2).length;
      const factor = busy > listCavities(family).length / 2 ? context.standard.crowdedShare : 1;
      return loaded.flatMap(({ cavity, circuitId, currentA, inrushA, contact, ratedA }): Finding[] => {
        const peakA = measureContactPeak(contact);
        const find = (words: string, measured: number, limit: number, fix: Finding['fix']) => [
          createFinding(
            context,
            'EN5',
            [
              { kind: 'end', id: endId },
              { kind: 'circuit', id: circuitId },
              { kind: 'item', id: cavity },
            ],
            `${end.name} cavity ${cavity} ${words}`,
            { measured, limit, fix },
          ),
        ];
        const limit = ratedA * factor;
        if (currentA > limit + 1e-9)
          return find(
            `carries ${Number(currentA.toFixed(2))} A; its contact is good for ${limit.toFixed(1)} A at ${ambientC} °C${factor === 1 ? '' : ' in so crowded a housing'}.`,
            currentA,
            limit,
            takeStronger(context, { endId, cavity, circuitId }, currentA, ambientC) ??
              findHousing(context, { endId, cavity }, currentA, ambientC),
          );
        if (inrushA > peakA + 1e-9)
          return find(`bears ${peakA.toFixed(0)} A for a moment; the inrush there is ${inrushA.toFixed(0)} A.`, inrushA, peakA, null);
        return [];
      });
    });
};

/** The stronger contact of the same cavity with the thinnest wire that it takes; null where there is none, or the size is pinned already. */
function takeStronger(
  { job, loomId, loom, catalogue, standard }: PlainContext,
  { endId, cavity, circuitId }: { endId: string; cavity: string; circuitId: string },
  currentA: number,
  ambientC: number,
): Finding['fix'] {
  const { wireTable, sizePin, cable } = loom.circuits[circuitId]!;
  const family = findFamily(job, catalogue, loom.ends[endId]!.familyId)!;
  if (sizePin || cable) return null;
  const strong = listCavityContacts(catalogue, family, cavity).filter(
    (one) => standard.crowdedShare * measureContactRating(one, ambientC) >= currentA,
  );
  const windows = listSealWindows(catalogue, family, cavity);
  const conductor = catalogue.wires[wireTable]!.find(
    ({ areaMm2, odMm }) =>
      strong.some((one) => areaMm2 >= one.minAreaMm2 && areaMm2 <= one.maxAreaMm2) &&
      (windows === null || windows.some((one) => odMm >= one.minOdMm && odMm <= one.maxOdMm)),
  );
  if (!conductor) return null;
  return {
    label: `Take ${toSizeWords(conductor)} and its stronger contact`,
    patch: [
      {
        op: 'replace',
        path: `/looms/${loomId}/circuits/${circuitId}/sizePin`,
        value: {
          size: conductor.size,
          reason: `the contact that bears ${Number(currentA.toFixed(1))} A at ${ambientC} °C takes no thinner wire`,
        },
      },
    ],
  };
}

/** A housing with the same cavities whose contact there bears the current even crowded. */
function findHousing(
  { job, loomId, loom, catalogue, standard }: PlainContext,
  { endId, cavity }: { endId: string; cavity: string },
  currentA: number,
  ambientC: number,
): Finding['fix'] {
  if (Object.values(job.mates).some(({ a, b }) => [a, b].some((side) => side.loomId === loomId && side.endId === endId))) return null;
  const cavities = listCavities(findFamily(job, catalogue, loom.ends[endId]!.familyId)!);
  const familyId = Object.keys(catalogue.families)
    .sort(compareIds)
    .find((id) => {
      const family = catalogue.families[id]!;
      const names = new Set(listCavities(family));
      if (names.size !== cavities.length || cavities.some((one) => !names.has(one))) return false;
      const ratings = listCavityContacts(catalogue, family, cavity).map(
        (one) => standard.crowdedShare * measureContactRating(one, ambientC),
      );
      return Math.max(0, ...ratings) >= currentA;
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
