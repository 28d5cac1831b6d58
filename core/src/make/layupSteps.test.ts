import { CATALOGUE } from '../catalogue';
import { createCleanSkerry } from '../demo';
import { createSheets } from '../draw';
import { pinLayer, setBundling, takeLayup, type Command } from '../edit';
import { toCutListCsv } from '../exchange';
import { findStandard, plan, searchLayups } from '../plan';
import { createBuild } from './createBuild';

const start = createCleanSkerry();
const put = (job: typeof start, ...commands: Command[]) => {
  const next = structuredClone(job);
  for (const { apply } of commands) apply(next);
  return next;
};
const laid = put(start, setBundling('engine', 'concentric'));
const before = plan(laid, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
const { laidUp } = searchLayups(laid.looms.engine!, before, findStandard(laid, CATALOGUE), { seed: 1, tries: 60 });
const job = put(laid, takeLayup('engine', laidUp));
const loom = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
const straight = plan(start, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
const build = createBuild(job, loom, CATALOGUE);
const position = new Map(build.steps.map(({ id }, index) => [id, index]));

test('every layer of every stretch is a step of its own, from the core outwards, after the trial fit', () => {
  for (const { id, stretches } of loom.layups) {
    const places = stretches.flatMap(({ layers }, at) => layers.map((_, layer) => position.get(`layup.${id}.${at}.${layer}`)!));
    expect(places).toEqual([...places].sort((a, b) => a - b));
    expect(places.every((place) => place > position.get('fit')!)).toBe(true);
  }
});

test('each wire is laid once in each stretch that it lies in, in the words of the step; a splice is made before a layer covers it', () => {
  for (const { id, stretches, threads, marks, segmentIds } of loom.layups)
    for (const [at, { fromMark, toMark, layers }] of stretches.entries()) {
      const here = threads.filter(({ from, to }) => from.mark < toMark && to.mark > fromMark);
      const steps = layers.map((_, layer) => build.steps.find((step) => step.id === `layup.${id}.${at}.${layer}`)!);
      const wireIds = steps.flatMap(({ items }) => items.flatMap((item) => item.wireIds));
      expect(wireIds.sort()).toEqual([...new Set(here.flatMap(({ parts }) => parts.flatMap((part) => part.wireIds)))].sort());
      for (const splice of loom.splices.filter(({ place }) => segmentIds.includes(place.segmentId))) {
        const barrel = loom.barrels.find(({ spliceId }) => spliceId === splice.id)!;
        const covered = steps.findIndex(({ items }) =>
          items.some((item) => item.wireIds.some((wireId) => barrel.wireIds.includes(wireId))),
        );
        if (covered >= 0 && covered + 1 < steps.length)
          expect(position.get(`splice.${splice.id}`)!).toBeLessThan(position.get(steps[covered + 1]!.id)!);
      }
      expect(marks[toMark]!.mm).toBeGreaterThan(marks[fromMark]!.mm);
    }
});

test('no sleeve goes over a bundle that is not laid up', () => {
  for (const { id, segmentIds, stretches } of loom.layups)
    for (const segmentId of segmentIds) {
      const slide = position.get(`slide.${segmentId}`);
      if (slide === undefined) continue;
      stretches.forEach(({ layers }, at) => expect(position.get(`layup.${id}.${at}.${layers.length - 1}`)!).toBeLessThan(slide));
    }
});

test('dead wire is on the cut list, numbered, in the parts and in the mass; where it is laid in says its number', () => {
  const fillers = loom.layups.flatMap((layup) => layup.fillers);
  expect(fillers.length).toBeGreaterThan(0);
  expect(build.fillers.map(({ number }) => number)).toEqual(fillers.map((_, index) => `F${index + 1}`));
  const cut = build.steps.find(({ id }) => id === 'cut.fillers')!;
  expect(cut.items.map(({ id }) => id)).toEqual(build.fillers.map(({ number }) => number));
  const dead = build.parts.filter(({ name }) => name.startsWith('dead wire'));
  expect(dead.reduce((sum, { lengthMm }) => sum + lengthMm!, 0)).toBe(fillers.reduce((sum, { cutMm }) => sum + cutMm, 0));
  for (const { number, cutMm } of build.fillers) {
    const words = build.steps.filter(({ operation }) => operation === 'layup').flatMap(({ items }) => items.map((item) => item.words));
    expect(words.filter((one) => new RegExp(`\\b${number} \\(`).test(one) && one.includes(`${cutMm} mm`))).toHaveLength(1);
  }
  const wireMass = loom.wires.reduce((sum, { massG }) => sum + massG, 0);
  expect(loom.massG.wire).toBeCloseTo(wireMass + fillers.reduce((sum, { massG }) => sum + massG, 0), 6);
});

test('dead wire is in the cut list as CSV and on its sheet; a thread pinned to a layer is among what was chosen by hand', () => {
  const csv = toCutListCsv(build);
  for (const { number, cutMm } of build.fillers) expect(csv).toMatch(new RegExp(`,${number},any,[^,]+,${cutMm},${cutMm},no`));
  const pinned = put(job, pinLayer('engine', 'c310.1', 'E-310', { layer: 0, reason: 'short tail' }));
  const whole = plan(pinned, CATALOGUE);
  const engine = whole.looms.find(({ loomId }) => loomId === 'engine')!;
  const pack = { job: pinned, whole, plan: engine, build: createBuild(pinned, engine, CATALOGUE), findings: [], catalogue: CATALOGUE };
  const pages = createSheets(pack, { paper: 'A4', job: 'x', loom: 'engine', revision: 'draft', date: '2026-11-27' });
  const words = (sheet: string) =>
    pages
      .filter((page) => page.sheet === sheet)
      .flatMap(({ marks }) => marks.flatMap((mark) => (mark.kind === 'text' ? [mark.text] : [])))
      .join(' ');
  expect(words('Loom')).toContain('lay-up of E-310 core short tail');
  for (const { number } of pack.build.fillers) expect(words('Cut list')).toMatch(new RegExp(`\\b${number} \\d+ AWG`));
});

test('a wire is longer by what its layers take up, and says so; a loom that lies straight is as it was', () => {
  const longer = loom.wires.filter(({ id, addends }) => {
    const runs = (of: typeof addends) => of.filter(({ kind }) => kind === 'segment').reduce((sum, { mm }) => sum + mm, 0);
    const was = straight.wires.find((wire) => wire.id === id)!;
    expect(runs(addends)).toBeGreaterThanOrEqual(runs(was.addends) - 1e-9);
    return runs(addends) > runs(was.addends) + 1e-9;
  });
  expect(longer.length).toBeGreaterThan(loom.wires.length / 2);
  expect(longer[0]!.addends.map(({ words }) => words).join()).toMatch(/(core|layer \d) × 1\.0\d{4}/);
  expect([straight.layups, createBuild(start, straight, CATALOGUE).fillers]).toEqual([[], []]);
});
