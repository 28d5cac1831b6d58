import type { Clip } from '../model';

const holds = (base: Clip['base'], words: string, [leastMm, mostMm]: readonly [number, number], limitC: number, massG: number): Clip => ({
  ...{ id: `${base}-${mostMm}`, name: `${words} ${leastMm} to ${mostMm}`, base, leastMm, mostMm, limitC, massG },
});

/** Lined clips for bosses come first; studs and adhesive bases for what has none. */
export const CLIPS: readonly Clip[] = [
  ...(
    [
      [1, 5, 3],
      [4.5, 8, 4],
      [7, 12, 6],
      [11, 18, 9],
      [17, 26, 14],
    ] as const
  ).map(([least, most, massG]) => holds('boss', 'lined clip', [least, most], 150, massG)),
  ...(
    [
      [1, 9, 2],
      [8, 20, 4],
    ] as const
  ).map(([least, most, massG]) => holds('stud', 'stud clip', [least, most], 105, massG)),
  ...(
    [
      [1, 9, 1],
      [8, 20, 2],
    ] as const
  ).map(([least, most, massG]) => holds('adhesive', 'adhesive base', [least, most], 80, massG)),
];
