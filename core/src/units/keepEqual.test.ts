import fc from 'fast-check';
import { keepEqual } from './keepEqual';

const document = () => ({
  looms: { a: { runs: [{ mm: 1 }, { mm: 2 }], name: 'a' }, b: { runs: [{ mm: 3 }], name: 'b' } },
  zones: { z: { wet: true, pitch: null } },
});

test('what says the same is the same object, all above a change is new', () => {
  const before = document();
  const now = document();
  now.looms.a.runs[1]!.mm = 5;
  const kept = keepEqual(before, now);
  expect(kept).toEqual(now);
  expect(kept.zones).toBe(before.zones);
  expect(kept.looms.b).toBe(before.looms.b);
  expect(kept.looms.a.runs[0]).toBe(before.looms.a.runs[0]);
  expect([kept === before, kept.looms === before.looms, kept.looms.a === before.looms.a]).toEqual([false, false, false]);
  expect(keepEqual(before, document())).toBe(before);
});

test('another order of a record, a part less or more, a list for a record: none is taken for the same', () => {
  const before = { a: 1, b: [1, 2], c: {} };
  for (const now of [
    { b: [1, 2], a: 1, c: {} },
    { a: 1, b: [1, 2] },
    { a: 1, b: [1, 2, 3], c: {} },
    { a: 1, b: { 0: 1, 1: 2 }, c: {} },
    { ...before, c: [] },
  ]) {
    const kept = keepEqual<unknown>(before, now);
    expect(JSON.stringify(kept)).toBe(JSON.stringify(now));
    expect(kept).not.toBe(before);
  }
});

test('of any two documents it says what the second says, and changes neither', () => {
  fc.assert(
    fc.property(fc.jsonValue(), fc.jsonValue(), (before, now) => {
      const words = [JSON.stringify(before), JSON.stringify(now)];
      expect(JSON.stringify(keepEqual(before, now))).toBe(words[1]);
      expect([JSON.stringify(before), JSON.stringify(now)]).toEqual(words);
    }),
    { numRuns: 300 },
  );
});
