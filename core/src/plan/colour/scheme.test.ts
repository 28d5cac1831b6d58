import fc from 'fast-check';
import { CATALOGUE } from '../../catalogue';
import { createInlet, createSkerry } from '../../demo';
import { fromColourWords, toColourWords, toInsulationWords, type Colour, type Job } from '../../model';
import { runs } from '../../testing/runs';
import { findStandard, plan } from '../index';
import { assignLooks, type LookProblem } from './assignLooks';
import { countBands, listBandedBreakouts } from './countBands';
import { listNeighbours, listWireGroups } from './listLookAlikes';
import { listSchemeLooks } from './listSchemeLooks';
import { isLookAlike } from './measureColours';
import { proposeScheme } from './proposeScheme';

const house = CATALOGUE.standards.larkhollow!;
const look = (words: string) => fromColourWords(words)!;

describe('looks in words', () => {
  test.each(['red', 'red/black', 'white (red)', 'white/blue (red blue green)'])('%s', (words) =>
    expect(toColourWords(look(words))).toBe(words),
  );
  test.each(['white (red blue green black)', 'white (rot)', 'white (red', 'white red)', '(red)', 'white/red/blue'])('%s is none', (words) =>
    expect(fromColourWords(words)).toBeNull(),
  );
  test('commas and gaps between bands are as good', () => expect(look(' White ( red,blue ) ')).toEqual(look('white (red blue)')));
});

describe('bands (craft A6)', () => {
  test.each([
    ['white (red)', 'white', false],
    ['white (red)', 'white (red)', true],
    ['white (red blue)', 'white (blue red)', false],
    ['white (red)', 'white (red red)', false],
    // a band of its own colour is none
    ['white (white)', 'white', true],
    ['white (red)', 'blue (red)', false],
  ])('%s and %s: taken for one another %s', (a, b, alike) => expect(isLookAlike(look(a), look(b), house)).toBe(alike));

  test('at both ends of a wire, and on either side of each breakout that it passes', () => {
    const job = createInlet();
    const planned = plan(job, CATALOGUE).looms[0]!;
    const loom = job.looms.inlet!;
    const circuitId = planned.wires.find(({ pieces, cable }) => pieces.length > 1 && !cable)!.circuitId;
    const wires = planned.wires.filter((wire) => wire.circuitId === circuitId);
    // by hand: places where two of its runs meet at a breakout
    const passed = wires.flatMap(({ pieces }) =>
      pieces.slice(1).flatMap(({ segmentId }, at) => {
        const ends = [pieces[at]!.segmentId, segmentId].map((id) => [loom.segments[id]!.fromNodeId, loom.segments[id]!.toNodeId]);
        const nodeId = ends[0]!.find((id) => ends[1]!.includes(id))!;
        return loom.nodes[nodeId]!.kind === 'breakout' ? [nodeId] : [];
      }),
    );
    const two = (id: string): Colour => look(id === circuitId ? 'white (red blue)' : 'white');
    expect(countBands(loom, planned, two)).toBe(2 * (2 * wires.length + 2 * passed.length));
    expect([...listBandedBreakouts(loom, planned).values()].flat().filter((id) => wires.some((wire) => wire.id === id))).toHaveLength(
      passed.length,
    );
  });
});

describe('looks for those beside one another', () => {
  const NAMES = ['a', 'b', 'c', 'd', 'e', 'f'];
  const LOOKS = ['red', 'blue', 'yellow', 'white'].map(look);
  const isSame = (a: Colour, b: Colour) => a.base === b.base;
  const problems = fc.record({
    count: fc.integer({ min: 1, max: NAMES.length }),
    beside: fc.array(fc.tuple(fc.nat(5), fc.nat(5)), { maxLength: 15 }),
    lists: fc.array(fc.uniqueArray(fc.nat(3), { minLength: 1, maxLength: 4 }), { minLength: 6, maxLength: 6 }),
    kept: fc.option(fc.nat(3), { nil: null }),
  });
  test('where there are looks that keep all apart they are found (every choice tried)', () => {
    fc.assert(
      fc.property(problems, ({ count, beside, lists, kept }) => {
        const ids = NAMES.slice(0, count);
        const neighbours = new Map<string, Set<string>>();
        for (const [a, b] of beside)
          if (a !== b) {
            neighbours.set(NAMES[a]!, (neighbours.get(NAMES[a]!) ?? new Set()).add(NAMES[b]!));
            neighbours.set(NAMES[b]!, (neighbours.get(NAMES[b]!) ?? new Set()).add(NAMES[a]!));
          }
        const problem: LookProblem = {
          ...{ ids, neighbours, isAlike: isSame, most: 20_000 },
          listLooks: (id) => lists[NAMES.indexOf(id)]!.map((at) => LOOKS[at]!),
          keptLook: () => (kept === null ? null : LOOKS[kept]!),
        };
        const given = assignLooks(problem);
        // what is given is one of its looks, and apart from all beside it
        for (const [id, one] of given) {
          expect(problem.listLooks(id)).toContain(one);
          for (const other of neighbours.get(id) ?? []) {
            const there = given.get(other) ?? (ids.includes(other) ? undefined : (problem.keptLook(other) ?? undefined));
            if (there) expect(isSame(one, there)).toBe(false);
          }
        }
        const all = ids.reduce<Map<string, Colour>[]>(
          (ways, id) => ways.flatMap((way) => problem.listLooks(id).map((one) => new Map(way).set(id, one))),
          [new Map()],
        );
        const isApart = (way: Map<string, Colour>) =>
          ids.every((id) =>
            [...(neighbours.get(id) ?? [])].every((other) => {
              const there = way.get(other) ?? problem.keptLook(other);
              return !there || !isSame(way.get(id)!, there);
            }),
          );
        if (all.some(isApart)) expect(given.size).toBe(ids.length);
        else expect(given.size).toBeLessThan(ids.length);
      }),
      { numRuns: runs(150, 2000) },
    );
  });
  test('without trials as many as come by one get a look', () => {
    const neighbours = new Map([
      ['a', new Set(['b'])],
      ['b', new Set(['a'])],
    ]);
    const given = assignLooks({
      ...{ ids: ['a', 'b'], neighbours, isAlike: isSame, most: 0 },
      listLooks: () => [LOOKS[0]!],
      keptLook: () => null,
    });
    expect(given.size).toBe(1);
  });
});

describe('a whole loom by the scheme of the shop', () => {
  const looms: [Job, string][] = [
    [createInlet(), 'inlet'],
    [createSkerry(), 'chassis'],
  ];
  const propose = (job: Job, loomId: string, change: Partial<typeof house>) => {
    const planned = plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!;
    const standard = { ...findStandard(job, CATALOGUE), ...change };
    const loom = job.looms[loomId]!;
    const proposal = proposeScheme(loom, planned, standard);
    const to = new Map(proposal.changes.map((one) => [one.circuitId, one.to]));
    const now = (id: string) => to.get(id) ?? loom.circuits[id]!.colour;
    return { planned, standard, loom, proposal, now, neighbours: listNeighbours(listWireGroups(loom, planned, standard)).neighbours };
  };
  test.each(['function', 'one-colour', 'bands'] as const)(
    '%s: every circuit out of a cable has a look of it, taken once nothing is left',
    (colourScheme) => {
      for (const [job, loomId] of looms) {
        const { loom, proposal, now, standard, neighbours } = propose(job, loomId, { colourScheme });
        for (const [id, { cable, kind, colour }] of Object.entries(loom.circuits)) {
          if (cable) expect(now(id)).toBe(colour);
          else expect(listSchemeLooks(kind, standard).map(toColourWords)).toContain(toColourWords(now(id)));
        }
        // what is told as left is exactly what is alike
        const alike = [...neighbours].flatMap(([id, beside]) =>
          [...beside].filter((other) => id < other && isLookAlike(now(id), now(other), standard)).map((other) => `${id} ${other}`),
        );
        expect(proposal.left.map((pair) => pair.join(' ')).sort()).toEqual(colourScheme === 'one-colour' ? [] : alike.sort());
        const taken = structuredClone(job);
        for (const { circuitId, to } of proposal.changes) taken.looms[loomId]!.circuits[circuitId]!.colour = { ...to };
        const again = propose(taken, loomId, { colourScheme });
        expect(
          again.proposal.changes.filter(({ from }) => listSchemeLooks('signal', standard).length > 0 && from.bands.length > 2),
        ).toEqual([]);
        expect(again.proposal.left.length).toBe(proposal.left.length);
      }
    },
  );
  test('bands keep all apart that lie in no cable, on one reel a size; by print there is one reel a size and no band', () => {
    for (const [job, loomId] of looms) {
      const bands = propose(job, loomId, { colourScheme: 'bands' });
      const isCable = (id: string) => bands.loom.circuits[id]!.cable !== null;
      expect(bands.proposal.left.filter(([a, b]) => !isCable(a) && !isCable(b))).toEqual([]);
      const plain = propose(job, loomId, { colourScheme: 'one-colour' });
      const sizes = new Set(bands.planned.wires.filter(({ cable }) => !cable).map(({ conductor: { table, size } }) => `${table} ${size}`));
      expect([bands.proposal.reelsAfter, plain.proposal.reelsAfter]).toEqual([sizes.size, sizes.size]);
      expect(bands.proposal.bands).toBeGreaterThan(0);
      expect(plain.proposal.bands).toBe(0);
      expect(plain.proposal.changes.every(({ to }) => toInsulationWords(to) === 'white')).toBe(true);
    }
  });
  test('which insulation is for what, and what bands there are, is the shop’s to say', () => {
    const { loom, now } = propose(...looms[0]!, { functionColours: { ...house.functionColours, signal: 'pink' } });
    const signals = Object.entries(loom.circuits).filter(([, { kind, cable }]) => kind === 'signal' && !cable);
    expect(new Set(signals.map(([id]) => now(id).base))).toEqual(new Set(['pink']));
    const one = propose(...looms[0]!, { colourScheme: 'bands', bandColours: ['red'], mostBands: 1, oneColour: 'yellow' });
    const looks = Object.entries(one.loom.circuits).flatMap(([id, { cable }]) => (cable ? [] : [toColourWords(one.now(id))]));
    expect([...new Set(looks)].sort()).toEqual(['yellow', 'yellow (red)']);
    // two looks are not enough for a housing: it is told
    expect(one.proposal.left.length).toBeGreaterThan(0);
  });
});
