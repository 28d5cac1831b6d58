import { Refusal } from './refusal';
import { findWarmJob, warmUp } from './warmUp';

const found: { id: string }[] = [];
const asked: unknown[] = [];
let fails: Error | null = null;
jest.mock('./log', () => ({ log: { info: () => undefined } }));
jest.mock('./database', () => {
  const query = new Proxy({}, { get: (_, name) => (name === 'limit' ? () => Promise.resolve(found) : () => query) }) as object;
  return { database: () => query };
});
jest.mock('./taskHandlers', () => ({
  doTask: (kind: string, input: object) => {
    asked.push([kind, input]);
    return fails ? Promise.reject(fails) : Promise.resolve();
  },
}));

beforeEach(() => {
  found.length = asked.length = 0;
  fails = null;
});

test('without a job nothing is made', async () => {
  expect(await findWarmJob()).toBeNull();
  await warmUp();
  expect(asked).toEqual([]);
});

test('one pack of the job that was changed last is made; what has nothing to print is no failure, all else is', async () => {
  found.push({ id: 'job-1' });
  await warmUp();
  expect(asked).toEqual([['pdf', expect.objectContaining({ jobId: 'job-1', release: null, since: null })]]);
  fails = Refusal.at(404, 'loom', 'no loom');
  await expect(warmUp()).resolves.toBeUndefined();
  fails = new Error('out of memory');
  await expect(warmUp()).rejects.toThrow('out of memory');
});
