import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { pinLayer, setBundling, setLeaves, takeLayup, type Command } from '../../edit';
import { editDocument, type Job } from '../../model';
import { runs } from '../../testing/runs';
import { createRandom } from '../../units';
import { findStandard } from '../findStandard';
import { createPlanner, plan } from '../plan';
import { listLaidCircles } from './listLaidCircles';
import { priceBreakouts } from './priceBreakouts';
import { searchLayups } from './searchLayups';

const act = (job: Job, ...commands: Command[]) => commands.reduce((now, { apply }) => editDocument(now, (draft) => apply(draft)).next, job);
const engineOf = (job: Job) => plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'engine')!;
const search = (job: Job) => searchLayups(job.looms.engine!, engineOf(job), findStandard(job, CATALOGUE), { seed: 1, tries: 40 }).laidUp;
const quick = act(createCleanSkerry(), setBundling('engine', 'concentric'));
const laid = act(quick, takeLayup('engine', search(quick)));
const loom = engineOf(laid);

test('without a search every strip is laid once and says so; what was found stands through new lengths, and is stale for other wires', () => {
  expect(new Set(engineOf(quick).layups.map(({ by }) => by))).toEqual(new Set(['quick']));
  expect(new Set(loom.layups.map(({ by }) => by))).toEqual(new Set(['search']));
  const longer = editDocument(laid, ({ looms }) => {
    for (const segment of Object.values(looms.engine!.segments)) segment.lengthMm += 11;
  }).next;
  const [before, now] = [loom, engineOf(longer)].map(({ layups }) =>
    layups.map(({ by, stretches }) => [
      by,
      stretches.map(({ layers }) => layers.map(({ slots }) => slots.map(({ threadId }) => threadId).sort())),
    ]),
  );
  expect(now).toEqual(before);
  const fewer = editDocument(laid, ({ looms }) => {
    delete looms.engine!.circuits.c310;
  }).next;
  const trunk = engineOf(fewer).layups[0]!;
  expect([trunk.by, trunk.stretches.length]).toEqual(['stale', 1]);
});

test('a pin that cannot be kept everywhere does not make what was found stale; one that comes later does', () => {
  const first = loom.layups[0]!.threads.find(({ to }) => to.mark === loom.layups[0]!.marks.length - 1)!;
  // no bundle of these has so many layers
  const pinned = act(laid, pinLayer('engine', first.id, 'x', { layer: 12, reason: 'tried' }));
  expect(engineOf(pinned).layups[0]!.by).toBe('stale');
  const found = act(pinned, takeLayup('engine', search(pinned)));
  const trunk = engineOf(found).layups[0]!;
  expect(trunk.by).toBe('search');
  const kept = found.looms.engine!.laidUp[trunk.id]!;
  kept.forEach(({ layers, unpinned }) => {
    const at = layers.findIndex((ids) => ids.includes(first.id));
    expect(unpinned.includes(first.id)).toBe(at !== -1);
  });
  expect(kept.some(({ unpinned }) => unpinned.includes(first.id))).toBe(true);
  // somebody of the second layer, pinned to the core afterwards
  const [other] = kept[0]!.layers[1]!;
  expect(engineOf(act(found, pinLayer('engine', other!, 'y', { layer: 0, reason: 'later' }))).layups[0]!.by).toBe('stale');
});

test('every wire of a run in layers lies in one place of it, none on another, all within the bundle; the bundle is as thick as its outermost layer', () => {
  for (const layup of loom.layups)
    layup.segmentIds.forEach((segmentId, index) => {
      const bundle = loom.bundles.find((one) => one.segmentId === segmentId)!;
      for (const section of bundle.sections) {
        const at = layup.marks[layup.segmentMarks[index]!]!.mm + (section.fromMm + section.toMm) / 2;
        const circles = listLaidCircles(layup, at);
        expect(circles.flatMap(({ wireIds }) => wireIds).sort()).toEqual(section.elements.flat().sort());
        expect(section.odMm).toBeCloseTo(Math.max(...circles.map(({ outerOdMm }) => outerOdMm)), 9);
        expect(section.odMm).toBeGreaterThanOrEqual(section.boundMm - 1e-9);
        circles.forEach((one, place) => {
          expect(Math.hypot(one.x, one.y) + one.r).toBeLessThanOrEqual(section.odMm / 2 + 1e-6);
          for (const other of circles.slice(place + 1))
            // a layer may be squeezed by three hundredths
            expect(Math.hypot(one.x - other.x, one.y - other.y)).toBeGreaterThanOrEqual((one.r + other.r) * 0.965);
        });
      }
    });
});

test('a planner that remembers comes to the same as a new one, edit by edit: lengths, sides, schools, searches', () => {
  const random = createRandom(11);
  const planner = createPlanner(CATALOGUE);
  let job = laid;
  planner(job);
  const ids = Object.keys(job.looms.engine!.segments);
  const one = () => ids[Math.floor(random() * ids.length)]!;
  for (let round = 0; round < runs(6, 60); round += 1) {
    const segmentId = one();
    const kind = Math.floor(random() * 4);
    if (kind === 0)
      job = editDocument(job, ({ looms }) => {
        looms.engine!.segments[segmentId]!.lengthMm += 5;
      }).next;
    else if (kind === 1) job = act(job, setLeaves({ loomId: 'engine', segmentId, name: 'x' }, Math.floor(random() * 360)));
    else if (kind === 2)
      job = editDocument(job, ({ looms }) => {
        looms.engine!.segments[segmentId]!.bundling = ([null, 'straight', 'pairs-only', 'concentric'] as const)[Math.floor(random() * 4)]!;
      }).next;
    else job = act(job, takeLayup('engine', search(job)));
    expect([round, kind, JSON.stringify(planner(job)) === JSON.stringify(plan(job, CATALOGUE))]).toEqual([round, kind, true]);
  }
});

test('an element with a side comes up there: the whole of a branch within what as many take of the ring', () => {
  const { tree } = loom;
  const branch = Object.values(tree.segments).find(
    ({ id, onward, nearNodeId }) => !onward && laid.looms.engine!.nodes[nearNodeId]!.kind === 'breakout' && id !== loom.layups[0]!.id,
  )!;
  const sided = act(laid, setLeaves({ loomId: 'engine', segmentId: branch.id, name: 'x' }, 120));
  const slots = engineOf(sided).layups.flatMap(({ stretches }) =>
    stretches.flatMap(({ layers }) => layers.flatMap((layer) => layer.slots.filter(({ offSideDeg }) => offSideDeg !== null))),
  );
  expect(slots.length).toBeGreaterThan(0);
  for (const { offSideDeg } of slots) expect(offSideDeg).toBeLessThanOrEqual(90 + 1e-6);
});

test('each breakout is priced three ways: what is planned is one of them, with its own figures', () => {
  const wires = new Map(loom.wires.map((wire) => [wire.id, wire]));
  const standard = findStandard(laid, CATALOGUE);
  for (const layup of loom.layups)
    for (const { mark, taken, fill, relay, drop } of priceBreakouts(layup, standard, wires)) {
      const isRelaid = layup.stretches.some(({ fromMark }) => fromMark === mark);
      expect(taken === 'relay').toBe(isRelaid);
      expect(relay.minutes).toBeGreaterThanOrEqual(standard.relayMinutes);
      if (taken === 'drop') expect(drop === null || drop.odMm > 0).toBe(true);
      for (const way of [fill, relay, drop]) {
        if (way === null) continue;
        expect(way.cost).toBeCloseTo((way.fillerMm / 1000) * standard.fillerPerM + (way.minutes / 60) * standard.labourPerHour, 9);
      }
      if (!isRelaid) continue;
      const at = layup.stretches.findIndex(({ fromMark }) => fromMark === mark);
      expect(relay.fillers).toBe(layup.fillers.filter(({ stretch }) => stretch === at).length);
    }
});
