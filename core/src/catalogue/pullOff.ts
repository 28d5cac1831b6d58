import type { Conductor } from '../model';

type Point = readonly [areaMm2: number, forceN: number];

/**
 * Least pull-off force of a crimp, IEC 60352-2: conductor mm² → N. Above 10 mm² that standard gives none: those are this shop's own, after
 * UL 486A. Check against the document and the maker's sheet.
 */
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
  [16, 445],
  [25, 623],
  [35, 801],
  [50, 1112],
];

/** The same by AWG. */
const PULL_OFF_AWG: Readonly<Record<string, number>> = {
  '26': 15,
  '24': 28,
  '22': 40,
  '20': 60,
  '18': 90,
  '16': 135,
  '14': 200,
  '12': 275,
  '10': 355,
  '8': 370,
};

/** Least pull-off force in N, or null where the table has no figure: the crimp is then tested to the maker's sheet. */
export function measurePullOff({ gauge, size, areaMm2 }: Pick<Conductor, 'gauge' | 'size' | 'areaMm2'>): number | null {
  if (gauge === 'AWG') return PULL_OFF_AWG[size] ?? null;
  const row = PULL_OFF.filter(([area]) => area <= areaMm2 + 1e-9).at(-1);
  return row === undefined || areaMm2 > PULL_OFF.at(-1)![0] ? null : row[1];
}
