import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Fallen, Labourer, OverBudget } from './labourer';

const folder = mkdtempSync(join(tmpdir(), 'labour-'));
const script = join(folder, 'labour.mjs');
// what it is told to do; its id with every answer
writeFileSync(
  script,
  `import { closeSync } from 'node:fs';
process.on('disconnect', () => process.exit(0));
process.on('message', ({ what }) => {
  if (what === 'hang') for (;;);
  if (what === 'fall') process.exit(3);
  // what it says of its end would be taken for that of whoever runs the tests
  if (what === 'eat') { closeSync(2); const all = []; for (;;) all.push(new Array(1e6).fill({})); }
  if (what === 'wait') return;
  process.send(what === 'fail' ? { failed: 'no ' + process.pid } : { done: true });
});`,
);
const open: Labourer[] = [];
const create = (memoryMb?: number) => {
  const made = new Labourer(script, memoryMb);
  open.push(made);
  return made;
};
const pidOf = (one: Labourer) =>
  one.run({ what: 'fail' }, 5000).then(
    () => '',
    (error: Error) => error.message,
  );

afterEach(() => open.splice(0).forEach((one) => one.end()));
afterAll(() => rmSync(folder, { recursive: true }));

test('one process does one piece after another, and what fails is said and leaves it standing', async () => {
  const one = create();
  const first = await pidOf(one);
  expect(first).toMatch(/^no \d+$/);
  await one.run({ what: 'do' }, 5000);
  expect(await pidOf(one)).toBe(first);
});

test('what takes too long is ended, though it never lets go, and what waits behind it is done', async () => {
  const one = create();
  const before = await pidOf(one);
  const hung = one.run({ what: 'hang' }, 300);
  const behind = one.run({ what: 'do' }, 5000);
  await expect(hung).rejects.toThrow(OverBudget);
  await behind;
  expect(await pidOf(one)).not.toBe(before);
});

test('a process that falls, by itself or for want of memory, takes one piece with it', async () => {
  const one = create(40);
  await expect(one.run({ what: 'fall' }, 5000)).rejects.toThrow(Fallen);
  await one.run({ what: 'do' }, 5000);
  await expect(one.run({ what: 'eat' }, 60_000)).rejects.toThrow(Fallen);
  await one.run({ what: 'do' }, 5000);
});

test('what nobody wants any more is left at once, also before it was begun', async () => {
  const one = create();
  const left = new AbortController();
  const waiting = one.run({ what: 'wait' }, 5000, left.signal);
  const behind = one.run({ what: 'do' }, 5000, left.signal);
  left.abort(new Error('nobody waits'));
  await expect(waiting).rejects.toThrow('nobody waits');
  await expect(behind).rejects.toThrow('nobody waits');
  await one.run({ what: 'do' }, 5000);
});
