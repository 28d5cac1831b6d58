import fc from 'fast-check';
import { LARKHOLLOW, WIRE_TABLES } from '../../../catalogue';
import { findHarm } from './chooseProtections';
import {
  BLADE_LIMITS,
  chooseFuse,
  FUSE_RATINGS,
  measureDamage,
  measureFuseCarries,
  measureOpening,
  measureShortTimeFactor,
  measureSureOpening,
} from './fuse';
import { measureHeat } from '../../heat/measureHeat';
import { createHeatedBundle, measureHeatAllowed } from '../../heat/measureHeatAllowed';
import { measureResistance } from '../drop/measureLoads';

const awg = (size: string) => WIRE_TABLES.etfe.find((one) => one.size === size)!;

test('▸ 8 A through 4.2 m of AWG 18 at 60 °C: 0.793 V', () =>
  expect((8 * measureResistance(awg('18').r20MilliohmPerM, 4200, 60)) / 1000).toBeCloseTo(0.793, 3));
test.each([
  [70, 160, 115],
  [90, 250, 143],
])('▸ k from %i to %i °C is %i', (from, to, k) => expect(Math.round(measureShortTimeFactor(from, to))).toBe(k));
test('no heat may be stored in a wire that is at its limit already', () => {
  expect(measureShortTimeFactor(160, 160)).toBe(0);
  expect(measureDamage(1, 10, 200, 160)).toBe(0);
  expect(measureDamage(1, 0, 60, 160)).toBe(Infinity);
  // 1 mm² at k 115: (115 · 1)² = 100² · t
  expect(measureDamage(1, 100, 70, 160)).toBeCloseTo(1.33, 1);
});

describe('opening limits of ISO 8820-3', () => {
  test.each(BLADE_LIMITS.filter(({ times }) => times > 1.1).map(({ times, shortestS, longestS }) => [times, shortestS, longestS]))(
    '%p × the rating: %p to %p s',
    (times, shortestS, longestS) => {
      const opening = measureOpening(times, null);
      expect(opening.shortestS).toBeCloseTo(shortestS, 9);
      expect(opening.longestS).toBeCloseTo(longestS, 9);
    },
  );
  test('at 1.1 it does not open, above 6 it opens at the latest as at 6, at the earliest by the same I²t', () => {
    expect(measureOpening(1.1, null)).toEqual({ shortestS: Infinity, longestS: Infinity });
    expect(measureOpening(0, null)).toEqual({ shortestS: Infinity, longestS: Infinity });
    expect(measureOpening(40, null)).toEqual({ shortestS: expect.closeTo(0.02 * (6 / 40) ** 2, 12), longestS: 0.1 });
  });
  test('more current never takes longer, and the shortest is never above the longest', () => {
    fc.assert(
      fc.property(fc.double({ min: 1.11, max: 10, noNaN: true }), fc.double({ min: 0, max: 2, noNaN: true }), (times, more) => {
        const [one, other] = [measureOpening(times, null), measureOpening(times + more, null)];
        expect(other.longestS).toBeLessThanOrEqual(one.longestS * (1 + 1e-9));
        expect(other.shortestS).toBeLessThanOrEqual(one.shortestS * (1 + 1e-9));
        expect(one.shortestS).toBeLessThanOrEqual(one.longestS);
      }),
    );
  });
  test('a channel carries its setting and opens after its trip time', () => {
    expect(measureOpening(1, 0.5).longestS).toBe(Infinity);
    expect(measureOpening(1.2, 0.5)).toEqual({ shortestS: 0.5, longestS: 0.5 });
    expect(measureSureOpening(10, 0.5)).toBeCloseTo(10.5);
    expect(measureSureOpening(10, null)).toBe(20);
  });
});

describe('choice of a fuse', () => {
  const choose = (loadA: number, ambientC = 25, inrush: { currentA: number; seconds: number }[] = [], mostA = 250) =>
    chooseFuse(loadA, inrush, measureFuseCarries(ambientC, LARKHOLLOW), mostA);
  test.each([
    // 7.5 A is 75 % of 10 A exactly; at 85 °C it carries 0.66 × 10
    [7.5, 25, 10],
    [7.51, 25, 15],
    [6.6, 85, 10],
    [6.7, 85, 15],
    [0, 25, 1],
  ])('%p A at %p °C takes %p A', (loadA, ambientC, ratingA) => expect(choose(loadA, ambientC)).toBe(ratingA));
  test('an inrush that would open it takes the next', () => {
    // 30 A for 0.2 s: at 3 × 10 A the shortest opening is under 0.2 s, at 2 × 15 A it is 0.15 s, at 1.5 × 20 A 0.4 s
    expect(choose(5, 25, [{ currentA: 30, seconds: 0.2 }])).toBe(20);
    expect(choose(5, 25, [{ currentA: 30, seconds: 0.01 }])).toBe(7.5);
  });
  test('null where nothing that is made, or that the box takes, is large enough', () => {
    expect(choose(200)).toBeNull();
    expect(choose(16, 25, [], 20)).toBeNull();
  });
  test('whatever is chosen carries its load, and the next smaller does not', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.1, max: 150, noNaN: true }), (loadA) => {
        const ratingA = choose(loadA)!;
        expect(ratingA * 0.75).toBeGreaterThanOrEqual(loadA - 1e-9);
        const smaller = FUSE_RATINGS[FUSE_RATINGS.indexOf(ratingA) - 1];
        if (smaller !== undefined) expect(smaller * 0.75).toBeLessThan(loadA);
      }),
    );
  });
});

describe('a fuse and its wire', () => {
  const wire = { loomId: 'l', wireId: 'w', circuitId: 'c', steadyA: 9, shortA: 15, areaMm2: 0.38, runningC: 90, shortC: 250 };
  test('AWG 22 behind 5 A: every opening is before the damage', () => expect(findHarm(5, null, wire)).toBeNull());
  test('AWG 22 behind 30 A: at 1.35 × it glows for minutes before the fuse opens', () => expect(findHarm(30, null, wire)).toBe(1.35));
  test('a channel that trips at once protects what a fuse of its rating does not', () => {
    expect(findHarm(12, null, wire)).not.toBeNull();
    expect(findHarm(12, 0.1, wire)).toBeNull();
  });
});

test('the heat a bundle may give off is the heat that brings its middle there', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 2, max: 20, noNaN: true }),
      fc.double({ min: 0, max: 1.5, noNaN: true }),
      fc.double({ min: 20, max: 100, noNaN: true }),
      fc.double({ min: 5, max: 100, noNaN: true }),
      (bundleMm, wallMm, ambientC, riseK) => {
        const outsideMm = bundleMm + wallMm;
        const watts = measureHeatAllowed(ambientC + riseK, createHeatedBundle(ambientC, bundleMm, outsideMm, 0));
        // resistance at 20 °C that makes this heat at that temperature
        const wattsPerMAt20 = watts / (1 + 0.00393 * (ambientC + riseK - 20));
        expect(measureHeat({ ambientC, bundleMm, outsideMm, wattsPerMAt20, hottest: [], altitudeM: 0 })!.middleC).toBeCloseTo(
          ambientC + riseK,
          1,
        );
      },
    ),
  );
  expect(measureHeatAllowed(50, createHeatedBundle(60, 5, 6, 0))).toBe(0);
});
