import { CATALOGUE } from '../../catalogue';
import { applyEdit, type Job, type Loom } from '../../model';
import { plan } from '../../plan';
import { createBench, join } from '../../testing/createBench';
import { checkPlan } from '../checkPlan';

const find = (job: Job) => checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'EN3' || code === 'EN9');

/** Two housings of one kind on legs of the bench; loops of 20 mm. */
const withLegs = (leftMm: number, rightMm: number, change: (loom: Loom, job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    loom.segments.s2 = { ...loom.segments.s2!, lengthMm: leftMm };
    loom.segments.s3 = { ...loom.segments.s3!, lengthMm: rightMm };
    for (const id of ['L', 'R']) loom.ends[id] = { ...loom.ends[id]!, familyId: 'tarn-3', key: 'grey', serviceLoopMm: 20 };
    change(loom, job);
  });

test('legs of 180 and 120: a mis-plug, cured by another key or a leg that is 100 shorter, and not by gender where it is live', () => {
  const [only, ...rest] = find(withLegs(180, 120));
  expect(rest).toEqual([]);
  expect(only).toMatchObject({ code: 'EN9', grade: 'note' });
  expect(only!.sentence).toContain('left goes on the device of right (100 mm too long not to)');
  expect(only!.sentence).toContain('a leg of left that is 100 mm shorter');
  expect(only!.fix!.patch).toEqual([{ op: 'replace', path: '/looms/bench/ends/R/key', value: 'black' }]);
  const live = find(withLegs(180, 120, (loom) => void (loom.circuits.c1 = { ...loom.circuits.c1!, kind: 'supply' })))[0]!;
  expect(live.sentence).toMatch(/Not by gender: .*left.* live when open\./);
  const dead = find(
    withLegs(180, 120, (loom) => {
      for (const circuit of Object.values(loom.circuits)) circuit.kind = 'signal';
    }),
  )[0]!;
  expect(dead.sentence).toContain('the other gender at right');
});

test('its fix ends it; legs that reach each other are a check of their own', () => {
  const job = withLegs(180, 120);
  const mended = applyEdit(job, find(job)[0]!.fix!.patch);
  expect(mended.ok && find(mended.value)).toEqual([]);
  expect(find(withLegs(180, 170)).map(({ code, grade }) => [code, grade])).toEqual([['EN3', 'check']]);
});

test('the same circuits in both: no harm, a note without a cure', () => {
  const same = (loom: Loom) => {
    loom.circuits = { c1: join('1', 'A-1 L-1 R-1'), c2: join('2', 'A-2 L-2 R-2') };
  };
  const [only] = find(withLegs(180, 170, same));
  expect(only).toMatchObject({ code: 'EN3', grade: 'note', fix: null });
  expect(only!.sentence).toContain('no harm done');
  expect(find(withLegs(280, 120, same))).toEqual([]);
});

test('over two looms that are mated, either side of the connection', () => {
  const job = createBench((loom, whole) => {
    loom.segments.s1 = { ...loom.segments.s1!, lengthMm: 60 };
    loom.segments.s2 = { ...loom.segments.s2!, lengthMm: 50 };
    const other = structuredClone(loom);
    other.prefix = 'U';
    other.name = 'other';
    for (const circuit of Object.values(other.circuits)) circuit.number = `9${circuit.number}`;
    whole.looms.other = other;
    whole.mates.m1 = { a: { loomId: 'bench', endId: 'A' }, b: { loomId: 'other', endId: 'A' } };
  });
  const found = find(job).filter(({ sentence }) => sentence.includes('along both looms'));
  expect(found.map(({ loomId, code, measured }) => [loomId, code, measured])).toContainEqual(['bench', 'EN3', 220]);
  const mended = applyEdit(job, found.find(({ code }) => code === 'EN3')!.fix!.patch);
  expect(mended.ok && find(mended.value).map(({ key }) => key)).not.toContain(found.find(({ code }) => code === 'EN3')!.key);
});

test('EN4 is not told where the house goes by the print of wires that are all of one colour, nor where bands tell them apart', () => {
  const job = createBench((loom) => {
    loom.circuits.c1!.colour.base = 'yellow';
    for (const id of ['c2', 'c3']) loom.circuits[id]!.colour = { base: 'red', stripe: null, bands: [] };
  });
  const codes = () => checkPlan(job, plan(job, CATALOGUE), CATALOGUE, null).map(({ code }) => code);
  expect(codes()).toContain('EN4');
  job.brief.departures = { colours: { side: 1, reason: 'print' } };
  expect(codes()).not.toContain('EN4');
  job.brief.departures = {};
  job.looms.bench!.circuits.c2!.colour.bands = ['blue'];
  expect(codes()).not.toContain('EN4');
});
