import { readStorage, sayOldest } from './deviceStorage';

const at = (text: string) => new Date(text).getTime();

test('what has waited for more than a minute says since when, of another day with its date', () => {
  const now = at('2026-11-27T12:00:00');
  const say = (since: number | null) => sayOldest(since, now, 'en-GB');
  expect([null, now, now - 59_000, now - 60_000, at('2026-11-27T08:12:00'), at('2026-11-25T17:40:00')].map(say)).toEqual([
    ...['', '', '', ', oldest since 11:59', ', oldest since 08:12', ', oldest since 25 Nov 2026, 17:40'],
  ]);
});

test('a browser that does not say what room there is gives nothing rather than a guess', async () => {
  const set = (storage: unknown) => Object.defineProperty(globalThis, 'navigator', { value: { storage }, configurable: true });
  set(undefined);
  expect(await readStorage()).toBeNull();
  set({ estimate: () => Promise.resolve({ usage: 3_000_000, quota: 5e8 }), persisted: () => Promise.resolve(true) });
  expect(await readStorage()).toEqual({ usedMb: 3, quotaMb: 500, isKept: true });
});
