import fc from 'fast-check';
import { measurePackingBound, packCircles } from '..';

/** Best known diameters of n equal circles in a circle, × d (the four that the calculations give). */
const BEST_KNOWN = [
  [7, 3.0],
  [19, 4.863],
  [37, 6.759],
  [61, 8.661],
] as const;

const anyDiameters = fc
  .array(fc.constantFrom(0.81, 0.94, 1.09, 1.27, 1.52, 2.18, 3.4), { minLength: 1, maxLength: 40 })
  .map((list) => list.sort((a, b) => b - a));

test('no two elements overlap and all lie inside', () => {
  fc.assert(
    fc.property(anyDiameters, (diameters) => {
      const { circles, odMm } = packCircles(diameters);
      circles.forEach((a, i) => {
        expect(a.r).toBeCloseTo(diameters[i]! / 2, 9);
        expect(Math.hypot(a.x, a.y) + a.r).toBeLessThanOrEqual(odMm / 2 + 1e-6);
        circles.slice(i + 1).forEach((b) => expect(Math.hypot(a.x - b.x, a.y - b.y)).toBeGreaterThanOrEqual(a.r + b.r - 1e-6));
      });
    }),
    { numRuns: 60 },
  );
});

test('never denser than the bound, never above the sum of diameters', () => {
  fc.assert(
    fc.property(anyDiameters, (diameters) => {
      const { odMm } = packCircles(diameters);
      expect(odMm).toBeGreaterThanOrEqual(measurePackingBound(diameters) - 1e-6);
      expect(odMm).toBeLessThanOrEqual(diameters.reduce((sum, d) => sum + d, 0) + 1e-6);
    }),
    { numRuns: 60 },
  );
});

test.each(BEST_KNOWN)('%p equal elements come within 8 %% of the best known packing and never below it', (count, best) => {
  const { odMm } = packCircles(Array<number>(count).fill(1));
  expect(odMm).toBeGreaterThanOrEqual(best - 0.001);
  expect(odMm).toBeLessThanOrEqual(best * 1.08);
});

test('two thick wires with a thin one between: the thick ones in line govern', () => {
  expect(packCircles([2, 2, 0.5]).odMm).toBeCloseTo(4, 6);
});

test('three unlike circles: the outer circle of Descartes', () => {
  const [a, b, c] = [1 / 1, 1 / 0.8, 1 / 0.7];
  const outer = -1 / (a + b + c - 2 * Math.sqrt(a * b + b * c + c * a));
  expect(packCircles([2, 1.6, 1.4]).odMm / 2).toBeCloseTo(outer, 6);
});

test.each([[[0, 1]], [[-1]], [[NaN, 1]]])('refuses %p', (diameters) => {
  expect(() => packCircles(diameters)).toThrow('bundle: expected diameters above 0 mm');
});

test('nothing is nothing', () => expect(packCircles([])).toEqual({ odMm: 0, circles: [], method: 'formula' }));
