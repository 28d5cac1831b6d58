import type { Circle, Packing } from '../types';

// taken once: looked up for each sum they cost more than the sum
const { max, min, sqrt } = Math;

/** How hard to search: share of the radius taken off a step, sweeps a step, and steps without gain before giving up. */
export interface RelaxEffort {
  step: number;
  sweeps: number;
  patience: number;
}

/**
 * Squeeze circles into a smaller round. The enclosing radius shrinks step by step; after each step overlaps are pushed apart
 * in sweeps over all pairs (projection of violated distances), then the arrangement is stretched until nothing overlaps, so
 * that every diameter kept is one that really holds them. Deterministic.
 *
 * @param knownRadiusMm a radius that is known to be enough: the search starts there
 */
export function relaxCircles(start: readonly Circle[], knownRadiusMm: number, effort: RelaxEffort): Packing {
  const count = start.length;
  const x = Float64Array.from(start, (circle) => circle.x);
  const y = Float64Array.from(start, (circle) => circle.y);
  const r = Float64Array.from(start, (circle) => circle.r);
  const near = new Int32Array(count * (count - 1));
  let radius = min(knownRadiusMm, measureRound(x, y, r, 1));
  const stretched = measureStretch(x, y, r);
  let best = { radius: measureRound(x, y, r, stretched), x: x.map((v) => v * stretched), y: y.map((v) => v * stretched) };
  for (let idle = 0; idle < effort.patience; idle += 1) {
    radius *= 1 - effort.step;
    const pairs = listNear(x, y, r, near);
    for (let sweep = 0; sweep < effort.sweeps; sweep += 1) if (pushApart(x, y, r, radius, near, pairs) < 1e-5 * radius) break;
    const stretch = measureStretch(x, y, r);
    const round = measureRound(x, y, r, stretch);
    if (round < best.radius * (1 - 1e-4)) {
      best = { radius: round, x: x.map((v) => v * stretch), y: y.map((v) => v * stretch) };
      idle = -1;
    }
  }
  const circles = Array.from({ length: count }, (_, index) => ({ x: best.x[index]!, y: best.y[index]!, r: r[index]! }));
  return { odMm: 2 * best.radius, circles, method: 'search' };
}

/** Pairs that lie no farther apart than this share of the largest radius are looked at in the sweeps of a step; none farther comes together in one. */
const NEAR = 1;

/** Pairs near enough to meet within a step, as i, j, i, j; their count. */
function listNear(x: Float64Array, y: Float64Array, r: Float64Array, near: Int32Array): number {
  let widest = 0;
  for (let i = 0; i < r.length; i += 1) if (r[i]! > widest) widest = r[i]!;
  const slack = NEAR * widest;
  let count = 0;
  for (let i = 0; i < x.length; i += 1) {
    for (let j = i + 1; j < x.length; j += 1) {
      const dx = x[j]! - x[i]!;
      const dy = y[j]! - y[i]!;
      const reach = r[i]! + r[j]! + slack;
      if (dx * dx + dy * dy >= reach * reach) continue;
      near[count] = i;
      near[count + 1] = j;
      count += 2;
    }
  }
  return count;
}

/** One sweep: everything inside the radius, every near pair apart; the largest move is returned. */
function pushApart(x: Float64Array, y: Float64Array, r: Float64Array, radius: number, near: Int32Array, count: number): number {
  let moved = 0;
  let at = 0;
  for (let i = 0; i < x.length; i += 1) {
    const out = sqrt(x[i]! * x[i]! + y[i]! * y[i]!);
    const over = out + r[i]! - radius;
    if (over > 0 && out > 0) {
      x[i]! -= (x[i]! / out) * over;
      y[i]! -= (y[i]! / out) * over;
      if (over > moved) moved = over;
    }
    for (; at < count && near[at] === i; at += 2) {
      const j = near[at + 1]!;
      const dx = x[j]! - x[i]!;
      const dy = y[j]! - y[i]!;
      const reach = r[i]! + r[j]!;
      const squared = dx * dx + dy * dy;
      if (squared >= reach * reach) continue;
      const apart = sqrt(squared) || 1e-9;
      const push = (reach - apart) / (2 * apart);
      x[i]! -= dx * push;
      y[i]! -= dy * push;
      x[j]! += dx * push;
      y[j]! += dy * push;
      if (push * apart > moved) moved = push * apart;
    }
  }
  return moved;
}

/** By how much the arrangement must grow until no two overlap. */
function measureStretch(x: Float64Array, y: Float64Array, r: Float64Array): number {
  let stretch = 1;
  for (let i = 0; i < x.length; i += 1) {
    for (let j = i + 1; j < x.length; j += 1) {
      const dx = x[j]! - x[i]!;
      const dy = y[j]! - y[i]!;
      const reach = r[i]! + r[j]!;
      const squared = dx * dx + dy * dy;
      if (squared < reach * reach * stretch * stretch && squared > 0) stretch = max(stretch, reach / sqrt(squared));
    }
  }
  return stretch;
}

function measureRound(x: Float64Array, y: Float64Array, r: Float64Array, stretch: number): number {
  let most = 0;
  for (let i = 0; i < x.length; i += 1) most = max(most, sqrt(x[i]! * x[i]! + y[i]! * y[i]!) * stretch + r[i]!);
  return most;
}
