/** Expandable braid: goes over a bundle from its relaxed bore up to a share of its expanded bore, and shortens as it opens. */
export interface Braid {
  kind: 'braid';
  id: string;
  name: string;
  relaxedBoreMm: number;
  expandedBoreMm: number;
  wallMm: number;
  /** yarn to the axis when relaxed, degrees */
  yarnAngleDeg: number;
  limitC: number;
  massGPerM: number;
}

/** Heat-shrink sleeve, plain elastomer or adhesive-lined. */
export interface Shrink {
  kind: 'shrink' | 'adhesive-shrink';
  id: string;
  name: string;
  suppliedBoreMm: number;
  recoveredBoreMm: number;
  /** wall once fully recovered */
  wallMm: number;
  /** share of its length that it loses in shrinking */
  longitudinalChange: number;
  limitC: number;
  massGPerM: number;
}

export type CoveringItem = Braid | Shrink;

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
});
const shrink = (kind: Shrink['kind'], supplied: number, recovered: number, wallMm: number, massGPerM: number): Shrink => ({
  kind,
  id: `${kind}-${supplied}`,
  name: kind === 'shrink' ? `elastomer shrink ${supplied}/${recovered}` : `adhesive shrink ${supplied}/${recovered}`,
  suppliedBoreMm: supplied,
  recoveredBoreMm: recovered,
  wallMm,
  longitudinalChange: kind === 'shrink' ? 0.1 : 0.08,
  limitC: kind === 'shrink' ? 150 : 125,
  massGPerM,
});

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
];

/** A printed wire label: clear or white shrink marker, by the bore it is supplied with and shrinks to. */
export interface LabelStock {
  id: string;
  name: string;
  suppliedBoreMm: number;
  recoveredBoreMm: number;
  lengthMm: number;
}

export const LABELS: readonly LabelStock[] = [
  { id: 'label-1.6', name: 'marker sleeve 1.6', suppliedBoreMm: 1.6, recoveredBoreMm: 0.8, lengthMm: 25 },
  { id: 'label-2.4', name: 'marker sleeve 2.4', suppliedBoreMm: 2.4, recoveredBoreMm: 1.2, lengthMm: 25 },
  { id: 'label-3.2', name: 'marker sleeve 3.2', suppliedBoreMm: 3.2, recoveredBoreMm: 1.6, lengthMm: 25 },
  { id: 'label-4.8', name: 'marker sleeve 4.8', suppliedBoreMm: 4.8, recoveredBoreMm: 2.4, lengthMm: 38 },
  { id: 'label-6.4', name: 'marker sleeve 6.4', suppliedBoreMm: 6.4, recoveredBoreMm: 3.2, lengthMm: 38 },
  { id: 'label-9.5', name: 'marker sleeve 9.5', suppliedBoreMm: 9.5, recoveredBoreMm: 4.8, lengthMm: 38 },
  { id: 'label-12.7', name: 'marker sleeve 12.7', suppliedBoreMm: 12.7, recoveredBoreMm: 6.4, lengthMm: 51 },
  { id: 'label-19', name: 'marker sleeve 19', suppliedBoreMm: 19, recoveredBoreMm: 9.5, lengthMm: 51 },
];
