import type { Braid, CoveringItem, LabelStock, Shrink, Tape, Tube, Wrap } from '../model';

const braid = (relaxedBoreMm: number, expandedBoreMm: number, massGPerM: number): Braid => ({
  kind: 'braid',
  id: `braid-${relaxedBoreMm}`,
  name: `braid ${relaxedBoreMm}`,
  relaxedBoreMm,
  expandedBoreMm,
  wallMm: 0.5,
  yarnAngleDeg: 30,
  limitC: 150,
  massGPerM,
  opens: false,
  keepsOut: 'nothing',
  stiffness: 'limp',
  wears: true,
  handled: true,
  minutesPerM: 4,
});
const SHRINK_WORDS = {
  shrink: 'elastomer shrink',
  'plain-shrink': 'plain shrink',
  'adhesive-shrink': 'adhesive shrink',
  'clear-shrink': 'clear shrink',
} as const;
/** usual for rubber, and for polyolefin thin, lined and clear */
const SHRINKS_AT_C = { shrink: 175, 'plain-shrink': 120, 'adhesive-shrink': 135, 'clear-shrink': 120 } as const;
const shrink = (kind: Shrink['kind'], supplied: number, recovered: number, wallMm: number, massGPerM: number): Shrink => ({
  kind,
  id: `${kind}-${supplied}`,
  name: `${SHRINK_WORDS[kind]} ${supplied}/${recovered}`,
  suppliedBoreMm: supplied,
  recoveredBoreMm: recovered,
  wallMm,
  longitudinalChange: kind === 'shrink' ? 0.1 : kind === 'plain-shrink' ? 0.05 : 0.08,
  limitC: kind === 'shrink' ? 150 : 125,
  shrinkC: SHRINKS_AT_C[kind],
  massGPerM,
  opens: false,
  keepsOut: kind === 'adhesive-shrink' ? 'water' : 'splash',
  stiffness: 'firm',
  wears: false,
  handled: true,
  minutesPerM: 5,
});
const wrap = (kind: Wrap['kind'], name: string, leastOdMm: number, mostOdMm: number, rest: Partial<Wrap>): Wrap => ({
  kind,
  id: `${kind}-${mostOdMm}`,
  name: `${name} ${leastOdMm} to ${mostOdMm}`,
  leastOdMm,
  mostOdMm,
  wallMm: 0.6,
  lengthPerRun: 1,
  limitC: 125,
  massGPerM: 12,
  opens: true,
  keepsOut: 'nothing',
  stiffness: 'limp',
  wears: true,
  handled: true,
  minutesPerM: 2.5,
  ...rest,
});
const tube = (kind: Tube['kind'], name: string, boreMm: number, leastOdMm: number, rest: Partial<Tube>): Tube => ({
  kind,
  id: `${kind}-${boreMm}`,
  name: `${name} ${boreMm}`,
  boreMm,
  leastOdMm,
  wallMm: 0.8,
  slit: true,
  fillMost: 0.8,
  limitC: 125,
  massGPerM: 2.6 * boreMm,
  opens: true,
  keepsOut: 'nothing',
  stiffness: 'stiff',
  wears: true,
  handled: true,
  minutesPerM: 2,
  ...rest,
});
const tape = (kind: Tape['kind'], name: string, rest: Partial<Tape>): Tape => ({
  kind,
  id: `${kind}-19`,
  name: `${name} 19`,
  widthMm: 19,
  thicknessMm: 0.25,
  overlap: 0.5,
  leastOdMm: 2,
  endsOnly: false,
  limitC: 125,
  massGPerM: 4,
  opens: true,
  keepsOut: 'nothing',
  stiffness: 'limp',
  wears: true,
  handled: false,
  minutesPerM: 9,
  ...rest,
});
const WRAPS: [number, number][] = [
  [2, 4],
  [3.5, 7],
  [6, 12],
  [10, 20],
  [16, 32],
];

/** Every covering in the drawer, smallest first within its kind. */
export const COVERINGS: readonly CoveringItem[] = [
  braid(2, 3.6, 3),
  braid(2.5, 4.5, 4),
  braid(3, 5.4, 4),
  braid(4, 7.2, 6),
  braid(5, 9, 8),
  braid(6, 10.8, 9),
  braid(8, 14.4, 12),
  braid(10, 18, 15),
  braid(13, 23.4, 19),
  braid(19, 34.2, 28),
  braid(25, 45, 38),
  braid(32, 57.6, 50),
  braid(38, 68, 60),
  shrink('shrink', 1.6, 0.8, 0.4, 3),
  shrink('shrink', 2.4, 1.2, 0.5, 4),
  shrink('shrink', 3.2, 1.6, 0.6, 6),
  shrink('shrink', 4.8, 2.4, 0.7, 9),
  shrink('shrink', 6.4, 3.2, 0.8, 13),
  shrink('shrink', 9.5, 4.8, 0.9, 20),
  shrink('shrink', 12.7, 6.4, 1.0, 29),
  shrink('shrink', 19, 9.5, 1.1, 45),
  shrink('shrink', 25.4, 12.7, 1.2, 64),
  shrink('shrink', 38, 19, 1.4, 108),
  shrink('shrink', 51, 25.4, 1.5, 150),
  shrink('adhesive-shrink', 3.2, 1.0, 1.0, 8),
  shrink('adhesive-shrink', 4.8, 1.5, 1.1, 12),
  shrink('adhesive-shrink', 6.4, 2.0, 1.3, 18),
  shrink('adhesive-shrink', 9.5, 3.0, 1.6, 30),
  shrink('adhesive-shrink', 12.7, 4.0, 1.8, 44),
  shrink('adhesive-shrink', 19, 6.0, 2.1, 76),
  shrink('adhesive-shrink', 25.4, 8.5, 2.3, 110),
  shrink('adhesive-shrink', 38, 13, 2.5, 180),
  ...[1.6, 2.4, 3.2, 4.8, 6.4, 9.5, 12.7, 19, 25.4, 38].map((supplied) =>
    shrink('plain-shrink', supplied, Math.round(supplied * 5) / 10, 0.25 + supplied * 0.02, 1 + supplied * 0.9),
  ),
  ...[2.4, 3.2, 4.8, 6.4, 9.5, 12.7, 19, 25.4, 38, 51].map((supplied) =>
    shrink('clear-shrink', supplied, Math.round(supplied * 5) / 10, 0.25 + supplied * 0.02, 1 + supplied * 0.9),
  ),
  ...WRAPS.map(([least, most]) => wrap('wrap', 'self-closing wrap', least, most, { massGPerM: 2.4 * most })),
  ...WRAPS.map(([least, most]) =>
    wrap('split-braid', 'split braid', least, most, { wallMm: 0.8, massGPerM: 2.9 * most, limitC: 150, minutesPerM: 3 }),
  ),
  ...WRAPS.slice(1).map(([least, most]) =>
    wrap('spiral', 'spiral wrap', least, most, { wallMm: 1, lengthPerRun: 1.15, massGPerM: 2.2 * most, limitC: 85, handled: false }),
  ),
  tape('cloth-tape', 'cloth tape', {}),
  tape('pvc-tape', 'PVC tape', { thicknessMm: 0.15, endsOnly: true, limitC: 80, massGPerM: 3.5, wears: false, keepsOut: 'splash' }),
  ...[5, 7, 10, 13, 17, 23, 31].map((bore) => tube('convoluted', 'convoluted tube', bore, bore * 0.35, {})),
  ...[6, 10, 15, 20, 30].map((bore) =>
    tube('heat-sleeve', 'glass heat sleeve', bore, bore * 0.45, {
      ...{ slit: false, opens: false, limitC: 260, wallMm: 1.2, massGPerM: 5 * bore, stiffness: 'firm', wears: false, minutesPerM: 3 },
    }),
  ),
];

const marker = (kind: 'label' | 'label-hot', bore: number, recoveredBoreMm: number, lengthMm: number): LabelStock => ({
  ...{ id: `${kind}-${bore}`, name: `${kind === 'label' ? 'marker sleeve' : 'hot marker sleeve'} ${bore}` },
  ...{ suppliedBoreMm: bore, recoveredBoreMm, lengthMm, printableMm: lengthMm - 2 },
  // polyolefin; fluoropolymer where it is hotter
  ...(kind === 'label' ? { limitC: 135, shortC: 200 } : { limitC: 225, shortC: 350 }),
});
const MARKERS = [
  [1.6, 0.8, 25],
  [2.4, 1.2, 25],
  [3.2, 1.6, 25],
  [4.8, 2.4, 38],
  [6.4, 3.2, 38],
  [9.5, 4.8, 38],
  [12.7, 6.4, 51],
  [19, 9.5, 51],
  [25.4, 12.7, 51],
] as const;

/** Marker sleeves, the usual ones first. */
export const LABELS: readonly LabelStock[] = (['label', 'label-hot'] as const).flatMap((kind) =>
  MARKERS.map(([bore, recovered, length]) => marker(kind, bore, recovered, length)),
);
