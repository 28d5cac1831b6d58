/** A crimp barrel for a splice, by the sum of conductor areas on its fuller side. */
export interface SpliceBarrel {
  id: string;
  name: string;
  minAreaMm2: number;
  maxAreaMm2: number;
  lengthMm: number;
  stripMm: number;
  tool: string;
  /** adhesive sleeve that closes over the finished joint, bore supplied */
  sleeveBoreMm: number;
  massG: number;
}

/** A ring terminal, by stud and conductor area. */
export interface Ring {
  id: string;
  name: string;
  studMm: number;
  minAreaMm2: number;
  maxAreaMm2: number;
  stripMm: number;
  tool: string;
  massG: number;
}

export const BARRELS: readonly SpliceBarrel[] = [
  {
    id: 'barrel-1',
    name: 'splice barrel 0.3–0.8 mm²',
    minAreaMm2: 0.3,
    maxAreaMm2: 0.8,
    lengthMm: 8,
    stripMm: 7,
    tool: 'barrel crimper, nest 1',
    sleeveBoreMm: 3.2,
    massG: 0.3,
  },
  {
    id: 'barrel-2',
    name: 'splice barrel 0.8–2.0 mm²',
    minAreaMm2: 0.8,
    maxAreaMm2: 2.0,
    lengthMm: 10,
    stripMm: 8,
    tool: 'barrel crimper, nest 2',
    sleeveBoreMm: 4.8,
    massG: 0.6,
  },
  {
    id: 'barrel-3',
    name: 'splice barrel 2.0–5.5 mm²',
    minAreaMm2: 2.0,
    maxAreaMm2: 5.5,
    lengthMm: 14,
    stripMm: 10,
    tool: 'barrel crimper, nest 3',
    sleeveBoreMm: 6.4,
    massG: 1.4,
  },
];

const ring = (studMm: number, minAreaMm2: number, maxAreaMm2: number, nest: number, massG: number): Ring => ({
  id: `ring-m${studMm}-${maxAreaMm2}`,
  name: `ring M${studMm}, ${minAreaMm2}–${maxAreaMm2} mm²`,
  studMm,
  minAreaMm2,
  maxAreaMm2,
  stripMm: [7, 7, 9, 12, 15, 18][nest - 1]!,
  tool: nest > 3 ? `hydraulic lug press, die ${nest - 3}` : `ring crimper, nest ${nest}`,
  massG,
});

export const RINGS: readonly Ring[] = [4, 5, 6, 8].flatMap((stud) => [
  ring(stud, 0.24, 1.5, 1, 0.8),
  ring(stud, 1.5, 2.6, 2, 1.1),
  ring(stud, 2.6, 6.6, 3, 1.9),
  ...(stud < 6 ? [] : [ring(stud, 6.6, 17, 4, 5), ring(stud, 17, 36, 5, 9), ring(stud, 36, 52, 6, 14)]),
]);
