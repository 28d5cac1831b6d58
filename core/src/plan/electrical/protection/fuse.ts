import type { ShopStandard } from '../../../catalogue';

/** A point of a fuse's opening limits: at so many times its rating it opens between these times, s. Infinity: not within any time that matters. */
export interface OpeningPoint {
  times: number;
  shortestS: number;
  longestS: number;
}

/** Blade fuses, ISO 8820-3: × rating → shortest to longest opening time. At 1.10 it carries at least 100 h. */
export const BLADE_LIMITS: readonly OpeningPoint[] = [
  { times: 1.1, shortestS: 360_000, longestS: Infinity },
  { times: 1.35, shortestS: 0.75, longestS: 600 },
  { times: 1.6, shortestS: 0.25, longestS: 50 },
  { times: 2, shortestS: 0.15, longestS: 5 },
  { times: 3.5, shortestS: 0.04, longestS: 0.5 },
  { times: 6, shortestS: 0.02, longestS: 0.1 },
];

/** A solid-state channel carries its setting for good and opens after its trip time, whatever flows above it. */
const toChannelLimits = (tripS: number): readonly OpeningPoint[] => [
  { times: 1, shortestS: 360_000, longestS: Infinity },
  { times: 1.05, shortestS: tripS, longestS: tripS },
  { times: 6, shortestS: tripS, longestS: tripS },
];

/** Ratings that blades and bolt-down fuses are made in, A. */
export const FUSE_RATINGS: readonly number[] = [
  1, 2, 3, 4, 5, 7.5, 10, 15, 20, 25, 30, 35, 40, 50, 60, 70, 80, 100, 125, 150, 175, 200, 250,
];

/** Opening limits of a fuse (tripS null), or of a channel with this trip time, s. */
export const listLimits = (tripS: number | null): readonly OpeningPoint[] => (tripS === null ? BLADE_LIMITS : toChannelLimits(tripS));

/**
 * Shortest and longest opening time at so many times the rating, between the points of the standard on logarithmic scales; s.
 * Below the first point it does not open. Above the last a fuse may open sooner, for what melts it is I²t; it is sure to open no later than
 * there. tripS: see listLimits.
 */
export function measureOpening(times: number, tripS: number | null): { shortestS: number; longestS: number } {
  const points = listLimits(tripS);
  const first = points[0]!;
  const last = points.at(-1)!;
  if (times <= first.times) return { shortestS: Infinity, longestS: Infinity };
  if (times >= last.times) {
    const shortestS = tripS === null ? last.shortestS * (last.times / times) ** 2 : last.shortestS;
    return { shortestS, longestS: last.longestS };
  }
  const above = points.findIndex((point) => point.times >= times);
  const [low, high] = [points[above - 1]!, points[above]!];
  const share = Math.log(times / low.times) / Math.log(high.times / low.times);
  const between = (from: number, to: number) => (from === Infinity ? (times >= high.times ? to : Infinity) : from * (to / from) ** share);
  return { shortestS: between(low.shortestS, high.shortestS), longestS: between(low.longestS, high.longestS) };
}

/** Least current that a protection of this rating is sure to open at within 5 s, A: twice a fuse's rating, just over a channel's setting. */
export const measureSureOpening = (ratingA: number, tripS: number | null): number => (tripS === null ? 2 : 1.05) * ratingA;

/** k of copper for the adiabatic check, A·√s/mm² (IEC 60364-4-43): from the running temperature to the short-time limit, °C. */
export function measureShortTimeFactor(fromC: number, toC: number): number {
  if (!(toC > fromC)) return 0;
  return 226 * Math.sqrt(Math.log(1 + (toC - fromC) / (234.5 + fromC)));
}

/** How long copper of this area bears a current until it reaches its short-time limit with no heat let out, s; Infinity where nothing flows. */
export function measureDamage(areaMm2: number, currentA: number, fromC: number, toC: number): number {
  if (currentA <= 0) return Infinity;
  return (measureShortTimeFactor(fromC, toC) * areaMm2) ** 2 / currentA ** 2;
}

/** Share of its rating that a blade fuse carries for good where it sits: `fuseLoadShare` at 25 °C, less for each K above. */
export const measureFuseCarries = (
  ambientC: number,
  { fuseLoadShare, fuseDeratePerK }: Pick<ShopStandard, 'fuseLoadShare' | 'fuseDeratePerK'>,
) => fuseLoadShare * (1 - fuseDeratePerK * Math.max(0, ambientC - 25));

/**
 * Smallest fuse for a load: it carries that share of its rating for good, and no inrush could open it. Null where none that is made is
 * large enough.
 */
export function chooseFuse(
  loadA: number,
  inrush: readonly { currentA: number; seconds: number }[],
  carries: number,
  mostA: number,
): number | null {
  return (
    FUSE_RATINGS.find(
      (ratingA) =>
        ratingA <= mostA &&
        ratingA * carries >= loadA - 1e-9 &&
        inrush.every(({ currentA, seconds }) => measureOpening(currentA / ratingA, null).shortestS > seconds),
    ) ?? null
  );
}
