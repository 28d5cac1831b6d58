import {
  measureBraid,
  measurePathSigma,
  measureRough,
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
  test('600 tape + 200 tape + 350 rope → σ 16.80', () => {
    const sigma = (lengthMm: number, method: 'tape' | 'rope') =>
      measureSegment(createSegment('a', 'b', lengthMm, { method }), LARKHOLLOW).sigmaMm;
    expect([sigma(600, 'tape'), sigma(200, 'tape'), sigma(350, 'rope')]).toEqual([8, 6, 13.5]);
    expect(measurePathSigma([8, 6, 13.5])).toBeCloseTo(16.8, 2);
  });
  test('rough cut adds 50 mm, or two sigma where that is more', () => {
    expect(measureRough(1000, 16.8, 50)).toBe(1050);
    expect(measureRough(1000, 30, 50)).toBe(1060);
  });
  test('two readings: their mean, and sigma over √2', () => {
    const one = measureSegment(createSegment('a', 'b', 600, { secondLengthMm: 604 }), LARKHOLLOW);
    expect(one.lengthMm).toBe(602);
    expect(one.sigmaMm).toBeCloseTo((5 + 0.005 * 602) / Math.SQRT2, 9);
  });
  test.each([
    ['board', 3],
    ['fitted', 0],
    ['drawing', 2 + 0.005 * 400],
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
  const braid6: Braid = {
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
    kind: 'shrink',
    id: 's',
    name: 's',
    suppliedBoreMm: 12.7,
    recoveredBoreMm: 6.4,
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
    expect(isCoveringFit(shrink, 8, 8)).toEqual({ grips: true, passes: true });
    expect(isCoveringFit(shrink, 7.1, 7.1)).toEqual({ grips: false, passes: true });
    expect(isCoveringFit(shrink, 8, 17)).toEqual({ grips: true, passes: false });
  });
  test('braid window: relaxed bore ≤ OD ≤ 0.9 × expanded bore', () => {
    expect([5.9, 6, 9.72, 9.8].map((od) => isCoveringFit(braid6, od, od).grips)).toEqual([false, true, true, false]);
  });
  test('every braid of the catalogue can open as far as its window says', () => {
    for (const item of CATALOGUE.coverings)
      if (item.kind === 'braid')
        expect(measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, 0.9 * item.expandedBoreMm)).toBeGreaterThan(0.3);
  });
});

describe('8 pull-off, IEC 60352-2', () => {
  test.each([
    ['etfe', '22', 0.38, 40],
    ['etfe', '20', 0.61, 60],
    ['etfe', '18', 0.96, 85],
    ['thinwall', '0.5', 0.5, 60],
    ['thinwall', '2.5', 2.5, 230],
    ['etfe', '8', 8.51, null],
    ['thinwall', '16', 16, null],
  ] as const)('%s %s → %p', (table, size, area, expected) => {
    expect(measurePullOff(table, size, area)).toBe(expected);
  });
});
