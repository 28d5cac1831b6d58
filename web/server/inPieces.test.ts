import { CATALOGUE, checkJob, checkJobInPieces, createLookup } from 'wattograph-core';
import { createRandomJob } from 'wattograph-core/generate';
import { inPieces } from './inPieces';

const busy = (ms: number) => {
  const until = performance.now() + ms;
  while (performance.now() < until);
};

test('others have their turn between pieces that take long', async () => {
  const order: string[] = [];
  function* work(): Generator<undefined, string> {
    for (const piece of ['one', 'two', 'three']) {
      busy(25);
      order.push(piece);
      yield;
    }
    return 'done';
  }
  const other = new Promise<void>((resolve) => {
    const look = () => {
      order.push('other');
      if (order.filter((one) => one === 'other').length < 3) setImmediate(look);
      else resolve();
    };
    setImmediate(look);
  });
  expect(await inPieces(work())).toBe('done');
  await other;
  expect(order.slice(0, 4)).toEqual(['one', 'other', 'two', 'other']);
});

test('what goes wrong in a piece is thrown where it was asked for', async () => {
  function* work(): Generator<undefined, never> {
    yield;
    throw new RangeError('no');
  }
  await expect(inPieces(work())).rejects.toThrow('no');
});

test('the gate gives the same verdict in pieces, and pauses at least once for each loom', async () => {
  const job = createRandomJob(11, 300);
  const lookup = createLookup(CATALOGUE);
  const pieces = checkJobInPieces(job, lookup);
  let pauses = 0;
  while (!pieces.next().done) pauses += 1;
  expect(pauses).toBeGreaterThanOrEqual(2 * Object.keys(job.looms).length);
  expect(await inPieces(checkJobInPieces(job, lookup))).toEqual(checkJob(job, lookup));
  const spoilt = { ...job, looms: { ...job.looms, other: { ...Object.values(job.looms)[0]!, prefix: 'low' } } };
  const verdict = await inPieces(checkJobInPieces(spoilt, lookup));
  expect(verdict).toEqual(checkJob(spoilt, lookup));
  expect(verdict.ok).toBe(false);
});
