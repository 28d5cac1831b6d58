import type { Point } from '../drawing';

/** A rectangle of a board, mm. */
export interface Rect {
  x: number;
  y: number;
  widthMm: number;
  heightMm: number;
}

/** The part of a line within a rectangle; null: it passes by. */
export function clipLine(a: Point, b: Point, { x, y, widthMm, heightMm }: Rect): readonly [Point, Point] | null {
  let [from, to] = [0, 1];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  for (const [step, room] of [
    [-dx, a[0] - x],
    [dx, x + widthMm - a[0]],
    [-dy, a[1] - y],
    [dy, y + heightMm - a[1]],
  ] as const) {
    if (Math.abs(step) < 1e-12) {
      if (room < 0) return null;
    } else if (step < 0) from = Math.max(from, room / step);
    else to = Math.min(to, room / step);
  }
  if (from > to) return null;
  const point = (share: number): Point => [a[0] + dx * share, a[1] + dy * share];
  return [point(from), point(to)];
}
