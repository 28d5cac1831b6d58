import fc from 'fast-check';
import { addDays, isDay } from './day';

const toDay = (at: number) => new Date(at).toISOString().slice(0, 10);
const DAY_MS = 86_400_000;

test('days are counted as the calendar does, leap years and all', () => {
  expect(addDays('2026-10-05', 365)).toBe('2027-10-05');
  expect(addDays('2027-10-05', 365)).toBe('2028-10-04');
  expect([addDays('2000-02-28', 1), addDays('1900-02-28', 1), addDays('2100-03-01', -1)]).toEqual([
    '2000-02-29',
    '1900-03-01',
    '2100-02-28',
  ]);
  fc.assert(
    fc.property(fc.integer({ min: -25_000, max: 60_000 }), fc.integer({ min: -4000, max: 4000 }), (start, days) => {
      expect(addDays(toDay(start * DAY_MS), days)).toBe(toDay((start + days) * DAY_MS));
    }),
  );
});

test.each(['2026-02-29', '2026-13-01', '2026-00-10', '2026-04-31', '2026-1-1', '', 'today', '2026-11-25T00:00'])('no day: %j', (text) => {
  expect(isDay(text)).toBe(false);
  expect(() => addDays(text, 1)).toThrow('day: expected one as in 2026-11-25, got');
});
