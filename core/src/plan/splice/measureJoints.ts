import { findPacking, type PackingStore } from '../bundle/findPacking';
import type { PlannedBarrel, PlannedBundle, PlannedSplice, Section } from '../types';

/** Up to so many rounds are enclosed exactly. */
const FEW = 7;

/**
 * Diameter of each bundle over the fattest splice that lies in it, its barrel sleeved, the other wires round it; mm. What a sleeve has to
 * pass (calculations 7). Of more than seven rounds as dense as the bundle beside it. A bundle without a splice is not in it.
 */
export function measureJoints(
  bundles: readonly PlannedBundle[],
  splices: readonly PlannedSplice[],
  barrels: readonly PlannedBarrel[],
  packings: PackingStore,
): Map<string, number> {
  const bySegment = new Map(bundles.map((bundle) => [bundle.segmentId, bundle]));
  const widest = new Map<string, number>();
  splices.forEach(({ place: { segmentId, offsetMm } }, index) => {
    const { sleevedOdMm, wireIds } = barrels[index]!;
    const section = bySegment.get(segmentId)!.sections.find(({ fromMm, toMm }) => fromMm <= offsetMm && offsetMm <= toMm);
    if (!section || sleevedOdMm === 0) return;
    const odMm = measureJoint(section, sleevedOdMm, new Set(wireIds), packings);
    widest.set(segmentId, Math.max(widest.get(segmentId) ?? 0, odMm));
  });
  return widest;
}

/** joined: the wires that end in the splice. */
function measureJoint(
  { elements, diametersMm, odMm }: Section,
  sleevedOdMm: number,
  joined: ReadonlySet<string>,
  packings: PackingStore,
): number {
  let all = 0;
  let kept = sleevedOdMm * sleevedOdMm;
  const others: number[] = [];
  const isJoined = (id: string) => joined.has(id);
  for (let at = 0; at < elements.length; at += 1) {
    const ids = elements[at]!;
    const mm = diametersMm[at]!;
    all += mm * mm;
    if (ids.length === 1 ? joined.has(ids[0]!) : ids.every(isJoined)) continue;
    kept += mm * mm;
    if (others.length < FEW) others.push(mm);
  }
  if (others.length >= FEW) return Math.max(sleevedOdMm, odMm * Math.sqrt(kept / all));
  return findPacking(
    packings,
    [sleevedOdMm, ...others].sort((a, b) => b - a),
  ).packing.odMm;
}
