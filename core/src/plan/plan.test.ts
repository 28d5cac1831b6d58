import fc from 'fast-check';
import { CATALOGUE } from '../catalogue';
import { createRandom } from '../units/createRandom';
import { createRandomJob } from '../demo/createRandomJob';
import { createInlet } from '../demo';
import { applyEdit, editDocument, isShrink, listOperations, type Job } from '../model';
import { createBench, join } from '../testing/createBench';
import { comparePlans, createPlanner, createTree, findStandard, listWireRuns, plan } from './index';

const only = (job: Job) => plan(job, CATALOGUE).looms[0]!;
const wire = (job: Job, number: string) => only(job).wires.find((one) => one.number === number)!;

describe('route', () => {
  test('lengths along the tree agree with an independent shortest path (Floyd and Warshall)', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const job = createRandomJob(seed, 40);
        const loom = job.looms.random!;
        const tree = createTree(loom, findStandard(job, CATALOGUE));
        const ids = Object.keys(loom.nodes);
        const far = new Map(ids.map((a) => [a, new Map(ids.map((b) => [b, a === b ? 0 : Infinity]))]));
        for (const { fromNodeId, toNodeId, lengthMm } of Object.values(loom.segments)) {
          far.get(fromNodeId)!.set(toNodeId, lengthMm);
          far.get(toNodeId)!.set(fromNodeId, lengthMm);
        }
        for (const k of ids)
          for (const i of ids)
            for (const j of ids) far.get(i)!.set(j, Math.min(far.get(i)!.get(j)!, far.get(i)!.get(k)! + far.get(k)!.get(j)!));
        for (const a of ids.slice(0, 8))
          for (const b of ids) {
            const length = listWireRuns(tree, { nodeId: a }, { nodeId: b }).reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0);
            expect(length).toBeCloseTo(far.get(a)!.get(b)!, 6);
          }
      }),
      { numRuns: 12 },
    );
  });
  test('from inside one segment to inside another and back is the same way', () => {
    const tree = createTree(createBench().looms.bench!, findStandard(createBench(), CATALOGUE));
    const there = listWireRuns(tree, { segmentId: 's2', offsetMm: 40 }, { segmentId: 's3', offsetMm: 70 });
    expect(there).toEqual([
      { segmentId: 's2', fromMm: 0, toMm: 40 },
      { segmentId: 's3', fromMm: 0, toMm: 70 },
    ]);
    expect(listWireRuns(tree, { segmentId: 's3', offsetMm: 70 }, { segmentId: 's2', offsetMm: 40 })).toEqual([...there].reverse());
    expect(listWireRuns(tree, { segmentId: 's1', offsetMm: 10 }, { segmentId: 's1', offsetMm: 60 })).toEqual([
      { segmentId: 's1', fromMm: 10, toMm: 60 },
    ]);
    expect(listWireRuns(tree, { nodeId: 'b1' }, { nodeId: 'b1' })).toEqual([]);
  });
  test('a loop is an error that names the segment', () => {
    const job = createBench((loom) => {
      loom.segments.s4 = { ...loom.segments.s2!, fromNodeId: 'n1', toNodeId: 'n2' };
    });
    expect(() => plan(job, CATALOGUE)).toThrow(/route: expected a tree, got a loop at segment s\d/);
  });
});

describe('measure: every addend is kept', () => {
  test('cut length of a leg wire: runs, half the bundle at the breakout, both ends, rounding', () => {
    const one = wire(createBench(), 'T-1');
    // of the trunk as it is at the fork, not where it is thickest
    const od = only(createBench())
      .bundles.find(({ segmentId }) => segmentId === 's1')!
      .sections.at(-1)!.odMm;
    expect(one.addends.map(({ kind, mm }) => [kind, Number(mm.toFixed(3))])).toEqual([
      ['segment', 300],
      ['segment', 100],
      ['breakout', Number((od / 2).toFixed(3))],
      ['entry', 22],
      ['re-termination', 16],
      ['strip', 4],
      ['entry', 14],
      ['re-termination', 16],
      ['strip', 4.5],
      ['rounding', expect.any(Number)],
    ]);
    expect(one.addends.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(one.cutMm, 6);
    expect(one.cutMm % 5).toBe(0);
  });
  test('a wire that goes on with the trunk adds nothing at the breakout', () => {
    expect(wire(createBench(), 'T-2').addends.some(({ kind }) => kind === 'breakout')).toBe(false);
  });
  test('addends sum to the cut length in every wire of the demo and of random looms', () => {
    for (const job of [createInlet(), createRandomJob(3, 120), createRandomJob(4, 60)]) {
      for (const one of only(job).wires) expect(one.addends.reduce((sum, { mm }) => sum + mm, 0)).toBeCloseTo(one.cutMm, 6);
    }
  });
  test('service loop, clocking r·θ and own number of re-terminations', () => {
    const job = createBench((loom) => {
      loom.ends.L = { ...loom.ends.L!, serviceLoopMm: 25, reterminations: 0, clocking: { radiusMm: 30, angleDeg: 90 } };
    });
    const kinds = Object.fromEntries(
      wire(job, 'T-1')
        .addends.filter(({ of }) => of === 'L')
        .map(({ kind, mm }) => [kind, mm]),
    );
    expect(kinds).toEqual({ entry: 14, strip: 4.5, 'service-loop': 25, clocking: expect.closeTo((30 * Math.PI) / 2, 6) });
  });
  test('ring and tail: no entry depth, the strip length; loop, re-terminations and clocking as at a connector', () => {
    const job = createBench((loom) => {
      loom.ends.L = { ...loom.ends.L!, kind: 'tail', familyId: null };
      loom.ends.R = {
        ...loom.ends.R!,
        ...{ kind: 'ring', familyId: null, studMm: 6, serviceLoopMm: 30, clocking: { radiusMm: 20, angleDeg: 180 } },
      };
    });
    const at = (number: string, endId: string) =>
      Object.fromEntries(wire(job, number).addends.flatMap(({ of, kind, mm }) => (of === endId ? [[kind, Number(mm.toFixed(2))]] : [])));
    expect(at('T-1', 'L')).toEqual({ strip: 8, 're-termination': 16 });
    expect(at('T-2', 'R')).toEqual({ strip: 7, 're-termination': 16, 'service-loop': 30, clocking: Number((20 * Math.PI).toFixed(2)) });
  });
  test('twisted pair: take-up only where both lie together', () => {
    const twist = { groupId: 'p', pitchMm: 25 };
    const job = createBench((loom) => {
      loom.circuits = { c1: join('1', 'A-1 L-1', { twist }), c2: join('2', 'A-2 R-1', { twist }) };
    });
    const [trunk, leg] = wire(job, 'T-1').addends.filter(({ kind }) => kind === 'segment');
    expect(trunk!.mm).toBeCloseTo(300 * 1.00934, 2);
    expect(leg!.mm).toBe(100);
  });
  test('a guessed run holds its wires and no others', () => {
    const job = createBench((loom) => {
      loom.segments.s2 = { ...loom.segments.s2!, status: 'guessed', method: 'estimate' };
    });
    expect(wire(job, 'T-1').heldBy).toEqual([
      { kind: 'segment', id: 's2', stops: 'cut', endId: null, words: 'length to left only guessed' },
    ]);
    expect(wire(job, 'T-2').heldBy).toEqual([]);
  });
  test('rough cut falls away when every run on the way is fitted', () => {
    const fitted = createBench((loom) => {
      for (const id of ['s1', 's2']) loom.segments[id] = { ...loom.segments[id]!, status: 'fitted', fittedMm: loom.segments[id]!.lengthMm };
    });
    expect(wire(fitted, 'T-1').roughMm).toBe(wire(fitted, 'T-1').cutMm);
    expect(wire(fitted, 'T-2').roughMm).toBeGreaterThanOrEqual(wire(fitted, 'T-2').lengthMm + 50);
  });
});

describe('splice', () => {
  test('three pins at one breakout: two legs and a trunk wire meet in one splice off the breakout', () => {
    const { splices, wires } = only(createBench());
    expect(splices).toHaveLength(1);
    expect(splices[0]).toMatchObject({ id: 'c3@b1', label: 'S1', clear: true, pinned: false });
    expect(splices[0]!.place).toEqual({ segmentId: 's1', offsetMm: 255 });
    expect(wires.filter(({ circuitId }) => circuitId === 'c3').map(({ number }) => number)).toEqual(['T-3A', 'T-3B', 'T-3C']);
  });
  test('a pinned place stays where it is and is not clear when it is too close', () => {
    const { splices } = only(
      createBench((loom) => {
        loom.splicePins['c3@b1'] = { segmentId: 's1', offsetMm: 282, reason: 'test' };
      }),
    );
    expect(splices[0]).toMatchObject({ pinned: true, clear: false, distanceMm: 282 });
  });
  test('where no place keeps every distance the roomiest is taken and marked', () => {
    const { splices } = only(
      createBench((loom) => {
        for (const id of ['s1', 's2', 's3']) loom.segments[id] = { ...loom.segments[id]!, lengthMm: 60 };
      }),
    );
    expect(splices[0]!.clear).toBe(false);
  });
  test('never in a moving run', () => {
    const job = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, zoneId: 'flex' };
    });
    expect(only(job).splices[0]!.place.segmentId).not.toBe('s1');
  });
  test('pins of one housing joined to each other: a splice out in the run beside it, never a crash', () => {
    const made = only(
      createBench((loom) => {
        loom.circuits = { c1: join('1', 'A-1 A-2 A-3') };
      }),
    );
    expect(made.splices.map(({ place, clear }) => [place.segmentId, clear])).toEqual([['s1', true]]);
    expect(made.wires).toHaveLength(3);
    const runless = only(
      createBench((loom) => {
        loom.nodes = { datum: loom.nodes.datum! };
        loom.segments = {};
        loom.ends = { A: loom.ends.A! };
        loom.circuits = { c1: join('1', 'A-1 A-2 A-3') };
      }),
    );
    expect(runless.splices).toEqual([]);
    expect(runless.wires).toHaveLength(2);
  });
  test('chain: wires go from pin to pin as listed, and there is no splice', () => {
    const job = createBench((loom) => {
      loom.circuits.c3 = { ...loom.circuits.c3!, join: 'chain' };
    });
    const made = only(job);
    expect(made.splices).toEqual([]);
    expect(
      made.wires
        .filter(({ circuitId }) => circuitId === 'c3')
        .map(({ from, to }) => [from, to].map((end) => (end.kind === 'cavity' ? `${end.endId}-${end.cavity}` : '?')).join(' ')),
    ).toEqual(['A-3 L-2', 'L-2 R-2']);
  });
  test('more than five wires make a second splice', () => {
    const job = createBench((loom) => {
      loom.segments.s1 = { ...loom.segments.s1!, lengthMm: 2000 };
      loom.ends.L = { ...loom.ends.L!, familyId: 'pellow-12' };
      loom.circuits = { c1: join('1', 'A-1 L-1 L-2 L-3 L-4 L-5 L-6 L-7') };
    });
    const { splices, barrels, wires } = only(job);
    expect(splices.length).toBe(2);
    for (const { id } of splices)
      expect(wires.filter(({ from }) => from.kind === 'splice' && from.spliceId === id).length).toBeLessThanOrEqual(5);
    expect(barrels).toHaveLength(2);
  });
});

describe('conductor, covering, termination', () => {
  test('shop minimum rules where contacts take it; a contact that does not lifts the size; a pin stands', () => {
    expect(wire(createBench(), 'T-1')).toMatchObject({ ruledBy: 'minimum', conductor: { size: '22' } });
    const lifted = createBench((loom) => {
      loom.ends.R = { ...loom.ends.R!, familyId: 'brack-2', key: null };
      loom.ends.A = { ...loom.ends.A!, kind: 'tail', familyId: null };
    });
    expect(wire(lifted, 'T-2')).toMatchObject({ ruledBy: 'contact', conductor: { size: '14' } });
    const pinned = createBench((loom) => {
      loom.circuits.c1 = { ...loom.circuits.c1!, sizePin: { size: '20', reason: 'test' } };
    });
    expect(wire(pinned, 'T-1')).toMatchObject({ ruledBy: 'pinned', because: 'test', conductor: { size: '20' } });
  });
  test.each([
    ['wet', 'adhesive-shrink'],
    // no braid that grips this bundle opens as far as the splice in it
    ['flex', 'wrap'],
    ['engine', 'shrink'],
    [null, 'shrink'],
  ] as const)('zone %s is covered with %s', (zoneId, kind) => {
    const job = createBench((loom) => {
      delete loom.circuits.c3;
      loom.segments.s1 = { ...loom.segments.s1!, zoneId };
    });
    expect(only(job).coverings.find(({ segmentId }) => segmentId === 's1')!.kind).toBe(kind);
  });
  test('a sleeve planned over a finished end must pass its housing', () => {
    const job = createBench((loom) => {
      loom.segments.s2 = { ...loom.segments.s2!, slideOn: 'after-ends' };
    });
    expect(only(job).coverings.find(({ segmentId }) => segmentId === 's2')).toMatchObject({ problem: 'cannot-pass', mustPassMm: 20 });
  });
  test('a sleeve has to pass the splice that lies under it, and yet grip the bare bundle', () => {
    const made = only(createBench());
    const { odMm } = made.bundles.find(({ segmentId }) => segmentId === 's1')!;
    const covering = made.coverings.find(({ segmentId }) => segmentId === 's1')!;
    // four AWG 22 beside each other from the splice on; at it a barrel of 3.0 over its sleeve and two of them, 4.1 and more
    expect(odMm).toBeCloseTo(2.4142 * 1.09, 2);
    expect(covering.mustPassMm).toBeGreaterThan(4);
    expect(covering).toMatchObject({ kind: 'adhesive-shrink', problem: null });
    expect(covering.because).toContain('none that grips 2.6 mm passes 4.1 mm');
    const item = CATALOGUE.coverings.find(({ id }) => id === covering.itemId)!;
    if (!isShrink(item)) throw new Error('expected a sleeve');
    expect(item.suppliedBoreMm).toBeGreaterThanOrEqual(1.1 * covering.mustPassMm);
    expect(item.recoveredBoreMm).toBeLessThanOrEqual(0.9 * odMm);
    expect(covering.insideBendMm).toBeCloseTo(6 * covering.odOutsideMm, 9);
  });
  test('where a screen lies in it a bundle bends by ten times its outside, not six', () => {
    const job = createBench((loom) => {
      loom.circuits.c3!.kind = 'screen';
    });
    const covering = only(job).coverings.find(({ segmentId }) => segmentId === 's1')!;
    expect(covering.insideBendMm).toBeCloseTo(10 * covering.odOutsideMm, 9);
  });
  test('a stud means a ring for every wire, each with its own strip and pull; a chain is one double crimp, each wire pulled', () => {
    const studded = (joined: 'stud' | 'chain') =>
      only(
        createBench((loom) => {
          loom.ends.A = { ...loom.ends.A!, kind: 'ring', familyId: null, studMm: 6 };
          loom.circuits = { c3: join('3', 'A-3 L-2 R-2', { join: joined }) };
        }),
      ).terminations.filter(({ endId }) => endId === (joined === 'stud' ? 'A' : 'L'));
    expect(studded('stud').map(({ wireIds, stripMm, pullOffsN }) => [wireIds.length, stripMm, pullOffsN])).toEqual([
      [1, 7, [40]],
      [1, 7, [40]],
    ]);
    expect(studded('chain').map(({ wireIds, pullOffsN }) => [wireIds.length, pullOffsN])).toEqual([[2, [40, 40]]]);
  });
  test('a contact that asks for more than the standard is pulled to that', () => {
    const strict = { ...CATALOGUE, contacts: CATALOGUE.contacts.map((one) => ({ ...one, pullOffN: 55 })) };
    expect(plan(createBench(), strict).looms[0]!.terminations.every(({ pullOffsN }) => pullOffsN.every((force) => force === 55))).toBe(
      true,
    );
  });
  test('contact, seal, strip and pull-off of a pull-to-seat sensor', () => {
    expect(only(createBench()).terminations.find(({ endId, cavity }) => endId === 'L' && cavity === '1')).toMatchObject({
      contactId: 't150f',
      sealId: 't-blue',
      stripMm: 4.5,
      pullOffsN: [40],
      problem: null,
    });
  });
  test('empty sealed cavities get plugs', () => {
    expect(only(createBench()).plugs.filter(({ endId }) => endId === 'L')).toEqual([{ endId: 'L', cavity: '3', plugId: 't-plug' }]);
  });
  test('two wires in a sealed cavity have no seal', () => {
    const job = createBench((loom) => {
      loom.circuits.c3 = { ...loom.circuits.c3!, join: 'chain' };
    });
    expect(only(job).terminations.find(({ endId, cavity }) => endId === 'L' && cavity === '2')!.problem).not.toBeNull();
  });
});

describe('the plan as a whole', () => {
  test('is the same to the byte however often and in whatever order of keys', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const job = createRandomJob(seed, 50);
        const random = createRandom(seed);
        const shuffle = <T>(record: Record<string, T>) =>
          Object.fromEntries(
            Object.entries(record)
              .map((entry) => [random(), entry] as const)
              .sort(([a], [b]) => a - b)
              .map(([, entry]) => entry),
          );
        const loom = job.looms.random!;
        const mixed: Job = {
          ...job,
          looms: {
            random: {
              ...loom,
              nodes: shuffle(loom.nodes),
              segments: shuffle(loom.segments),
              circuits: shuffle(loom.circuits),
              ends: shuffle(loom.ends),
            },
          },
        };
        expect(JSON.stringify(plan(mixed, CATALOGUE).looms[0]!.wires)).toBe(JSON.stringify(plan(job, CATALOGUE).looms[0]!.wires));
      }),
      { numRuns: 10 },
    );
  });
  test('a planner that remembers gives what a new one gives, over seeded runs of edits', () => {
    for (const seed of [1, 2, 3]) {
      const random = createRandom(seed);
      const planner = createPlanner(CATALOGUE);
      let job = createRandomJob(seed, 60);
      for (let edit = 0; edit < 12; edit += 1) {
        job = editDocument(job, (draft) => {
          const loom = draft.looms.random!;
          const ids = Object.keys(loom.segments);
          const id = ids[Math.floor(random() * ids.length)]!;
          if (edit % 3 === 2) loom.segments[id]!.zoneId = ['wet', 'flex', null][edit % 2]!;
          else loom.segments[id]!.lengthMm = 40 + Math.floor(random() * 500);
        }).next;
        expect(JSON.stringify(planner(job))).toBe(JSON.stringify(plan(job, CATALOGUE)));
      }
    }
  });
  test('patch and inverse patch restore the document', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 1, max: 1e6 }), (a, b) => {
        const [before, after] = [createRandomJob(a, 20), createRandomJob(b, 20)];
        const there = applyEdit(before, listOperations(before, after));
        expect(there).toEqual({ ok: true, value: after });
        expect(applyEdit(after, listOperations(after, before))).toEqual({ ok: true, value: before });
      }),
      { numRuns: 25 },
    );
  });
  test('comparePlans names what one longer leg changes, and nothing else', () => {
    const before = only(createBench());
    const after = only(
      createBench((loom) => {
        loom.segments.s2 = { ...loom.segments.s2!, lengthMm: 130 };
      }),
    );
    const changes = comparePlans(before, after);
    expect(changes.cuts.map(({ number }) => number)).toEqual(['T-1', 'T-3C'].sort());
    expect(changes.sleeves.map(({ segmentId }) => segmentId)).toEqual(['s2']);
    expect(changes.diameters).toEqual([]);
    expect(changes.massG).toBeGreaterThan(0);
  });
  test('an empty loom has an empty plan', () => {
    const made = only({
      ...createBench(),
      looms: {
        empty: {
          ...createBench().looms.bench!,
          nodes: { datum: createBench().looms.bench!.nodes.datum! },
          segments: {},
          ends: {},
          circuits: {},
        },
      },
    });
    expect(made).toMatchObject({ wires: [], splices: [], bundles: [], massG: { total: 0 } });
  });
});
