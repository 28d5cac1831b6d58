import fc from 'fast-check';
import { compareIds, roundTo, roundUp, toRunWords } from './index';

describe('roundUp: cut lengths go up to the increment', () => {
  test.each([
    [1031, 5, 1035],
    [1035, 5, 1035],
    [1035.0000001, 5, 1035],
    [1035.01, 5, 1040],
    [0, 5, 0],
    [0.1, 1, 1],
  ])('%p by %p → %p', (mm, step, expected) => {
    expect(roundUp(mm, step)).toBe(expected);
  });
  test.each([0, -5, NaN])('refuses an increment of %p', (step) => {
    expect(() => roundUp(100, step)).toThrow(`cutting increment: expected more than 0 mm, got ${step}`);
  });
  test('never shortens and never adds a whole increment', () => {
    fc.assert(
      fc.property(fc.double({ min: 0, max: 1e5, noNaN: true }), fc.integer({ min: 1, max: 50 }), (mm, step) => {
        const up = roundUp(mm, step);
        expect(up).toBeGreaterThanOrEqual(mm - 1e-5);
        expect(up - mm).toBeLessThan(step);
      }),
    );
  });
});

test('compareIds counts numbers as numbers and is a total order', () => {
  expect(['B1-10', 'B1-9', 'a', 'B1-1'].sort(compareIds)).toEqual(['a', 'B1-1', 'B1-9', 'B1-10']);
  fc.assert(
    fc.property(fc.string(), fc.string(), (a, b) => {
      expect(Math.sign(compareIds(a, b))).toBe(-Math.sign(compareIds(b, a)) || 0);
    }),
  );
});

test('roundTo rounds half away from zero', () => {
  expect([roundTo(1.005, 2), roundTo(-2.5, 0), roundTo(0.793499, 3)]).toEqual([1.01, -3, 0.793]);
});

test('the quick order of ids is the order of the collator', () => {
  const collator = new Intl.Collator('en', { numeric: true, sensitivity: 'variant' });
  const letters = 'ab1290-_ .AB/zé\u0301';
  let seed = 11;
  const next = (below: number) => (seed = (seed * 16807) % 2147483647) % below;
  const make = () => Array.from({ length: next(7) }, () => letters[next(letters.length)]).join('');
  for (let round = 0; round < 10_000; round += 1) {
    const [a, b] = [make(), make()];
    const slow = collator.compare(a, b) || (a < b ? -1 : a > b ? 1 : 0);
    expect(`${a}|${b} ${Math.sign(compareIds(a, b))}`).toBe(`${a}|${b} ${slow}`);
  }
});

test.each([
  [['a', 'a', 'b'], '2 × a with b'],
  [['a', 'b', 'a'], 'a with b with a'],
  [['a'], 'a'],
  [[], ''],
])('what follows one another alike is counted: %j', (words, expected) => expect(toRunWords(words, ' with ')).toBe(expected));
