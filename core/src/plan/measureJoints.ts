import { packCircles } from './packCircles';
import type { PlannedBarrel, PlannedBundle, PlannedSplice } from './types';

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
): Map<string, number> {
  const bySegment = new Map(bundles.map((bundle) => [bundle.segmentId, bundle]));
  const widest = new Map<string, number>();
  splices.forEach(({ place: { segmentId, offsetMm } }, index) => {
    const { sleevedOdMm, wireIds } = barrels[index]!;
    const section = bySegment.get(segmentId)!.sections.find(({ fromMm, toMm }) => fromMm <= offsetMm && offsetMm <= toMm);
    if (!section || sleevedOdMm === 0) return;
    const others = section.diametersMm.filter((_, at) => !section.elements[at]!.every((id) => wireIds.includes(id)));
    const all = [sleevedOdMm, ...others].sort((a, b) => b - a);
    const square = (sizes: readonly number[]) => sizes.reduce((sum, mm) => sum + mm * mm, 0);
    const odMm =
      all.length <= FEW
        ? packCircles(all).odMm
        : Math.max(sleevedOdMm, section.odMm * Math.sqrt(square(all) / square(section.diametersMm)));
    widest.set(segmentId, Math.max(widest.get(segmentId) ?? 0, odMm));
  });
  return widest;
}
