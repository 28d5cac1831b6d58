import { isOffered } from '../../model';
import type { Catalogue, ShopStandard, SpliceBarrel } from '../../catalogue';
import type { PlannedBarrel, PlannedSplice, SizedWire } from '../types';

/** Barrels that the shop crimps: it holds to one kind. */
export const listBarrels = (catalogue: Catalogue, { barrelKind }: ShopStandard): SpliceBarrel[] =>
  catalogue.barrels.filter(({ id, kind }) => kind === barrelKind && isOffered(catalogue, 'barrels', id));

/**
 * Crimp barrel of every splice. Its sides are where wires physically arrive from, not which way current flows; a butt barrel is crimped
 * side by side and takes the conductor area of its fuller side, a parallel one holds both sides together (calculations 2).
 */
export function chooseBarrels(
  splices: readonly PlannedSplice[],
  wires: readonly SizedWire[],
  catalogue: Catalogue,
  standard: ShopStandard,
): PlannedBarrel[] {
  const joined = new Map<string, { near: SizedWire[]; far: SizedWire[] }>(splices.map(({ id }) => [id, { near: [], far: [] }]));
  const places = new Map(splices.map(({ id, place }) => [id, place]));
  for (const wire of wires)
    for (const end of [wire.from, wire.to]) {
      if (end.kind !== 'splice') continue;
      const { segmentId, offsetMm } = places.get(end.spliceId)!;
      const piece = wire.pieces.find((one) => one.segmentId === segmentId && (one.fromMm === offsetMm || one.toMm === offsetMm));
      // with its splice at the very end of a run a wire may have no stretch in it
      const isNear = piece ? piece.toMm === offsetMm : offsetMm === 0;
      joined.get(end.spliceId)![isNear ? 'near' : 'far'].push(wire);
    }
  const sum = (list: readonly SizedWire[]) => list.reduce((total, wire) => total + wire.conductor.areaMm2, 0);
  const kinds = listBarrels(catalogue, standard);
  return splices.map(({ id }) => {
    const { near, far } = joined.get(id)!;
    const areaMm2 = standard.barrelKind === 'parallel' ? sum(near) + sum(far) : Math.max(sum(near), sum(far));
    const barrel = kinds.find((one) => areaMm2 >= one.minAreaMm2 - 1e-9 && areaMm2 <= one.maxAreaMm2 + 1e-9);
    return {
      spliceId: id,
      areaMm2,
      wireIds: [...near, ...far].map((wire) => wire.id),
      sides: { near: near.map((wire) => wire.id), far: far.map((wire) => wire.id) },
      barrelId: barrel?.id ?? null,
      barrelName: barrel?.name ?? 'no barrel holds this',
      lengthMm: barrel?.lengthMm ?? 0,
      sleevedOdMm: barrel?.sleevedOdMm ?? 0,
      stripMm: barrel?.stripMm ?? 0,
      tool: barrel?.tool ?? '',
    };
  });
}
