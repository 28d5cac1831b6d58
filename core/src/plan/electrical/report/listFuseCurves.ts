import { listLimits, measureDamage, measureOpening } from '../protection/fuse';
import type { PlannedProtection } from '../types';

const POINTS = 61;
/** a curve begins so much above its asymptote */
const ABOVE = 1.02;

/** A fuse or channel over the weakest wire behind it, in points of current and time. */
export interface FuseCurves {
  /** up to where they are worth looking at, A */
  mostA: number;
  /** when it opens: at the earliest and at the latest, s */
  band: { currentA: number; shortestS: number; longestS: number }[];
  /** when the insulation of the wire is harmed, s; empty where no wire behind it lies in a known zone */
  damage: { currentA: number; seconds: number }[];
}

/** @throws RangeError where it has no rating */
export function listFuseCurves({ ratingA, tripS, weakest, leastFaultA }: PlannedProtection): FuseCurves {
  if (ratingA === null) throw new RangeError('listFuseCurves: expected a protection with a rating, got none');
  const mostA = Math.max(8 * ratingA, (leastFaultA ?? 0) * 1.1);
  const least = listLimits(tripS)[0]!.times;
  const band = listPoints(least * ABOVE, mostA / ratingA).flatMap((times) => {
    const { shortestS, longestS } = measureOpening(times, tripS);
    return Number.isFinite(longestS) ? [{ currentA: times * ratingA, shortestS, longestS }] : [];
  });
  const damage = weakest
    ? listPoints(weakest.shortA * ABOVE, mostA)
        .filter((currentA) => currentA > weakest.shortA)
        .map((currentA) => ({ currentA, seconds: measureDamage(weakest.areaMm2, currentA, weakest.runningC, weakest.shortC) }))
    : [];
  return { mostA, band, damage };
}

/** From the least to the most in equal ratios. */
const listPoints = (least: number, most: number) =>
  Array.from({ length: POINTS }, (_, index) => least * (most / least) ** (index / (POINTS - 1)));
