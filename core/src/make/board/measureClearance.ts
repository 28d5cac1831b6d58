import type { BoardTree, Rod } from './boardTypes';

/** Two places of the loom may be as near as this share of the way between them along it: forks leave at 30° or more. */
export const NEAR_SHARE = 0.25;
/** The same where a housing is one of them. */
export const FIXTURE_SHARE = 0.6;
/** Places along a run that are looked at, mm. */
const STEP_MM = 6;
/** Where a distance that grows along a line falls behind the share of the way: so many of its height further. */
const BEHIND = NEAR_SHARE / Math.sqrt(1 - NEAR_SHARE * NEAR_SHARE);

/** Ways along the loom between any two of its runs. */
export interface Ways {
  /** of each run from the datum, mm */
  starts: number[];
  /** [a][b]: from the datum to where they part; Infinity: b lies beyond a */
  meets: number[][];
}

export function createWays({ pieces }: BoardTree): Ways {
  const starts = pieces.map(() => 0);
  const chains = pieces.map(() => [] as number[]);
  pieces.forEach((piece, index) => {
    if (piece.parent < 0) return;
    starts[index] = starts[piece.parent]! + pieces[piece.parent]!.lengthMm;
    chains[index] = [...chains[piece.parent]!, piece.parent];
  });
  const endOf = (index: number) => starts[index]! + pieces[index]!.lengthMm;
  const meets = pieces.map((_, a) => {
    const above = new Set(chains[a]);
    return pieces.map((__, b) => {
      if (chains[b]!.includes(a)) return Infinity;
      const shared = chains[b]!.filter((one) => above.has(one)).at(-1);
      return shared === undefined ? 0 : endOf(shared);
    });
  });
  return { starts, meets };
}

/** Shortest distance of two straight lines of these lengths, mm. */
export function measureRods(a: Rod, b: Rod, aFrom = 0, bFrom = 0): number {
  const [ax, ay] = [a.x + a.dx * aFrom, a.y + a.dy * aFrom];
  const [bx, by] = [b.x + b.dx * bFrom, b.y + b.dy * bFrom];
  const [aLength, bLength] = [a.lengthMm - aFrom, b.lengthMm - bFrom];
  const cross = a.dx * b.dy - a.dy * b.dx;
  if (Math.abs(cross) > 1e-9) {
    const s = ((bx - ax) * b.dy - (by - ay) * b.dx) / cross;
    const t = ((bx - ax) * a.dy - (by - ay) * a.dx) / cross;
    if (s >= 0 && s <= aLength && t >= 0 && t <= bLength) return 0;
  }
  return Math.sqrt(
    Math.min(
      toRod(ax, ay, bx, by, b, bLength),
      toRod(ax + a.dx * aLength, ay + a.dy * aLength, bx, by, b, bLength),
      toRod(bx, by, ax, ay, a, aLength),
      toRod(bx + b.dx * bLength, by + b.dy * bLength, ax, ay, a, aLength),
    ),
  );
}

/** Square of the distance of a point from a line that begins at x, y. */
function toRod(px: number, py: number, x: number, y: number, { dx, dy }: Rod, length: number): number {
  const along = Math.max(0, Math.min(length, (px - x) * dx + (py - y) * dy));
  return (px - x - dx * along) ** 2 + (py - y - dy * along) ** 2;
}

/**
 * By how much two rods of different runs are too near, mm; 0: they are not. They keep the clearance, or what they themselves take where that
 * is more; near where they part they cannot, and keep a share of the way between.
 */
export function measureTooNear(a: Rod, b: Rod, clearMm: number, ways: Ways): number {
  const least = Math.max(clearMm, a.radiusMm + b.radiusMm);
  if (
    Math.max(a.x, a.x + a.dx * a.lengthMm) + least < Math.min(b.x, b.x + b.dx * b.lengthMm) ||
    Math.max(b.x, b.x + b.dx * b.lengthMm) + least < Math.min(a.x, a.x + a.dx * a.lengthMm) ||
    Math.max(a.y, a.y + a.dy * a.lengthMm) + least < Math.min(b.y, b.y + b.dy * b.lengthMm) ||
    Math.max(b.y, b.y + b.dy * b.lengthMm) + least < Math.min(a.y, a.y + a.dy * a.lengthMm)
  )
    return 0;
  if (a.piece < 0 || b.piece < 0) return measureAtDatum(a.piece < 0 ? a : b, a.piece < 0 ? b : a, least, ways);
  const meet = ways.meets[a.piece]![b.piece]!;
  const back = ways.meets[b.piece]![a.piece]!;
  // a the one nearer to the datum where one lies beyond the other
  if (back === Infinity) return measurePair(b, a, least, ways, Infinity);
  return measurePair(a, b, least, ways, meet);
}

function measurePair(a: Rod, b: Rod, least: number, { starts }: Ways, meet: number): number {
  const [aWay, bWay] = [starts[a.piece]! + a.fromMm, starts[b.piece]! + b.fromMm];
  const isBeyond = meet === Infinity;
  // way between what is s along a and t along b: base + sign · s + t
  const base = isBeyond ? bWay - aWay : aWay + bWay - 2 * meet;
  const sign = isBeyond ? -1 : 1;
  if (a.isFixture && b.isFixture) return Math.max(0, least - measureRods(a, b));
  if (a.isFixture || b.isFixture) return measureFixture(a, b, least, base, sign);
  return measureRuns(a, b, least, base, sign);
}

/** Cosine of the least angle at which two that part keep the share of the way between them all along. */
const LEAST_COS = Math.cos((29.999 * Math.PI) / 180);

function measureRuns(a: Rod, b: Rod, least: number, base: number, sign: number): number {
  // side by side at one place: their angle says it all
  if (base - (sign < 0 ? a.lengthMm : 0) < 1e-6 && sign * (a.dx * b.dx + a.dy * b.dy) <= LEAST_COS) return 0;
  // so far along a lies what is near by the loom itself
  const nearMm = least / NEAR_SHARE;
  const from = sign > 0 ? 0 : Math.max(0, base - nearMm);
  const to = sign > 0 ? Math.min(a.lengthMm, nearMm - base) : a.lengthMm;
  let worst = 0;
  if (to <= from) return Math.max(0, least - measureRods(a, b));
  if (sign > 0 && to < a.lengthMm) worst = Math.max(0, least - measureRods(a, b, to));
  if (sign < 0 && from > 0) worst = Math.max(0, least - measureRods({ ...a, lengthMm: from }, b));
  const steps = Math.max(1, Math.ceil((to - from) / STEP_MM));
  for (let step = 0; step <= steps; step += 1) {
    const s = from + ((to - from) * step) / steps;
    const [px, py] = [a.x + a.dx * s - b.x, a.y + a.dy * s - b.y];
    const along = px * b.dx + py * b.dy;
    const height = Math.abs(px * b.dy - py * b.dx);
    for (let which = 0; which < 2; which += 1) {
      const t = Math.max(0, Math.min(b.lengthMm, which === 0 ? along : along + height * BEHIND));
      const distance = Math.sqrt((px - b.dx * t) ** 2 + (py - b.dy * t) ** 2);
      worst = Math.max(worst, Math.min(least, NEAR_SHARE * (base + sign * s + t)) - distance);
    }
  }
  return worst;
}

/** A housing and a run, or what lies beyond it: the less way there is between them, the nearer they may be. */
function measureFixture(a: Rod, b: Rod, least: number, base: number, sign: number): number {
  const way = Math.max(0, sign < 0 ? base - a.lengthMm : base);
  const near = Math.max(0, Math.min(least, FIXTURE_SHARE * way) - measureRods(a, b));
  const farMm = least / FIXTURE_SHARE;
  if (way >= farMm) return near;
  // the part of the run that is far enough by the loom itself keeps all of it
  if (sign < 0) return Math.max(near, base - farMm <= 0 ? 0 : least - measureRods({ ...a, lengthMm: base - farMm }, b));
  const [run, other] = a.isFixture ? [b, a] : [a, b];
  return Math.max(near, farMm - base >= run.lengthMm ? 0 : least - measureRods(run, other, farMm - base));
}

/** What is held at the datum, and anything else: it has no way of its own. */
function measureAtDatum(datum: Rod, other: Rod, least: number, { starts }: Ways): number {
  const way = starts[other.piece]! + other.fromMm;
  if (other.isFixture) return Math.max(0, least - measureRods(datum, other));
  return measureFixture(datum, other, least, way, 1);
}
