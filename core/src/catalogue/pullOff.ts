type Point = readonly [areaMm2: number, forceN: number];

/** Least pull-off force of a crimp, IEC 60352-2: conductor mm² → N. */
const PULL_OFF: readonly Point[] = [
  [0.14, 18],
  [0.22, 28],
  [0.34, 40],
  [0.5, 60],
  [0.75, 85],
  [1.0, 108],
  [1.5, 150],
  [2.5, 230],
  [4, 310],
  [6, 360],
  [10, 380],
];

/** The same by AWG; where a range is given (AWG 18: 85–90) the lower bound is what must be held. */
const PULL_OFF_AWG: Readonly<Record<string, number>> = {
  '26': 18,
  '24': 28,
  '22': 40,
  '20': 60,
  '18': 85,
  '16': 135,
  '14': 200,
  '12': 275,
  '10': 355,
};

/** Least pull-off force in N, or null where the table has no figure: the crimp is then tested to the maker's sheet. */
export function measurePullOff(table: 'etfe' | 'thinwall', size: string, areaMm2: number): number | null {
  if (table === 'etfe') return PULL_OFF_AWG[size] ?? null;
  const row = PULL_OFF.filter(([area]) => area <= areaMm2 + 1e-9).at(-1);
  return row === undefined || areaMm2 > 10 ? null : row[1];
}
