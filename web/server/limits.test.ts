import { guess, spend } from './limits';
import { Refusal } from './refusal';

const from = (address: string) => new Headers({ 'x-peer': address });
const holder = globalThis as typeof globalThis & { wattographLimits?: unknown };
const statusOf = (work: Promise<unknown>) =>
  work.then(
    () => 200,
    (error: Refusal) => error.status,
  );

beforeEach(() => {
  delete holder.wattographLimits;
  process.env.WATTOGRAPH_REQUESTS = '50';
});
afterAll(() => delete process.env.WATTOGRAPH_REQUESTS);

test('one person has so many requests a minute, those that are planned for a twenty-fifth, an address a fifth', async () => {
  for (const [kind, most] of [
    ['person', 50],
    ['costly', 2],
    ['address', 10],
  ] as const) {
    const statuses = await Promise.all(Array.from({ length: most + 3 }, () => statusOf(spend(kind, 'jun'))));
    expect([kind, statuses.filter((status) => status === 200).length, statuses.filter((status) => status === 429).length]).toEqual([
      kind,
      most,
      3,
    ]);
    // another one is not held up by it
    expect(await statusOf(spend(kind, 'imke'))).toBe(200);
  }
});

test('who is told to wait is told how long', async () => {
  await Promise.all([1, 2].map(() => spend('costly', 'jun')));
  const refused = await spend('costly', 'jun').catch((error: Refusal) => error);
  expect(refused).toBeInstanceOf(Refusal);
  expect((refused as Refusal).more.retryAfterS).toBeGreaterThan(0);
  expect((refused as Refusal).more.retryAfterS).toBeLessThanOrEqual(60);
});

test('what does not fit is counted for an address over all people, what fits is not', async () => {
  const wrong = () => Promise.reject(Refusal.at(401, '', 'no'));
  for (let tries = 0; tries < 100; tries += 1) expect(await guess(from('10.0.0.1'), () => Promise.resolve('in'))).toBe('in');
  for (let tries = 0; tries < 60; tries += 1) expect(await statusOf(guess(from('10.0.0.1'), wrong))).toBe(401);
  // also what would fit now
  expect(await statusOf(guess(from('10.0.0.1'), () => Promise.resolve('in')))).toBe(429);
  expect(await guess(from('10.0.0.2'), () => Promise.resolve('in'))).toBe('in');
  // the database being away is nobody's guess
  for (let tries = 0; tries < 100; tries += 1) await statusOf(guess(from('10.0.0.3'), () => Promise.reject(Refusal.at(503, '', 'away'))));
  expect(await guess(from('10.0.0.3'), () => Promise.resolve('in'))).toBe('in');
});

test('a number of requests that is none is said at the start', async () => {
  process.env.WATTOGRAPH_REQUESTS = 'many';
  await expect(spend('person', 'jun')).rejects.toThrow(
    'WATTOGRAPH_REQUESTS: expected a whole number of requests a minute, at least 25, got many',
  );
});
