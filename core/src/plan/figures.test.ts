import {
  measureBraid,
  measurePathSigma,
  measureRough,
  measureCoveringOutside,
  measurePitchDiameter,
  measureTakeUp,
  packCircles,
  chooseSplices,
  measureCoveringCut,
  isCoveringFit,
  measureSegment,
  type SpliceTree,
} from './index';
import { CATALOGUE, LARKHOLLOW, measurePullOff, type Braid, type Shrink } from '../catalogue';
import { createSegment } from '../model';
import { roundUp } from '../units';

// The figures marked with a triangle in the calculations of the trade, to the digits given there.

describe('1 lengths', () => {
  test('path 420 + 310 + 180, outer layer of pitch diameter 6 and lay 80 on the first two, ends 101 → 1031.0, cut 1035', () => {
    const factor = measureTakeUp(6, 80);
    // the page prints 1.02739; √(1 + (6π/80)²) is 1.027383, and every length that follows from it agrees
    expect(factor).toBeCloseTo(1.02738, 5);
    expect((420 + 310) * factor).toBeCloseTo(750.0, 1);
    const length = (420 + 310) * factor + 180 + 101;
    expect(length).toBeCloseTo(1031.0, 1);
    expect(roundUp(length, 5)).toBe(1035);
  });
  test('twisted pair d 1.09, pitch 25 → 1.00934', () => expect(measureTakeUp(1.09, 25)).toBeCloseTo(1.00934, 5));
  // a triple's axes lie d / sin 60° apart across the middle, a quad's d / sin 45°
  test.each([
    [2, 1],
    [3, 1.1547],
    [4, 1.4142],
  ])('pitch diameter of %i twisted wires: %f d', (wires, times) => expect(measurePitchDiameter(wires, 1)).toBeCloseTo(times, 4));
  test('one wire alone is not twisted with anything', () =>
    expect(() => measurePitchDiameter(1, 1.09)).toThrow('expected two wires or more'));
  const spread = (lengthMm: number, method: 'tape' | 'rope', rest = {}) =>
    measureSegment(createSegment('a', 'b', lengthMm, { method, ...rest }), LARKHOLLOW);
  test('▸ 600 tape + 200 tape + 350 rope: tape 8.12 in all, path σ 13.35', () => {
    // one run: √(5² + 3²), √(5² + 1²), √(10² + 3.5²)
    expect([spread(600, 'tape'), spread(200, 'tape'), spread(350, 'rope')].map(({ sigmaMm }) => Number(sigmaMm.toFixed(2)))).toEqual([
      5.83, 5.1, 10.59,
    ]);
    expect(measurePathSigma([spread(600, 'tape').spread, spread(200, 'tape').spread])).toBeCloseTo(8.12, 2);
    expect(measurePathSigma([spread(600, 'tape').spread, spread(200, 'tape').spread, spread(350, 'rope').spread])).toBeCloseTo(13.35, 2);
  });
  test('no runs, no spread; a second reading halves the square of a, and leaves b: √(5² / 2 + 3²)', () => {
    expect(measurePathSigma([])).toBe(0);
    expect(spread(600, 'tape', { secondLengthMm: 600 }).sigmaMm).toBeCloseTo(4.64, 2);
  });
  test('what is the fault of the tape adds up: ten runs of 100 mm are as uncertain in b as one of 1000', () => {
    const runs = Array.from({ length: 10 }, () => ({ method: 'tape' as const, ownMm: 0, sharedMm: 0.5 }));
    expect(measurePathSigma(runs)).toBeCloseTo(5, 9);
  });
  test('rough cut adds 50 mm, or two sigma where that is more', () => {
    expect(measureRough(1000, 16.8, 50)).toBe(1050);
    expect(measureRough(1000, 30, 50)).toBe(1060);
  });
  test('two readings: their mean, and what each has of its own over √2', () => {
    const one = measureSegment(createSegment('a', 'b', 600, { secondLengthMm: 604 }), LARKHOLLOW);
    expect(one.lengthMm).toBe(602);
    expect(one.sigmaMm).toBeCloseTo(Math.hypot(5 / Math.SQRT2, 0.005 * 602), 9);
  });
  test.each([
    ['board', 3],
    ['fitted', 0],
    ['drawing', Math.hypot(2, 0.005 * 400)],
    ['estimate', 60],
  ] as const)('σ of 400 mm by %s → %p', (method, expected) => {
    expect(measureSegment(createSegment('a', 'b', 400, { method }), LARKHOLLOW).sigmaMm).toBeCloseTo(expected, 9);
  });
});

describe('2 splices: four injectors on a trunk of 600, 200, 200, 200 with branches of 150', () => {
  const leaf = (nodeId: string): SpliceTree => ({ nodeId, edgeMm: 150, terminals: 1, children: [] });
  const d: SpliceTree = { nodeId: 'D', edgeMm: 200, terminals: 0, children: [leaf('d')] };
  const c: SpliceTree = { nodeId: 'C', edgeMm: 200, terminals: 0, children: [leaf('c'), d] };
  const b: SpliceTree = { nodeId: 'B', edgeMm: 200, terminals: 0, children: [leaf('b'), c] };
  const a: SpliceTree = { nodeId: 'A', edgeMm: 600, terminals: 0, children: [leaf('a'), b] };
  const source: SpliceTree = { nodeId: 'S', edgeMm: 0, terminals: 0, children: [a] };
  test.each([
    [0, 1800],
    [100, 2100],
    [150, 2250],
    [250, 2500],
    [400, 2800],
  ])('splice cost %p → %p', (cost, expected) => {
    expect(chooseSplices(source, cost, 5).costMm).toBeCloseTo(expected, 6);
  });
  test('one wire enters the source', () => expect(chooseSplices(source, 400, 5).wiresToParent.get('A')).toBe(1));
});

describe('6 straight diameters', () => {
  test.each([
    [1, 1],
    [2, 2],
    [3, 2.1547],
    [4, 2.4142],
    [5, 2.7013],
    [6, 3],
    [7, 3],
  ])('%p equal elements → %p d', (count, expected) => {
    expect(packCircles(Array<number>(count).fill(1)).odMm).toBeCloseTo(expected, 4);
  });
  test('1.6 mm wires: two 3.20, three 3.45, seven 4.80', () => {
    expect(packCircles([1.6, 1.6]).odMm).toBeCloseTo(3.2, 2);
    expect(packCircles([1.6, 1.6, 1.6]).odMm).toBeCloseTo(3.45, 2);
    expect(packCircles(Array<number>(7).fill(1.6)).odMm).toBeCloseTo(4.8, 2);
  });
  test('the old shop rule 1.2 √(Σd²) reads 15 % low at two, 3.5 % at three, 2 % at six', () => {
    const low = (count: number) => 1 - (1.2 * Math.sqrt(count)) / packCircles(Array<number>(count).fill(1)).odMm;
    expect(low(2)).toBeCloseTo(0.15, 2);
    expect(low(3)).toBeCloseTo(0.035, 3);
    expect(low(6)).toBeCloseTo(0.02, 3);
  });
});

describe('7 coverings', () => {
  test.each([
    [7, 0.9379],
    [8, 0.8607],
    [9, 0.7638],
    [10, 0.6383],
  ])('braid at 30°, relaxed 6, opened to %p → %p', (bore, expected) => {
    expect(measureBraid(30, 6, bore)).toBeCloseTo(expected, 4);
  });
  const traits = { opens: false, keepsOut: 'nothing', stiffness: 'limp', wears: true, handled: true, minutesPerM: 4 } as const;
  const braid6: Braid = {
    ...traits,
    kind: 'braid',
    id: 'b',
    name: 'b',
    relaxedBoreMm: 6,
    expandedBoreMm: 10.8,
    wallMm: 0.5,
    yarnAngleDeg: 30,
    limitC: 150,
    massGPerM: 9,
  };
  const shrink: Shrink = {
    ...traits,
    kind: 'shrink',
    id: 's',
    name: 's',
    suppliedBoreMm: 12.7,
    recoveredBoreMm: 6.4,
    shrinkC: null,
    wallMm: 1,
    longitudinalChange: 0.1,
    limitC: 150,
    massGPerM: 29,
  };
  test('to cover 1000 mm at 8 cut 1162', () => expect(measureCoveringCut(braid6, 1000, 8, 10)).toBe(1162));
  test('relaxed braid keeps its length; beyond what its yarn reaches it is refused', () => {
    expect(measureBraid(30, 6, 6)).toBeCloseTo(1, 9);
    expect(() => measureBraid(30, 6, 12.1)).toThrow('braid 6: cannot open to 12.1 mm');
  });
  test('shrink: cut = length / (1 − longitudinal change) + overlap', () => expect(measureCoveringCut(shrink, 900, 8, 10)).toBe(1010));
  test('shrink window: recovered ≤ 0.9 × OD, supplied ≥ 1.1 × what it must pass', () => {
    expect(isCoveringFit(shrink, 8, 8, LARKHOLLOW)).toEqual({ grips: true, passes: true });
    expect(isCoveringFit(shrink, 7.1, 7.1, LARKHOLLOW)).toEqual({ grips: false, passes: true });
    expect(isCoveringFit(shrink, 8, 17, LARKHOLLOW)).toEqual({ grips: true, passes: false });
  });
  test('braid window: 1.1 × relaxed bore ≤ OD ≤ 0.9 × expanded bore; at its relaxed bore it does not grip', () => {
    expect([6, 6.5, 6.6, 9.72, 9.8].map((od) => isCoveringFit(braid6, od, od, LARKHOLLOW).grips)).toEqual([
      false,
      false,
      true,
      true,
      false,
    ]);
  });
  test('▸ shrink keeps the volume of its wall: 9.5/4.8 of 0.9 mm on 8.0 → 9.19; fully recovered its wall twice', () => {
    const small = { ...shrink, suppliedBoreMm: 9.5, recoveredBoreMm: 4.8, wallMm: 0.9 };
    expect(measureCoveringOutside(small, 8)).toBeCloseTo(9.19, 2);
    expect(measureCoveringOutside(small, 4.8)).toBeCloseTo(4.8 + 2 * 0.9, 9);
    expect(measureCoveringOutside(braid6, 8)).toBeCloseTo(9, 9);
  });
  test('from 1.8 mm to 40 some braid of the catalogue grips every diameter', () => {
    const braids = CATALOGUE.coverings.filter(({ kind }) => kind === 'braid');
    for (let od = 2.2; od < 40; od += 0.05)
      expect([od.toFixed(2), braids.some((item) => isCoveringFit(item, od, od, LARKHOLLOW).grips)]).toEqual([od.toFixed(2), true]);
  });
  test('every braid of the catalogue can open as far as its window says', () => {
    for (const item of CATALOGUE.coverings)
      if (item.kind === 'braid')
        expect(measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, 0.9 * item.expandedBoreMm)).toBeGreaterThan(0.3);
  });
});

describe('8 pull-off, IEC 60352-2', () => {
  test.each([
    ['AWG', '22', 0.38, 40],
    ['AWG', '20', 0.61, 60],
    ['AWG', '26', 0.15, 15],
    ['AWG', '18', 0.96, 90],
    ['mm²', '0.5', 0.5, 60],
    ['mm²', '2.5', 2.5, 230],
    ['AWG', '8', 8.51, 370],
    // above 10 mm² the standard gives none: the shop's own
    ['mm²', '16', 16, 445],
    ['mm²', '25', 25, 623],
    ['mm²', '35', 35, 801],
    ['mm²', '50', 50, 1112],
    ['mm²', '70', 70, null],
  ] as const)('%s %s → %p', (gauge, size, areaMm2, expected) => {
    expect(measurePullOff({ gauge, size, areaMm2 })).toBe(expected);
  });
});
