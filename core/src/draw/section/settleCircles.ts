import type { Circle } from '../../plan';

/** Sweeps in which all move a little to the middle and are pushed apart again. */
const SWEEPS = 70;
/** Share of its way to the middle that a circle moves in a sweep. */
const PULL = 0.03;
/** Pushes after which none lies on another any more. */
const PUSHES = 240;
/** Above this many the packing is made from the middle outwards (packCircles) and lies together already. */
const MOST = 48;

/**
 * The same circles as a bundle lies that is tied: drawn together, so that there is no hole in the middle and what room is left lies within
 * the covering. For the picture alone: the round that holds them stays as it was packed. Where they cannot be drawn together without one
 * lying on another, they come back as they were.
 */
export function settleCircles(circles: readonly Circle[], radiusMm: number): readonly Circle[] {
  if (circles.length < 4 || circles.length > MOST) return circles;
  const all = circles.map(({ x, y, r }) => ({ x, y, r }));
  for (let sweep = 0; sweep < SWEEPS; sweep += 1) {
    const pull = PULL * (1 - sweep / SWEEPS);
    for (const one of all) {
      one.x *= 1 - pull;
      one.y *= 1 - pull;
    }
    pushApart(all, radiusMm);
  }
  for (let push = 0; push < PUSHES; push += 1)
    if (pushApart(all, radiusMm) < 1e-4) return measureSpread(all) < measureSpread(circles) ? all : circles;
  return circles;
}

/** How far from the middle what is covered lies. */
const measureSpread = (all: readonly Circle[]) => all.reduce((sum, { x, y, r }) => sum + (x * x + y * y) * r * r, 0);

/** Each pair that overlaps moves apart by half of that, and none leaves the round; the largest move is returned. */
function pushApart(all: Circle[], radius: number): number {
  let moved = 0;
  all.forEach((one, index) => {
    for (let at = index + 1; at < all.length; at += 1) {
      const other = all[at]!;
      const [dx, dy] = [other.x - one.x, other.y - one.y];
      const reach = one.r + other.r;
      const squared = dx * dx + dy * dy;
      if (squared >= reach * reach) continue;
      const apart = Math.sqrt(squared) || 1e-9;
      const by = (reach - apart) / (2 * apart);
      one.x -= dx * by;
      one.y -= dy * by;
      other.x += dx * by;
      other.y += dy * by;
      moved = Math.max(moved, reach - apart);
    }
    const out = Math.hypot(one.x, one.y);
    const over = out + one.r - radius;
    if (over <= 0) return;
    one.x -= (one.x / out) * over;
    one.y -= (one.y / out) * over;
    moved = Math.max(moved, over);
  });
  return moved;
}
