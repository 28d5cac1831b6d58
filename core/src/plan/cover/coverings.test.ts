import fc from 'fast-check';
import { CATALOGUE, type Catalogue } from '../../catalogue';
import { isFromTheSide, type CoveringItem, type Job, type Segment, type Tick, type Zone } from '../../model';
import { createBench, join } from '../../testing/createBench';
import { createPlanner, findStandard, isCoveringFit, measureCoveringCut, measureCoveringOutside, measureTape, plan } from '../index';
import { compareCoverings } from './chooseCoverings';

const only = (job: Job, catalogue: Catalogue = CATALOGUE) => plan(job, catalogue).looms[0]!;
const item = (id: string) => CATALOGUE.coverings.find((one) => one.id === id)!;

/** The bench with its first run in a zone of its own. */
const inZone = (zone: Partial<Zone>, segment: Partial<Segment> = {}) =>
  createBench((loom, job) => {
    job.zones.own = { ...job.zones.cabin!, name: 'own zone', ...zone };
    // no splice, so that the bundle alone decides
    delete loom.circuits.c3;
    for (const [at, place] of ['L-2', 'L-3', 'R-2', 'R-3', 'R-4'].entries())
      loom.circuits[`m${at}`] = { ...loom.circuits.c1!, ...join(`m${at}`, `A-${at + 4} ${place}`) };
    loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'own', ...segment };
  });
const first = (job: Job, catalogue?: Catalogue) => only(job, catalogue).coverings.find(({ segmentId }) => segmentId === 's1')!;
const compare = (job: Job, catalogue = CATALOGUE) => {
  const planned = only(job, catalogue);
  const loom = job.looms.bench!;
  const { odMm } = planned.bundles.find(({ segmentId }) => segmentId === 's1')!;
  const context = { job, loom, tree: planned.tree, catalogue, standard: findStandard(job, catalogue) };
  return compareCoverings(
    context,
    planned.coverings.find(({ segmentId }) => segmentId === 's1')!,
    odMm,
  );
};

describe('figures (craft A2)', () => {
  test('▸ elastomer 9.5/4.8, wall 0.9, on 8.0 mm → 9.19 mm outside', () =>
    expect(measureCoveringOutside(item('shrink-9.5'), 8)).toBeCloseTo(9.19, 2));
  test('▸ tape 19 mm at half overlap on 10 mm: 3.31 m a metre where its own thickness is left out; with 0.25 mm of it 3.39', () => {
    expect(measureTape({ widthMm: 19, thicknessMm: 0, overlap: 0.5 }, 10, 1000) / 1000).toBeCloseTo(3.31, 2);
    expect(measureTape({ widthMm: 19, thicknessMm: 0.25, overlap: 0.5 }, 10, 1000) / 1000).toBeCloseTo(3.39, 2);
    expect(measureCoveringCut(item('cloth-tape-19'), 1000, 10, 10)).toBe(3390);
  });
  test('half overlap lies twice: 10 mm of bundle, 0.25 mm of tape → 11 mm', () =>
    expect(measureCoveringOutside(item('cloth-tape-19'), 10)).toBeCloseTo(11, 9));
  test('a tube is filled to 0.8 of its bore at most and stands off: 13 mm takes 10.4, outside it is 13 and two walls', () => {
    const tube = item('convoluted-13');
    expect([10.4, 10.5].map((od) => isCoveringFit(tube, od, od, CATALOGUE.standards.larkhollow!).grips)).toEqual([true, false]);
    expect(measureCoveringOutside(tube, 8)).toBeCloseTo(13 + 1.6, 9);
  });
  test('what goes on from the side passes anything, what is closed only what its bore does', () => {
    for (const one of CATALOGUE.coverings)
      expect([one.id, isCoveringFit(one, 5, 500, CATALOGUE.standards.larkhollow!).passes]).toEqual([one.id, isFromTheSide(one)]);
  });
});

describe('choice by what a zone asks for', () => {
  test('▸ a run that must open later: closed braid is refused, wrap taken with its price and mass beside it', () => {
    const job = inZone({ reopen: true });
    expect(first(job)).toMatchObject({ kind: 'wrap', ruledBy: 'zone', because: 'own zone: must be opened later', unmet: [] });
    const options = compare(job);
    expect(options.find(({ kind }) => kind === 'braid')).toMatchObject({ isTaken: false, whyNot: 'does not open again' });
    const wrap = options.find(({ isTaken }) => isTaken)!;
    expect([wrap.kind, wrap.massG > 0, wrap.price! > 0, wrap.minutes > 0]).toEqual(['wrap', true, true, true]);
  });
  test.each<[string, Partial<Zone>, (taken: CoveringItem) => boolean]>([
    ['water', { wet: true }, ({ keepsOut }) => keepsOut === 'water'],
    ['heat', { ambientC: 200 }, ({ limitC }) => limitC >= 200],
    ['movement', { flexing: true }, ({ stiffness }) => stiffness === 'limp'],
    ['edges', { abrasion: true }, ({ wears }) => wears],
    ['hands', { handled: true }, ({ handled }) => handled],
    ['opening', { reopen: true }, ({ opens }) => opens],
  ])('%s: what is taken does it, and one that does not says so', (_, zone, does) => {
    const job = inZone(zone);
    const { itemId, unmet } = first(job);
    expect([does(item(itemId!)), unmet]).toEqual([true, []]);
    for (const option of compare(job))
      if (option.item && option.problem === null && !does(option.item)) expect(option.unmet).toHaveLength(1);
  });
  test('what is asked for and cannot be had together: the graver wins and the rest is told', () => {
    expect(first(inZone({ wet: true, flexing: true, abrasion: true }))).toMatchObject({
      kind: 'adhesive-shrink',
      unmet: ['moves', 'wears'],
    });
    // water is not asked for where it must open: nothing does both for good
    expect(first(inZone({ wet: true, reopen: true })).unmet).toEqual([]);
  });
  test('of all that fit none does more of what is asked for, the gravest first, whatever the zone, ticks and shop', () => {
    const ill = (unmet: readonly string[]) =>
      unmet.reduce((sum, one) => sum + 2 ** ['handled', 'wears', 'moves', 'heat', 'water', 'opens'].indexOf(one), 0);
    fc.assert(
      fc.property(
        fc.record({
          wet: fc.boolean(),
          flexing: fc.boolean(),
          abrasion: fc.boolean(),
          reopen: fc.boolean(),
          handled: fc.boolean(),
          ambientC: fc.integer({ min: 20, max: 280 }),
        }),
        fc.subarray<Tick>(['hot', 'wet', 'moving', 'sharp']),
        fc.subarray(
          CATALOGUE.coverings.map(({ id }) => id),
          { minLength: 1 },
        ),
        fc.constantFrom('order', 'cost'),
        (zone, ticks, ids, coveringBy) => {
          const shop: Catalogue = {
            ...CATALOGUE,
            coverings: CATALOGUE.coverings.filter(({ id }) => ids.includes(id)),
            standards: { larkhollow: { ...CATALOGUE.standards.larkhollow!, coveringBy: coveringBy as 'order' } },
          };
          const job = inZone(zone, { ticks });
          const options = compare(job, shop);
          const { kind, unmet, problem } = first(job, shop);
          const fitting = options.filter((one) => one.problem === null);
          if (fitting.length === 0) expect(problem).not.toBeNull();
          else {
            expect(problem).toBeNull();
            expect(ill(unmet)).toBe(Math.min(...fitting.map((one) => ill(one.unmet))));
            const alike = fitting.filter((one) => ill(one.unmet) === ill(unmet));
            const taken = alike.find((one) => one.kind === kind)!;
            if (coveringBy === 'cost') expect(taken.cost).toBe(Math.min(...alike.map(({ cost }) => cost!)));
          }
        },
      ),
      { numRuns: 60 },
    );
  });
});

describe('what the shop decides', () => {
  const withStandard = (change: Partial<Catalogue['standards'][string]>): Catalogue => ({
    ...CATALOGUE,
    standards: { ...CATALOGUE.standards, larkhollow: { ...CATALOGUE.standards.larkhollow!, ...change } },
  });
  test('its order: the one that comes first where the zone leaves a choice, then the next; a runner-up says why it is not', () => {
    const job = inZone({});
    expect(first(job, withStandard({ covering: 'split-braid' })).kind).toBe('split-braid');
    const { kind, runnerUp } = first(job, withStandard({ covering: 'split-braid', coveringOrder: ['cloth-tape', 'shrink'] }));
    expect([kind, runnerUp!.kind]).toEqual(['split-braid', 'cloth-tape']);
    expect(runnerUp!.whyNot).toMatch(/^after it in the shop’s order/);
  });
  test('nothing, where it says so and the zone asks for nothing; a zone that asks is answered all the same', () => {
    const bare = withStandard({ covering: 'none' });
    expect(first(inZone({}), bare)).toMatchObject({ kind: 'none', cutMm: 0, runnerUp: null });
    expect(first(inZone({ wet: true }), bare).kind).toBe('adhesive-shrink');
  });
  test('by cost: what nobody stated a price of is not taken for cheap, and says so', () => {
    const job = inZone({});
    const cheapest = first(job, withStandard({ coveringBy: 'cost' }));
    const unpriced: Catalogue = {
      ...withStandard({ coveringBy: 'cost' }),
      buying: Object.fromEntries(
        Object.entries(CATALOGUE.buying).map(([key, line]) => [
          key,
          key.startsWith(`coverings/${cheapest.kind}`) ? { ...line, price: null } : line,
        ]),
      ),
    };
    expect(first(job, unpriced).kind).not.toBe(cheapest.kind);
    expect(compare(job, unpriced).find(({ kind }) => kind === cheapest.kind)!.whyNot).toContain('no price is stated');
  });
  test('PVC tape closes ends: no run is covered with it, were it the only one', () => {
    const tapes = { ...CATALOGUE, coverings: CATALOGUE.coverings.filter(({ kind }) => kind === 'pvc-tape') };
    expect(first(inZone({}), tapes)).toMatchObject({ kind: 'shrink', itemId: null, problem: 'no-size' });
    const pinned = inZone({}, { coveringPin: { kind: 'pvc-tape', itemId: 'pvc-tape-19', reason: 'x' } });
    expect(first(pinned, tapes)).toMatchObject({ kind: 'pvc-tape', problem: null });
  });
  test('a planner that remembers covers as one that begins anew, through every kind and back', () => {
    const run = createPlanner(CATALOGUE);
    for (const kind of ['wrap', 'convoluted', 'cloth-tape', 'heat-sleeve', 'braid', 'none', 'plain-shrink'] as const) {
      const job = inZone({}, { coveringPin: { kind, itemId: null, reason: 'x' } });
      expect(JSON.stringify(run(job))).toBe(JSON.stringify(plan(job, CATALOGUE)));
      expect(first(job).kind).toBe(kind);
    }
  });
});
