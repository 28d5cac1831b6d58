import type { BarrelKind, Ring, SpliceBarrel } from '../model';

/** Nest, kind, from and to in mm² of copper, then mm: length, strip, bore of its sleeve, over that as shrunk; g. */
type BarrelRow = [
  ...[nest: number, kind: BarrelKind, minAreaMm2: number, maxAreaMm2: number],
  ...[lengthMm: number, stripMm: number, sleeveBoreMm: number, sleevedOdMm: number, massG: number],
];

const toBarrel = ([nest, kind, minAreaMm2, maxAreaMm2, lengthMm, stripMm, sleeveBoreMm, sleevedOdMm, massG]: BarrelRow): SpliceBarrel => ({
  id: kind === 'butt' ? `barrel-${nest}` : `parallel-${nest}`,
  name: `${kind === 'butt' ? 'splice barrel' : 'parallel barrel'} ${minAreaMm2.toFixed(1)}–${maxAreaMm2.toFixed(1)} mm²`,
  kind,
  minAreaMm2,
  maxAreaMm2,
  lengthMm,
  stripMm,
  tool: kind === 'butt' ? `barrel crimper, nest ${nest}` : `barrel crimper, nest P${nest}`,
  sleeveBoreMm,
  sleeveMm: lengthMm + 22,
  sleevedOdMm,
  massG,
  sleeveMassG: Number((0.03 * sleevedOdMm * (lengthMm + 22) * 0.35).toFixed(1)),
});

const ROWS: readonly BarrelRow[] = [
  [1, 'butt', 0.3, 0.8, 8, 7, 3.2, 3.0, 0.3],
  [2, 'butt', 0.8, 2.0, 10, 8, 4.8, 4.2, 0.6],
  [3, 'butt', 2.0, 5.5, 14, 10, 6.4, 5.6, 1.4],
  [4, 'butt', 5.5, 12, 18, 13, 9.5, 8.2, 2.8],
  [5, 'butt', 12, 22, 22, 16, 12.7, 11, 4.6],
  [1, 'parallel', 0.5, 1.6, 7, 8, 4.8, 4.0, 0.4],
  [2, 'parallel', 1.6, 4.0, 9, 10, 6.4, 5.4, 0.9],
  [3, 'parallel', 4.0, 11, 13, 13, 9.5, 7.8, 2.2],
  [4, 'parallel', 11, 25, 18, 16, 12.7, 10.6, 4.4],
];

export const BARRELS: readonly SpliceBarrel[] = ROWS.map(toBarrel);

const ring = (studMm: number, minAreaMm2: number, maxAreaMm2: number, nest: number, massG: number): Ring => ({
  id: `ring-m${studMm}-${maxAreaMm2}`,
  name: `ring M${studMm}, ${minAreaMm2}–${maxAreaMm2} mm²`,
  ...{ studMm, tongueMm: null, insulated: false, lengthMm: null },
  minAreaMm2,
  maxAreaMm2,
  stripMm: [7, 7, 9, 12, 15, 18][nest - 1]!,
  thickMm: [0.8, 0.8, 1, 1.8, 2.4, 3][nest - 1]!,
  widthMm: studMm * 2 + [0, 0, 0, 2, 4, 8][nest - 1]!,
  tool: nest > 3 ? `hydraulic lug press, die ${nest - 3}` : `ring crimper, nest ${nest}`,
  massG,
});

const blade = (tongueMm: number, minAreaMm2: number, maxAreaMm2: number, nest: number, insulated: boolean): Ring => ({
  id: `blade-${tongueMm}-${maxAreaMm2}${insulated ? 'i' : ''}`,
  name: `blade ${tongueMm}${insulated ? ' insulated' : ''}, ${minAreaMm2}–${maxAreaMm2} mm²`,
  ...{ studMm: null, tongueMm, insulated, lengthMm: tongueMm < 4 ? 14 : 20 },
  minAreaMm2,
  maxAreaMm2,
  stripMm: [5, 6, 7][nest - 1]!,
  thickMm: null,
  widthMm: tongueMm + (insulated ? 2.6 : 1.4),
  tool: `ring crimper, nest ${nest}`,
  massG: tongueMm * 0.14,
});

/** What is pushed on tongues: insulated ones for the sizes that hands meet most, bare ones for the rest. */
const BLADES: readonly Ring[] = [
  blade(2.8, 0.24, 1, 1, true),
  blade(4.8, 0.24, 1, 1, true),
  blade(6.3, 0.24, 1, 1, true),
  blade(6.3, 1, 2.6, 2, true),
  blade(6.3, 2.6, 6.6, 3, false),
  blade(9.5, 2.6, 6.6, 3, false),
];

export const RINGS: readonly Ring[] = [
  ...[4, 5, 6, 8].flatMap((stud) => [
    ring(stud, 0.24, 1.5, 1, 0.8),
    ring(stud, 1.5, 2.6, 2, 1.1),
    ring(stud, 2.6, 6.6, 3, 1.9),
    ...(stud < 6 ? [] : [ring(stud, 6.6, 17, 4, 5), ring(stud, 17, 36, 5, 9), ring(stud, 36, 52, 6, 14)]),
  ]),
  ...BLADES,
];
