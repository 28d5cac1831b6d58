import type { Catalogue, ShopStandard } from '../../catalogue';
import type { Loom } from '../../model';
import { compareIds } from '../../units';
import type { PlannedTermination, PlannedWire } from '../types';
import type { PlannedStud } from './endTypes';

/** Height of a nut and of a washer over the thread's diameter (ISO 4032, ISO 7089). */
const NUT = 0.8;
const WASHER = 0.2;

/** Every stud with rings on it, in the order of the ends (craft A5). */
export function planStuds(
  loom: Loom,
  terminations: readonly PlannedTermination[],
  wires: readonly PlannedWire[],
  catalogue: Pick<Catalogue, 'rings'>,
  standard: Pick<ShopStandard, 'studTorqueNm'>,
): PlannedStud[] {
  const byId = new Map(wires.map((wire) => [wire.id, wire]));
  const thickness = new Map(catalogue.rings.map(({ id, thickMm }) => [id, thickMm]));
  return Object.keys(loom.ends)
    .sort(compareIds)
    .flatMap((endId): PlannedStud[] => {
      const { kind, studMm, threadMm } = loom.ends[endId]!;
      const here = kind === 'ring' ? terminations.filter((one) => one.endId === endId) : [];
      if (studMm === null || here.length === 0) return [];
      const area = ({ wireIds }: PlannedTermination) => wireIds.reduce((sum, id) => sum + byId.get(id)!.conductor.areaMm2, 0);
      const sorted = [...here].sort((a, b) => area(b) - area(a) || compareIds(a.wireIds[0]!, b.wireIds[0]!));
      const thick = sorted.map(({ contactId }) => (contactId === null ? null : (thickness.get(contactId) ?? null)));
      const kinds = new Set(sorted.flatMap(({ wireIds }) => wireIds.map((id) => byId.get(id)!.kind)));
      return [
        {
          ...{ endId, studMm, threadMm },
          rings: sorted.map((one) => ({ wireIds: one.wireIds, contactName: one.contactName, areaMm2: area(one) })),
          band: kinds.has('supply') ? 'red' : kinds.has('power-ground') ? 'black' : null,
          torqueNm: (standard.studTorqueNm as Readonly<Record<string, number>>)[`M${studMm}`] ?? null,
          stackMm: thick.includes(null) ? null : thick.reduce<number>((sum, mm) => sum + mm!, (NUT + WASHER) * studMm),
        },
      ];
    });
}
