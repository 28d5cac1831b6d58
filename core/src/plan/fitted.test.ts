import fc from 'fast-check';
import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { createRandomJob } from '../demo/generate';
import { changeDocument, createOpenItem, findSurroundings, isMoving, TICKS, type CircuitKind, type Job, type Tick } from '../model';
import { createBench, join } from '../testing/createBench';
import { runs } from '../testing/runs';
import { createPlanner, plan } from './index';

const only = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const fit = (job: Job, lengths: Record<string, number>): Job =>
  changeDocument(job, (draft) => {
    const { segments } = Object.values(draft.looms)[0]!;
    for (const [id, fittedMm] of Object.entries(lengths)) Object.assign(segments[id]!, { fittedMm, status: 'fitted' });
  });

describe('a planner that knows the job gives what a new one gives', () => {
  test('over any run of lengths, fits, ticks, currents and open items', () => {
    const base = createRandomJob(11, 60);
    const loom = base.looms.random!;
    const segmentId = fc.constantFrom(...Object.keys(loom.segments));
    const circuitId = fc.constantFrom(...Object.keys(loom.circuits));
    const edit = fc.oneof(
      fc.record({ kind: fc.constant('length' as const), segmentId, mm: fc.integer({ min: 20, max: 900 }) }),
      fc.record({ kind: fc.constant('fit' as const), segmentId, mm: fc.integer({ min: 20, max: 900 }) }),
      fc.record({ kind: fc.constant('ticks' as const), segmentId, ticks: fc.uniqueArray(fc.constantFrom(...TICKS)) }),
      fc.record({ kind: fc.constant('current' as const), circuitId, mm: fc.integer({ min: 0, max: 6 }) }),
      fc.record({ kind: fc.constant('ask' as const), circuitId }),
    );
    fc.assert(
      fc.property(fc.array(edit, { minLength: 1, maxLength: 6 }), (edits) => {
        const planner = createPlanner(CATALOGUE);
        let job = base;
        planner(job);
        for (const [index, one] of edits.entries()) {
          job = changeDocument(job, (draft) => {
            const { segments, circuits } = draft.looms.random!;
            if (one.kind === 'length') segments[one.segmentId]!.lengthMm = one.mm;
            else if (one.kind === 'fit') Object.assign(segments[one.segmentId]!, { fittedMm: one.mm, status: 'fitted' });
            else if (one.kind === 'ticks') segments[one.segmentId]!.ticks = one.ticks;
            else if (one.kind === 'current') circuits[one.circuitId]!.currentA = one.mm;
            else draft.openItems[`q${index}`] = createOpenItem('x', { blocks: [{ loomId: 'random', kind: 'circuit', id: one.circuitId }] });
          });
          expect(planner(job)).toEqual(plan(job, CATALOGUE));
        }
      }),
      { numRuns: runs(6, 60), seed: 4640 },
    );
  });
});

describe('what is cut stays as it was joined', () => {
  test('a splice keeps its distance from its junction when the run beside it turns out otherwise', () => {
    const before = only(createBench());
    const after = only(fit(createBench(), { s1: 340, s2: 100, s3: 200 }));
    expect(before.splices[0]).toMatchObject({ awayMm: 45, place: { segmentId: 's1', offsetMm: 255 } });
    expect(after.splices[0]).toMatchObject({ awayMm: 45, place: { segmentId: 's1', offsetMm: 295 } });
  });
  test('the least-wire plan is not made anew by what was fitted', () => {
    // two legs far out: as read one splice pays, as fitted it would not
    const job = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, lengthMm: 260 };
      loom.circuits = { c3: join('3', 'A-3 L-2 R-2') };
    });
    expect(only(job).splices).toHaveLength(1);
    const fitted = fit(job, { s1: 200, s2: 100, s3: 200 });
    expect(only(fitted).splices).toHaveLength(1);
    expect(only(fitted).wires.map(({ number }) => number)).toEqual(only(job).wires.map(({ number }) => number));
  });
  test('a run that is shorter than the splice is far from its junction takes it at its end, and says it is not clear', () => {
    const after = only(fit(createBench(), { s1: 30, s2: 100, s3: 200 }));
    expect(after.splices[0]!.place.offsetMm).toBeGreaterThanOrEqual(0);
    expect(after.splices[0]!.clear).toBe(false);
  });
  test('fitted lengths govern cut lengths and carry no spread', () => {
    const after = only(fit(createBench(), { s1: 310, s2: 104, s3: 200 }));
    const wire = after.wires.find(({ number }) => number === 'T-1')!;
    expect(wire.addends.filter(({ kind }) => kind === 'segment').map(({ mm }) => mm)).toEqual([310, 104]);
    expect([wire.sigmaMm, wire.unfittedIds, wire.roughMm === wire.cutMm]).toEqual([0, [], true]);
  });
});

describe('surroundings of a run', () => {
  const zones = createInlet().zones;
  const at = (zoneId: string | null, ticks: Tick[]) => findSurroundings(zones, { zoneId, ticks }, 150);
  test('neither zone nor tick: nothing is known', () => expect(at(null, [])).toBeNull());
  test('a tick adds to the zone and never takes away', () => {
    expect(at('engine', ['hot'])).toMatchObject({ ambientC: 150, wet: false, name: 'engine bay, ticked hot' });
    expect(at('hot', ['hot'])!.ambientC).toBe(150);
    expect(at('wet', [])).toMatchObject({ wet: true, ambientC: 60 });
    expect(at('wet', ['moving', 'sharp'])).toMatchObject({ wet: true, flexing: true, abrasion: true });
  });
  test('ticked, with no zone: the ambient is known only where it was ticked hot', () => {
    expect(at(null, ['wet'])).toMatchObject({ ambientC: null, wet: true, name: 'ticked wet' });
    expect(at(null, ['hot'])!.ambientC).toBe(150);
  });
  test.each([
    [null, [], false],
    ['flex', [], true],
    [null, ['moving'], true],
    ['engine', ['wet'], false],
  ] as [string | null, Tick[], boolean][])('zone %p with ticks %p moves: %p', (zoneId, ticks, expected) =>
    expect(isMoving(zones, { zoneId, ticks })).toBe(expected),
  );
  test('ticks choose the covering as zones do, and keep splices out of a moving run', () => {
    const ticked = (ticks: Tick[]) =>
      only(
        createBench((loom) => {
          loom.segments.s1 = { ...loom.segments.s1!, ticks };
        }),
      );
    const kind = (ticks: Tick[]) => ticked(ticks).coverings.find(({ segmentId }) => segmentId === 's1')!;
    expect(kind([])).toMatchObject({ ruledBy: 'standard' });
    expect(kind(['wet'])).toMatchObject({ kind: 'adhesive-shrink', because: 'ticked wet: wet' });
    // the splice has gone to the other run, and its joint with it
    expect(kind(['moving']).kind).toBe('braid');
    expect(kind(['sharp'])).toMatchObject({ kind: 'wrap', because: 'ticked sharp: abrasion' });
    expect(ticked(['moving']).splices[0]!.place.segmentId).not.toBe('s1');
  });
});

describe('heat of a run', () => {
  const heated = (currentA: number | null, zoneId: string | null = 'engine', kind: CircuitKind = 'signal') =>
    only(
      createBench((loom) => {
        loom.segments.s1 = { ...loom.segments.s1!, zoneId };
        for (const circuit of Object.values(loom.circuits)) Object.assign(circuit, { currentA, kind });
      }),
    ).heats;
  test('known where the ambient is', () => {
    expect(heated(1, null)).toEqual([]);
    expect(heated(1)).toEqual([expect.objectContaining({ segmentId: 's1', ambientC: 90, limitC: 150, uncounted: 0 })]);
  });
  test('no design current counts as none, and says how many', () => {
    expect(heated(null, 'engine', 'supply')[0]).toMatchObject({ middleC: 90, wattsPerM: 0, uncounted: 3, modeId: null });
    // a signal carries nothing that warms
    expect(heated(null)[0]).toMatchObject({ uncounted: 0 });
    expect(heated(0)[0]).toMatchObject({ middleC: 90, uncounted: 0 });
  });
  test('four times the heat for twice the current, a little more for the warmer copper', () => {
    const ratio = heated(2)[0]!.wattsPerM! / heated(1)[0]!.wattsPerM!;
    expect(ratio).toBeGreaterThan(4);
    expect(ratio).toBeLessThan(4.2);
  });
});
