import type { BoardPoint } from 'wattograph-core';

/** Points as the path of an SVG. */
export const toPath = (points: readonly BoardPoint[]): string =>
  points.map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${x.toFixed(2)} ${y.toFixed(2)}`).join('');
