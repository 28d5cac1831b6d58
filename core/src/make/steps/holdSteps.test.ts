import { CATALOGUE, type Catalogue } from '../../catalogue';
import { createCleanSkerry, createInlet } from '../../demo';
import { listFindings } from '../createInspector';
import { createBuild } from '../createBuild';
import { listCuts } from '../listCuts';
import type { Operation, Step } from '../step';
import {
  createDevice,
  createOpenItem,
  createPinNeed,
  editDocument,
  HOLD_OPERATIONS,
  type HoldOperation,
  type Job,
  type OpenItem,
} from '../../model';
import { createPlanner, plan } from '../../plan';
import { createBench, join } from '../../testing/createBench';

const build = (job: Job, catalogue: Catalogue = CATALOGUE, loomId?: string) => {
  const { looms } = plan(job, catalogue);
  return createBuild(job, looms.find((loom) => loom.loomId === loomId) ?? looms[0]!, catalogue);
};
const listHeld = (steps: readonly Step[]) =>
  steps.flatMap(({ id, items }) => items.flatMap(({ id: item, heldBecause }) => (heldBecause === null ? [] : [`${id} ${item}`])));
const operations = (steps: readonly Step[]): Operation[] => [
  ...new Set(steps.filter(({ items }) => items.some(({ heldBecause }) => heldBecause !== null)).map(({ operation }) => operation)),
];
const blocking = (kind: OpenItem['blocks'][number]['kind'], id: string, stops: HoldOperation) =>
  createBench((_loom, job) => {
    job.openItems.q = createOpenItem('is it so', { stops, blocks: [{ loomId: 'bench', kind, id }] });
  });

describe('a doubt stops the work that it names (craft G1)', () => {
  test('throttle pin 5 guessed, its place: the wire is cut and crimped, seating it is held, and nothing else', () => {
    const job = createInlet();
    const { segments, ends } = job.looms.inlet!;
    segments['s-knk'] = { ...segments['s-knk']!, status: 'roped' };
    const { pins } = ends.thr!;
    pins['5'] = { ...(pins['5'] ?? createPinNeed('signal', 'signal')), evidence: 'guessed', doubts: ['place'] };
    segments['s-inj5'] = { ...segments['s-inj5']!, slideOn: 'before-ends' };
    const { steps, cuts } = build(job);
    expect(listHeld(steps)).toEqual([expect.stringMatching(/^seat\.thr /)]);
    const held = steps.flatMap(({ items }) => items).find(({ heldBecause }) => heldBecause !== null)!;
    expect(held.cavity).toBe('5');
    expect(held.heldBecause).toMatch(/^N-\d+[A-Z]?: cavity of throttle.* pin 5 only guessed$/);
    expect(cuts.flatMap((cut) => cut.held)).toEqual([]);
    const found = listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'SC1');
    expect(found).toEqual([expect.objectContaining({ grade: 'check' })]);
    expect(found[0]!.sentence).toMatch(/only guessed \(cavity\): N-\d+[A-Z]? is held from seating\.$/);
  });
  test.each([
    [['place'], ['seat']],
    [['current'], ['cut', 'crimp', 'seat', 'cover', 'test']],
    [['volts'], []],
    [[], ['cut', 'crimp', 'seat', 'cover', 'test']],
  ] as const)('of a guessed pin, in doubt %p: held are %p', (doubts, expected) => {
    const job = createBench((loom) => {
      loom.ends.R!.pins['1'] = createPinNeed('signal', 'signal', { evidence: 'guessed', doubts: [...doubts] });
    });
    expect(operations(build(job).steps)).toEqual(expect.arrayContaining([...expected]));
    if (doubts.length !== 0 && doubts[0] !== 'current') expect(operations(build(job).steps)).toEqual([...expected]);
    const [wire] = plan(job, CATALOGUE).looms[0]!.wires.filter(({ heldBy }) => heldBy.length > 0);
    expect(wire!.heldBy[0]!.stops).toBe({ place: 'seat', current: 'cut', volts: 'energise', none: 'cut' }[doubts[0] ?? 'none']);
  });
  test('what a guess stops is the shop’s: where a guessed place stops the cut, nothing of the wire is made', () => {
    const job = createBench((loom) => {
      loom.ends.R!.pins['1'] = createPinNeed('signal', 'signal', { evidence: 'guessed', doubts: ['place'] });
    });
    const standard = CATALOGUE.standards.larkhollow!;
    const strict = {
      ...CATALOGUE,
      standards: { larkhollow: { ...standard, guessStops: { ...standard.guessStops, place: 'cut' as const } } },
    };
    expect(listCuts(plan(job, CATALOGUE).looms[0]!).flatMap(({ held }) => held)).toEqual([]);
    expect(
      listCuts(plan(job, strict).looms[0]!)
        .flatMap(({ held }) => held)
        .map(({ number }) => number),
    ).toEqual(['T-2']);
  });
  test('an open item on an end stops contacts there, not at the other end of the wire; one on a circuit stops both', () => {
    expect(listHeld(build(blocking('end', 'R', 'seat')).steps).map((one) => one.split(' ')[0])).toEqual(['seat.R', 'seat.R']);
    const ofCircuit = new Set(listHeld(build(blocking('circuit', 'c2', 'seat')).steps).map((one) => one.split(' ')[0]));
    expect([...ofCircuit].sort()).toEqual(['seat.A', 'seat.R']);
  });
  test('what is not crimped is not seated; a splice and a covering wait by themselves', () => {
    expect(operations(build(blocking('end', 'L', 'crimp')).steps)).toEqual(expect.arrayContaining(['crimp', 'seat']));
    expect(operations(build(blocking('circuit', 'c3', 'splice')).steps)).toEqual(['splice']);
    const covered = build(blocking('segment', 's2', 'cover')).steps;
    expect(operations(covered)).toEqual(['cover']);
    expect(new Set(covered.filter(({ items }) => items.some(({ heldBecause }) => heldBecause)).map(({ segmentId }) => segmentId))).toEqual(
      new Set(['s2']),
    );
  });
  test('a run is not closed while a wire is still to be laid in it; the others are', () => {
    const { steps } = build(
      createBench((loom) => {
        loom.segments.s2 = { ...loom.segments.s2!, status: 'guessed' };
      }),
    );
    const closed = steps.filter(({ operation }) => operation === 'cover');
    const held = closed.filter(({ items }) => items.some(({ heldBecause }) => heldBecause !== null)).map(({ segmentId }) => segmentId);
    expect(held.sort()).toEqual(['s1', 's2']);
    expect(closed.find(({ segmentId }) => segmentId === 's1')!.items[0]!.heldBecause).toContain(
      'T-1 is still to be laid in it: length to left only guessed',
    );
  });
  test('for whatever an open item blocks and stops, no work is held that comes before', () => {
    const before: Record<HoldOperation, Operation[]> = {
      cut: [],
      crimp: ['cut', 'twist', 'mark'],
      seat: ['cut', 'twist', 'mark', 'crimp', 'splice', 'cover'],
      splice: ['cut', 'twist', 'mark', 'crimp', 'seat', 'cover'],
      cover: ['cut', 'twist', 'mark', 'crimp', 'seat', 'splice', 'lay', 'test'],
      energise: ['cut', 'twist', 'mark', 'crimp', 'seat', 'splice', 'cover', 'lay', 'test', 'sign'],
    };
    const things = [
      ['loom', 'bench'],
      ['segment', 's1'],
      ['segment', 's3'],
      ['end', 'A'],
      ['end', 'R'],
      ['circuit', 'c3'],
    ] as const;
    for (const stops of HOLD_OPERATIONS)
      for (const [kind, id] of things) {
        const held = operations(build(blocking(kind, id, stops)).steps);
        expect([stops, kind, id, held.filter((one) => before[stops].includes(one))]).toEqual([stops, kind, id, []]);
        if (stops === 'cut') expect(held).toContain('cut');
      }
  });
  test('a leg that is left coiled is cut and not terminated', () => {
    const job = createBench((_loom, whole) => {
      whole.devices.d = createDevice('radio', 'data', { decision: 'later', unknownPolicy: 'coil', at: { loomId: 'bench', endId: 'R' } });
    });
    const held = listHeld(build(job).steps).map((one) => one.split(' ')[0]!);
    expect([...new Set(held)].sort()).toEqual(['crimp.R', 'seat.R']);
    const [found] = listFindings(job, plan(job, CATALOGUE), CATALOGUE, null).filter(({ code }) => code === 'SC1');
    expect(found).toMatchObject({ grade: 'check', places: [{ kind: 'end', id: 'R' }] });
    // once somebody knows where it goes, its leg is made as any other
    job.devices.d!.unknownPolicy = null;
    expect(listHeld(build(job).steps)).toEqual([]);
  });
  test('of a wire that comes back to its own end the other contact is seated', () => {
    const job = createBench((loom) => {
      loom.circuits.c9 = join('9', 'A-4 A-5');
      loom.ends.A!.pins['5'] = createPinNeed('link', 'data', { evidence: 'guessed', doubts: ['place'] });
    });
    const seats = build(job).steps.find(({ id }) => id === 'seat.A')!.items;
    expect(seats.filter(({ heldBecause }) => heldBecause !== null).map(({ cavity }) => cavity)).toEqual(['5']);
  });
});

test('a planner that remembers holds what one that begins anew holds, after each edit of what is in doubt', () => {
  const planner = createPlanner(CATALOGUE);
  let job = createBench((loom, whole) => {
    loom.ends.R!.pins['1'] = createPinNeed('signal', 'signal');
    whole.anchors = { a: { name: 'battery', place: '', nodes: [], state: 'fixed', by: '' } };
    whole.devices.d = createDevice('radio', 'data', { at: { loomId: 'bench', endId: 'L' } });
  });
  planner(job);
  const blocks = [{ loomId: 'bench', kind: 'loom' as const, id: 'bench' }];
  const edits: ((draft: Job) => void)[] = [
    (draft) => void (draft.openItems.q = createOpenItem('is it so', { blocks })),
    (draft) => void (draft.openItems.q!.stops = 'seat'),
    (draft) => void (draft.anchors.a!.nodes = [{ loomId: 'bench', nodeId: 'n1' }]),
    (draft) => void (draft.anchors.a!.state = 'open'),
    (draft) => void Object.assign(draft.looms.bench!.ends.R!.pins['1']!, { evidence: 'guessed', doubts: ['volts'] }),
    (draft) => void (draft.looms.bench!.ends.R!.pins['1']!.doubts = ['current']),
    (draft) => void (draft.devices.d!.unknownPolicy = 'coil'),
    (draft) => void (draft.anchors.a!.state = 'not-here'),
    (draft) => void delete draft.openItems.q,
  ];
  const seen = new Set<string>();
  for (const apply of edits) {
    job = editDocument(job, apply).next;
    const held = (planned: ReturnType<typeof plan>) => JSON.stringify(planned.looms[0]!.wires.map(({ heldBy }) => heldBy));
    const now = held(planner(job));
    expect(now).toBe(held(plan(job, CATALOGUE)));
    seen.add(now);
  }
  // every edit but that of where a fixed anchor lies changes what is held
  expect(seen.size).toBe(edits.length - 1);
});

describe('an open anchor holds what lies beyond it (craft G2)', () => {
  test('Skerry 12 with the controller open: every other loom is free, and of the chassis what does not pass it', () => {
    const job = createCleanSkerry();
    job.anchors.controller!.state = 'open';
    const { looms } = plan(job, CATALOGUE);
    const counts = Object.fromEntries(
      looms.map(({ loomId, wires }) => [loomId, wires.filter(({ heldBy }) => heldBy.some(({ kind }) => kind === 'anchor')).length]),
    );
    expect({ ...counts, chassis: null }).toEqual({ inlet: 0, engine: 0, gearbox: 0, chassis: null });
    const chassis = looms.find(({ loomId }) => loomId === 'chassis')!;
    const nodes = new Set(job.anchors.controller!.nodes.map(({ nodeId }) => nodeId));
    // counted by another way: from the runs that touch it
    const touching = Object.entries(job.looms.chassis!.segments).filter(
      ([, { fromNodeId, toNodeId }]) => nodes.has(fromNodeId) || nodes.has(toNodeId),
    );
    const ids = new Set(touching.map(([id]) => id));
    const passes = chassis.wires.filter(({ pieces }) => pieces.some(({ segmentId }) => ids.has(segmentId)));
    expect([counts.chassis, passes.length, chassis.wires.length]).toEqual([116, 116, 189]);
    const free = listCuts(chassis).flatMap(({ wires }) => wires);
    expect(free.length).toBeGreaterThan(0);
    expect(free.some(({ id }) => passes.some((wire) => wire.id === id))).toBe(false);
  });
});
