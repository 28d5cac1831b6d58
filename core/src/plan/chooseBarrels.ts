import type { Catalogue } from '../catalogue';
import type { PlannedBarrel, PlannedSplice, SizedWire } from './types';

/** Crimp barrel of every splice, by the conductor area on its fuller side. */
export function chooseBarrels(splices: readonly PlannedSplice[], wires: readonly SizedWire[], catalogue: Catalogue): PlannedBarrel[] {
  const joined = new Map<string, { out: SizedWire[]; in: SizedWire[] }>(splices.map(({ id }) => [id, { out: [], in: [] }]));
  for (const wire of wires) {
    if (wire.from.kind === 'splice') joined.get(wire.from.spliceId)!.out.push(wire);
    if (wire.to.kind === 'splice') joined.get(wire.to.spliceId)!.in.push(wire);
  }
  const sum = (list: readonly SizedWire[]) => list.reduce((total, wire) => total + wire.conductor.areaMm2, 0);
  return splices.map(({ id }) => {
    const sides = joined.get(id)!;
    const areaMm2 = Math.max(sum(sides.out), sum(sides.in));
    const barrel = catalogue.barrels.find((one) => areaMm2 >= one.minAreaMm2 - 1e-9 && areaMm2 <= one.maxAreaMm2 + 1e-9);
    return {
      spliceId: id,
      areaMm2,
      wireIds: [...sides.in, ...sides.out].map((wire) => wire.id),
      barrelId: barrel?.id ?? null,
      barrelName: barrel?.name ?? 'no barrel holds this',
      lengthMm: barrel?.lengthMm ?? 0,
      stripMm: barrel?.stripMm ?? 0,
      tool: barrel?.tool ?? '',
    };
  });
}
