import type { LengthAllowance } from './types';
import { toSumWords } from './toSumWords';

const addend = (kind: LengthAllowance['kind'], mm: number): LengthAllowance => ({ kind, of: 'x', words: '', mm });

test('terms of a cut length in a few figures, the worked figure of calculations 1', () => {
  expect(
    toSumWords([
      addend('segment', 431.5),
      addend('segment', 318.5),
      addend('segment', 180),
      addend('entry', 60),
      addend('re-termination', 41),
      addend('rounding', 4),
    ]),
  ).toBe('930 run + 101 ends + 4 up');
});
test('what turns out of a bundle stands apart; terms that are nothing are left out', () => {
  expect(toSumWords([addend('segment', 100), addend('breakout', 2.74), addend('breakout', 1), addend('rounding', 0.01)])).toBe(
    '100 run + 3.7 out',
  );
  expect(toSumWords([])).toBe('');
});
