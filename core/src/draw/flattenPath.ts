import type { Point } from './drawing';

/** A line through points. */
export interface FlatLine {
  points: readonly Point[];
  isClosed: boolean;
}

/** a curve never lies further than this beside its line, mm */
const BESIDE_MM = 0.1;

/**
 * A path of our own writer as lines: moves, lines, quadratic curves and ends, all absolute. A curve is cut so often that its line is no more
 * than a tenth of a millimetre beside it.
 *
 * @throws RangeError where it holds something else
 */
export function flattenPath(d: string): FlatLine[] {
  const lines: { points: Point[]; isClosed: boolean }[] = [];
  for (const [, command, rest] of d.matchAll(/([A-Za-z])([^A-Za-z]*)/g)) {
    const figures = (rest!.match(/-?\d*\.?\d+(?:e-?\d+)?/g) ?? []).map(Number);
    const open = lines.at(-1);
    if (command === 'M') lines.push({ points: toPoints(figures), isClosed: false });
    else if (command === 'L' && open) open.points.push(...toPoints(figures));
    else if (command === 'Q' && open)
      for (let at = 0; at + 3 < figures.length; at += 4)
        open.points.push(...bend(open.points.at(-1)!, toPoints(figures.slice(at, at + 4))));
    else if (command === 'Z' && open) open.isClosed = true;
    else throw new RangeError(`path: expected M, L, Q or Z in order, got ${command}`);
  }
  return lines;
}

const toPoints = (figures: readonly number[]): Point[] =>
  Array.from({ length: Math.floor(figures.length / 2) }, (_, at) => [figures[2 * at]!, figures[2 * at + 1]!]);

/** Points of a quadratic curve after its first: its line is a quarter of its bow away from it at most, over the square of the pieces. */
function bend(from: Point, [by, to]: readonly Point[]): Point[] {
  const bow = Math.hypot(from[0] - 2 * by![0] + to![0], from[1] - 2 * by![1] + to![1]) / 4;
  const pieces = Math.max(1, Math.ceil(Math.sqrt(bow / BESIDE_MM)));
  return Array.from({ length: pieces }, (_, at) => {
    const t = (at + 1) / pieces;
    const blend = (a: number, b: number, c: number) => (1 - t) ** 2 * a + 2 * t * (1 - t) * b + t ** 2 * c;
    return [blend(from[0], by![0], to![0]), blend(from[1], by![1], to![1])] as const;
  });
}
