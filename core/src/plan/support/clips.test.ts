import fc from 'fast-check';
import { CATALOGUE, createDemoShop } from '../../catalogue';
import { createCleanSkerry, createInlet } from '../../demo';
import { createSheets } from '../../draw';
import { createBuild, listFindings } from '../../make';
import { changeDocument, type Job, type Shop } from '../../model';
import { readClipPlaces } from '../../edit';
import { countBetween, plan, planClips, spreadClips } from '../index';
import { findFree } from './spreadClips';

test('between two fixed ends: 1,850 mm at 200 take 9; a run of one pitch takes none', () => {
  expect(countBetween(1850, 200)).toBe(9);
  expect([199, 200, 201, 400, 401].map((mm) => countBetween(mm, 200))).toEqual([0, 0, 1, 1, 2]);
});

test('near a connector, on both sides of a hole, before a breakout; evenly between', () => {
  const run = { everyMm: 200, firstMm: 100, moves: false };
  expect(spreadClips({ ...run, lengthMm: 600, isHeldNear: true })).toEqual([100, 300, 500]);
  expect(spreadClips({ ...run, lengthMm: 600, isHeldNear: false })).toEqual([500 / 3, 1000 / 3, 500]);
  expect(spreadClips({ ...run, lengthMm: 160, isHeldNear: true })).toEqual([80]);
  expect(spreadClips({ ...run, lengthMm: 100, isHeldNear: true })).toEqual([]);
  // what moves is held where it begins and ends to move
  expect(spreadClips({ ...run, lengthMm: 900, isHeldNear: true, moves: true })).toEqual([100, 800]);
  expect(spreadClips({ ...run, lengthMm: 200, isHeldNear: true, moves: true })).toEqual([50, 150]);
});

test('whatever the run: never further apart than the pitch, near enough to what begins and ends it, and no fewer would do', () => {
  const mm = (most: number) => fc.integer({ min: 1, max: most });
  fc.assert(
    fc.property(mm(5000), mm(400), mm(200), fc.boolean(), (lengthMm, everyMm, firstMm, isHeldNear) => {
      const at = spreadClips({ lengthMm, everyMm, firstMm, isHeldNear, moves: false });
      if (lengthMm <= firstMm) return expect(at).toEqual([]);
      const first = Math.min(firstMm, everyMm);
      const gaps = [0, ...at, lengthMm].slice(1).map((one, index) => one - [0, ...at][index]!);
      expect(Math.max(...gaps)).toBeLessThanOrEqual(Math.max(everyMm, first) + 1e-6);
      expect(lengthMm - at.at(-1)!).toBeLessThanOrEqual(first + 1e-6);
      if (isHeldNear) expect(at[0]).toBeLessThanOrEqual(first + 1e-6);
      // the naive way: from the near end on, each as far out as it may be
      let reach = isHeldNear ? first : everyMm;
      let least = 1;
      while (reach < lengthMm - first - 1e-6) [reach, least] = [reach + everyMm, least + 1];
      expect(at).toHaveLength(least);
    }),
  );
});

describe('clips of a loom', () => {
  const job = createCleanSkerry();
  const hold = (change: (shop: Shop) => void = () => undefined, of: Job = job) => {
    const shop = createDemoShop();
    change(shop);
    const planned = plan(of, shop);
    return { shop, planned, held: planned.looms.flatMap((loom) => planClips(of, loom, shop)) };
  };
  test('each holds the bundle over its covering and stands what there is; the pitch is of the zone or the shop', () => {
    const { held, planned } = hold();
    expect(held.length).toBeGreaterThan(50);
    for (const { segmentId, item, atMm, everyMm } of held) {
      const loom = planned.looms.find(({ tree }) => tree.segments[segmentId])!;
      const { odOutsideMm } = loom.coverings.find((one) => one.segmentId === segmentId)!;
      const zoneId = job.looms[loom.loomId]!.segments[segmentId]!.zoneId;
      const zone = zoneId === null ? undefined : job.zones[zoneId];
      expect(everyMm).toBe(zone?.clipEveryMm ?? 200);
      expect(Math.max(0, ...atMm)).toBeLessThan(loom.tree.segments[segmentId]!.lengthMm);
      if (item === null) continue;
      expect(item.leastMm).toBeLessThanOrEqual(odOutsideMm);
      expect(item.mostMm).toBeGreaterThanOrEqual(odOutsideMm);
      expect(item.limitC).toBeGreaterThanOrEqual(zone?.ambientC ?? 0);
    }
  });
  test('a pitch that the zone has, or the shop, acts: half of it takes about twice as many', () => {
    const count = (held: ReturnType<typeof hold>['held']) => held.reduce((sum, { atMm }) => sum + atMm.length, 0);
    const usual = count(hold().held);
    const close = count(hold((shop) => Object.values(shop.standards).forEach((one) => (one.clipEveryMm = 50))).held);
    expect(close).toBeGreaterThan(1.5 * usual);
    const zoned = changeDocument(job, ({ zones }) => Object.values(zones).forEach((zone) => (zone.clipEveryMm = 50)));
    expect(count(hold(undefined, zoned).held)).toBeGreaterThan(1.5 * usual);
  });
  test('where it is hot an adhesive base drops out; where nothing stands it, DR9 says so; a retired clip is not taken', () => {
    const glueFirst = (shop: Shop) => shop.clips.sort((a, b) => Number(b.base === 'adhesive') - Number(a.base === 'adhesive'));
    const bases = hold(glueFirst).held.flatMap(({ item }) => item?.base ?? []);
    expect(new Set(bases)).toEqual(new Set(['adhesive', 'boss']));
    const onlyGlue = hold((shop) => (shop.clips = shop.clips.filter(({ base }) => base === 'adhesive')));
    const sentences = listFindings(job, onlyGlue.planned, onlyGlue.shop, null).flatMap(({ code, sentence }) =>
      code === 'DR9' ? [sentence] : [],
    );
    expect(sentences).toContainEqual(expect.stringMatching(/^No clip of the shop that holds .* stands \d+ °C\.$/));
    const retired = hold((shop) => {
      for (const { id } of shop.clips)
        if (id.startsWith('boss')) shop.buying[`clips/${id}`] = { retired: true, price: null, packOf: null, orderAs: '' };
    });
    expect(new Set(retired.held.flatMap(({ item }) => item?.base ?? []))).not.toContain('boss');
  });
  test('where no zone is known no clip is left out for heat, and that is told', () => {
    const unknown = changeDocument(job, ({ looms }) =>
      Object.values(looms.inlet!.segments).forEach((run) => Object.assign(run, { zoneId: null, ticks: [] })),
    );
    const of = (held: ReturnType<typeof hold>['held']) =>
      held.filter(({ segmentId }) => Object.hasOwn(job.looms.inlet!.segments, segmentId));
    expect(new Set(of(hold(undefined, unknown).held).map(({ ambientC }) => ambientC))).toEqual(new Set([null]));
    expect(of(hold().held).every(({ ambientC }) => ambientC !== null)).toBe(true);
  });
  test('a shop without clips plans none, and its sheets and parts have none', () => {
    const inlet = createInlet();
    const pack = (shop: Shop) => {
      const whole = plan(inlet, shop);
      const build = createBuild(inlet, whole.looms[0]!, shop);
      const pages = createSheets(
        { job: inlet, whole, plan: whole.looms[0]!, build, findings: [], catalogue: shop },
        { paper: 'A4', job: 'inlet', loom: 'inlet', revision: 'draft', date: '2026-11-27' },
      );
      return { sheets: pages.map(({ sheet }) => sheet), clips: build.parts.filter(({ group }) => group === 'clip') };
    };
    const none = pack({ ...createDemoShop(), clips: [] });
    expect([none.sheets.includes('Clips'), none.clips]).toEqual([false, []]);
    const some = pack(createDemoShop());
    expect(some.sheets).toContain('Clips');
    const held = planClips(inlet, plan(inlet, CATALOGUE).looms[0]!, CATALOGUE);
    expect(some.clips.reduce((sum, { pieces }) => sum + pieces, 0)).toBe(
      held.reduce((sum, { item, atMm }) => sum + (item ? atMm.length : 0), 0),
    );
  });
});

describe('clips chosen by hand', () => {
  // nothing moves, and clips are close
  const job = changeDocument(createInlet(), ({ zones, looms }) => {
    for (const zone of Object.values(zones)) Object.assign(zone, { flexing: false, clipEveryMm: 60 });
    for (const run of Object.values(looms.inlet!.segments)) run.ticks = [];
  });
  const [usual] = planClips(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE).filter(({ atMm }) => atMm.length > 2);
  const at = (clipsAtMm: number[] | null) => {
    const changed = changeDocument(job, ({ looms }) => void Object.assign(looms.inlet!.segments[usual!.segmentId]!, { clipsAtMm }));
    const planned = plan(changed, CATALOGUE);
    return {
      held: planClips(changed, planned.looms[0]!, CATALOGUE).find(({ segmentId }) => segmentId === usual!.segmentId)!,
      lengthMm: planned.looms[0]!.tree.segments[usual!.segmentId]!.lengthMm,
      told: listFindings(changed, planned, CATALOGUE, null).flatMap(({ code, sentence, places }) =>
        code === 'DR9' && places[0]!.id === usual!.segmentId ? [sentence] : [],
      ),
      clips: createBuild(changed, planned.looms[0]!, CATALOGUE).steps.find(({ id }) => id === 'clip')!.items,
    };
  };
  const whole = usual!.atMm.map(Math.round);
  test('lie where they were put, are built there, and as close as the computed ones are right', () => {
    const { held, told, clips } = at(whole);
    expect(held).toMatchObject({ atMm: whole, isByHand: true, problem: null });
    expect(told).toEqual([]);
    expect(clips.find(({ id }) => id === usual!.segmentId)!.words).toContain(` at ${whole.join(', ')} mm`);
    expect(at(null).held).toEqual(usual);
  });
  test('too far apart, or none at all: DR9 says where it hangs free', () => {
    const { lengthMm } = at(null);
    expect(at([]).held).toMatchObject({ atMm: [], item: null, problem: 'too-far', free: { fromMm: 0, toMm: lengthMm } });
    expect(at([]).told).toEqual([
      expect.stringMatching(new RegExp(`hangs free from 0 to ${Math.round(lengthMm)} mm; at most \\d+ mm are asked there`)),
    ]);
    expect(at([whole[0]!]).held.free).toMatchObject({ fromMm: whole[0], toMm: lengthMm });
  });
  test('beyond the run they are left out, and that is told', () => {
    const { held, told } = at([...whole, 5000]);
    expect([held.atMm, held.problem]).toEqual([whole, 'beyond']);
    expect(told).toEqual([expect.stringMatching(/lies beyond it: the run is \d+ mm long/)]);
  });
  test('as people write them', () => {
    expect(readClipPlaces(' 300, 100;520 100', 600)).toEqual({ ok: true, value: [100, 300, 520] });
    expect(readClipPlaces('', 600)).toEqual({ ok: true, value: [] });
    expect(readClipPlaces('100, far', 600)).toEqual({ ok: false, message: 'expected whole mm below 600, got far' });
    expect(readClipPlaces('600', 600).ok).toBe(false);
  });
});

test('whatever places were chosen by hand: free is the gap that is most too long, null exactly where none is', () => {
  const mm = (most: number) => fc.integer({ min: 1, max: most });
  fc.assert(
    fc.property(mm(3000), mm(400), mm(200), fc.boolean(), fc.array(mm(3000)), (lengthMm, everyMm, firstMm, isHeldNear, places) => {
      const atMm = [...new Set(places.filter((one) => one <= lengthMm))].sort((a, b) => a - b);
      const free = findFree({ lengthMm, everyMm, firstMm, isHeldNear, moves: false }, atMm);
      if (lengthMm <= firstMm) return expect(free).toBeNull();
      const first = Math.min(firstMm, everyMm);
      const asked = [...atMm.map((_, at) => (at === 0 && isHeldNear ? first : everyMm)), first];
      const over = [...atMm, lengthMm].map((toMm, at) => toMm - [0, ...atMm][at]! - asked[at]!);
      const worst = Math.max(...over);
      expect(free === null).toBe(worst <= 1e-6);
      if (free) expect(free.toMm - free.fromMm - free.mostMm).toBeCloseTo(worst, 9);
    }),
  );
});
