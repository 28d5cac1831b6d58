import { CATALOGUE } from '../catalogue';
import { createRandomJob } from '../demo/createRandomJob';
import { createInlet } from '../demo';
import type { Job } from '../model';
import { plan } from '../plan';
import { createBench } from '../testing/createBench';
import { playShop } from '../testing/playShop';
import { runs } from '../testing/runs';
import { createRandom } from '../units';
import { createBuild, findDressed, type Step } from './index';

const make = (job: Job) => {
  const planned = plan(job, CATALOGUE).looms[0]!;
  return { planned, steps: createBuild(job, planned, CATALOGUE).steps };
};
const place = (steps: readonly Step[], id: string) => steps.findIndex((step) => step.id === id);

/** A random loom with boots and transitions where they fit, some runs pinned, some put on after. */
function createDressed(seed: number): Job {
  const job = createRandomJob(seed, 24);
  const random = createRandom(seed * 7 + 1);
  const loom = job.looms.random!;
  loom.dressing = random() < 0.8 ? 'boots' : 'sleeves';
  loom.bundling = random() < 0.3 ? 'concentric' : null;
  for (const segment of Object.values(loom.segments)) {
    if (random() < 0.2) segment.lengthMm = 40 + Math.round(random() * 80);
    if (random() < 0.15) segment.coveringPin = { kind: random() < 0.5 ? 'braid' : 'wrap', itemId: null, reason: 'x' };
  }
  for (const end of Object.values(loom.ends))
    if (random() < 0.5 && end.familyId?.startsWith('pellow')) Object.assign(end, { familyId: 'hollin-19', key: 'A' });
  return job;
}

test.each(Array.from({ length: runs(40, 1000) }, (_, at) => at + 1))(
  'a shop that plays the steps of loom %d can do every one of them',
  (seed) => {
    const job = createDressed(seed);
    const { planned, steps } = make(job);
    expect(playShop(job, planned, CATALOGUE, steps)).toEqual([]);
    // and the game is one that can be lost: with one of its steps moved to the front it is
    const late = steps.filter(({ id }) => id.startsWith('boot.e') || id.startsWith('fork.'));
    for (const step of late.slice(0, 2)) {
      const moved = [...steps.filter((one) => one !== step), step];
      expect(playShop(job, planned, CATALOGUE, moved)).not.toEqual([]);
    }
  },
);

describe('a boot, its build-up and the transition behind it', () => {
  const job = createBench((loom) => {
    loom.dressing = 'boots';
    loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-13', key: 'A', bootPin: { itemId: 'boot-16', reason: 'to see' } };
  });
  const { planned, steps } = make(job);
  test('slide on in the order in which they lie, before the end is closed, and close after it, on the covered leg', () => {
    const boot = steps[place(steps, 'boot.L')]!;
    expect(boot.items.map(({ words }) => words.replace(/ \d+ mm of.*/, ''))).toEqual(
      ['1. build-up: cut', '2. build-up: cut', '3. boot 16, 19/10 to 16/4.6'].slice(-boot.items.length),
    );
    expect(boot.items.length).toBeGreaterThan(1);
    const order = ['fork.b1', 'slide.s2', 'label.L', 'boot.L', 'crimp.L', 'seat.L', 'cover.s2', 'close.L'].map((id) => place(steps, id));
    expect(order).toEqual([...order].sort((a, b) => a - b));
    expect(order).not.toContain(-1);
  });
  test('the anchor’s boot comes on from the loose ends, before the wires are laid', () => {
    expect(place(steps, 'seat.A')).toBeLessThan(place(steps, 'boot.A'));
    expect(place(steps, 'boot.A')).toBeLessThan(place(steps, 'lay'));
    expect(place(steps, 'close.A')).toBeGreaterThan(place(steps, 'cover.s1'));
  });
  test('each of its steps leads back to what it works on; others to nothing', () => {
    expect(findDressed(planned, 'boot.L')).toBe(planned.endDress.find(({ endId }) => endId === 'L'));
    expect(findDressed(planned, 'forkclose.b1')).toBe(planned.breakoutDress[0]);
    expect(findDressed(planned, 'crimp.L')).toBeNull();
  });
  test('parts and mass have them: boots by the piece, build-up by its length', () => {
    const { parts } = createBuild(job, planned, CATALOGUE);
    const pieces = [...planned.endDress, ...planned.breakoutDress].flatMap((one) => one.pieces);
    for (const { table, itemId, cutMm } of pieces) {
      const line = parts.find(({ id }) => id === itemId)!;
      if (table === 'coverings') expect(line.lengthMm).toBeGreaterThanOrEqual(cutMm);
      else expect([line.group, line.cost === null]).toEqual(['moulded', false]);
    }
    const bare = plan({ ...job, looms: { bench: { ...job.looms.bench!, dressing: 'sleeves' } } }, CATALOGUE).looms[0]!;
    const more =
      pieces.reduce((sum, { massG }) => sum + massG, 0) -
      bare.endDress.flatMap((one) => one.pieces).reduce((sum, { massG }) => sum + massG, 0);
    expect(planned.massG.covering - bare.massG.covering).toBeCloseTo(more, 6);
  });
});

test('a leg whose sleeve has no room is covered before its end is made; one that has room afterwards', () => {
  const short = createBench((loom) => {
    for (const id of ['s1', 's2']) loom.segments[id] = { ...loom.segments[id]!, lengthMm: 60 };
  });
  const { planned, steps } = make(short);
  const order = (endId: string) => planned.endDress.find((one) => one.endId === endId)!.parking.order;
  expect([order('L'), order('R')]).toEqual(['cover-first', 'cover-first']);
  expect(place(steps, 'cover.s2')).toBeLessThan(place(steps, 'crimp.L'));
  const long = make(createBench());
  expect(long.planned.endDress.map(({ parking }) => parking.order)).toContain('push-back');
  expect(place(long.steps, 'cover.s2')).toBeGreaterThan(place(long.steps, 'seat.L'));
});

test('a loom that says nothing of boots has the steps that it had', () => {
  const { steps } = make(createInlet());
  expect(steps.filter(({ operation }) => operation === 'boot' || operation === 'close')).toEqual([]);
});
