import fc from 'fast-check';
import { CATALOGUE, type ShopStandard } from '../../catalogue';
import { createInlet, createSkerry } from '../../demo';
import { assignPins } from '../../edit';
import { createPinNeed, createPinOffer, fromColourWords, toColourWords, toInsulationWords, type Colour, type Job } from '../../model';
import { runs } from '../../testing/runs';
import { findStandard, plan } from '../index';
import { assignLooks, type LookProblem } from './assignLooks';
import { countBands, listBandedBreakouts } from './countBands';
import { createTakenFor } from './createTakenFor';
import { listLeadLooks } from './findLeadLook';
import { listNeighbours, listWireGroups } from './listLookAlikes';
import { listBases, listSchemeLooks } from './listSchemeLooks';
import { isLookAlike } from './measureColours';
import { proposeColours } from './proposeColours';
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
    const proposal = proposeScheme(job, planned, standard);
    const to = new Map(proposal.changes.map((one) => [one.circuitId, one.to]));
    const now = (id: string) => to.get(id) ?? loom.circuits[id]!.colour;
    return { planned, standard, loom, proposal, now, neighbours: listNeighbours(listWireGroups(loom, planned, standard)).neighbours };
  };
  test.each(['function', 'one-colour', 'bands'] as const)(
    '%s: every circuit out of a cable has a look of it, and asked again no more is left',
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
        expect(again.proposal.left.length).toBeLessThanOrEqual(proposal.left.length);
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
  describe('as the leads of makers are', () => {
    const lead = (job: Job, loomId: string, circuitId: string, field: 'offers' | 'pins', words: string) => {
      const { endId, cavity } = job.looms[loomId]!.circuits[circuitId]!.terminations.at(field === 'offers' ? 0 : -1)!;
      const end = job.looms[loomId]!.ends[endId]!;
      if (field === 'offers') end.offers[cavity] = createPinOffer('way', ['feed'], { lead: words });
      else end.pins[cavity] = createPinNeed('pin', 'signal', { lead: words });
    };
    const first = ({ circuits }: Job['looms'][string]) => Object.keys(circuits).find((id) => circuits[id]!.cable === null)!;
    test.each([
      ['box-leads', 'offers'],
      ['factory-leads', 'pins'],
    ] as const)('%s: a circuit with a lead looks like it, one without goes by its function', (colourScheme, field) => {
      const job = createInlet();
      const id = first(job.looms.inlet!);
      lead(job, 'inlet', id, field, 'violet/yellow');
      const { loom, now, standard } = propose(job, 'inlet', { colourScheme });
      expect(toColourWords(now(id))).toBe('violet/yellow');
      for (const [other, { kind, cable }] of Object.entries(loom.circuits))
        if (other !== id && !cable && !listLeadLooks(job, 'inlet', standard).has(other))
          expect(listBases(kind, standard)).toContain(now(other).base);
      // the other makers' leads are not asked
      const wrong = propose(job, 'inlet', { colourScheme: colourScheme === 'box-leads' ? 'factory-leads' : 'box-leads' });
      expect(toColourWords(wrong.now(id))).not.toBe('violet/yellow');
      expect(listLeadLooks(job, 'inlet', { colourScheme: 'function' }).size).toBe(0);
    });
    test('a lead keeps its colour beyond a plug', () => {
      const job = createSkerry();
      const [mate] = Object.values(job.mates).filter(
        ({ a, b }) => [a.loomId, b.loomId].includes('chassis') && [a.loomId, b.loomId].includes('engine'),
      );
      const [near, far] = mate!.a.loomId === 'chassis' ? [mate!.a, mate!.b] : [mate!.b, mate!.a];
      const through = (loomId: string, endId: string, cavity: string) =>
        Object.entries(job.looms[loomId]!.circuits).find(
          ([, { cable, terminations }]) => !cable && terminations.some((one) => one.endId === endId && one.cavity === cavity),
        )?.[0];
      const cavity = Object.values(job.looms.engine!.circuits)
        .flatMap(({ terminations }) => terminations)
        .find(
          (one) => one.endId === far.endId && through('engine', far.endId, one.cavity) && through('chassis', near.endId, one.cavity),
        )!.cavity;
      const [here, there] = [through('chassis', near.endId, cavity)!, through('engine', far.endId, cavity)!];
      const source = job.looms.chassis!.circuits[here]!.terminations.find(({ endId }) => endId !== near.endId)!;
      job.looms.chassis!.ends[source.endId]!.offers[source.cavity] = createPinOffer('way', ['feed'], { lead: 'grey/red' });
      const looks = listLeadLooks(job, 'engine', { colourScheme: 'box-leads' });
      expect(toColourWords(looks.get(there)!)).toBe('grey/red');
    });
    test('assigning gives a new circuit the colour of its lead', () => {
      const job = createSkerry();
      for (const loom of Object.values(job.looms)) {
        Object.assign(loom, { circuits: {}, splicePins: {} });
        // looks that no scheme of the shop has
        for (const { pins, offers } of Object.values(loom.ends)) {
          for (const one of Object.values(offers)) if (one.lead) one.lead = 'white/pink';
          for (const one of Object.values(pins)) if (one.lead) one.lead = 'pink/orange';
        }
      }
      const colours = (colourScheme: ShopStandard['colourScheme']) =>
        Object.values(assignPins(job, CATALOGUE, { ...findStandard(job, CATALOGUE), colourScheme }).next.looms).flatMap(({ circuits }) =>
          Object.values(circuits).map(({ colour }) => toColourWords(colour)),
        );
      const count = (colourScheme: ShopStandard['colourScheme']) =>
        ['white/pink', 'pink/orange'].map((look) => colours(colourScheme).filter((one) => one === look).length);
      // as many injectors as the vehicle has; both leads of its fan
      expect(count('box-leads')).toEqual([expect.any(Number), 0]);
      expect(count('box-leads')[0]).toBeGreaterThan(3);
      expect(count('factory-leads')[0]).toBe(0);
      expect(count('factory-leads')[1]).toBeGreaterThan(1);
      expect(count('function')).toEqual([0, 0]);
    });
  });
  test('a colour that somebody gave a reason for stays, in a scheme and in the least change, and what would be taken for it is told', () => {
    const job = createInlet();
    const { circuits } = job.looms.inlet!;
    const planned = () => plan(job, CATALOGUE).looms[0]!;
    const standard = findStandard(job, CATALOGUE);
    const [change] = proposeColours(job.looms.inlet!, planned(), standard).changes;
    circuits[change!.circuitId]!.colourPin = { reason: 'as the old loom' };
    const again = proposeColours(job.looms.inlet!, planned(), standard);
    expect(again.changes.map(({ circuitId }) => circuitId)).not.toContain(change!.circuitId);
    expect(again.changes.some(({ circuitId }) => change!.likeIds.includes(circuitId))).toBe(true);
    expect(propose(job, 'inlet', { colourScheme: 'one-colour' }).proposal.changes.map(({ circuitId }) => circuitId)).not.toContain(
      change!.circuitId,
    );
    const takenFor = createTakenFor(job.looms.inlet!, planned(), standard);
    expect(takenFor(change!.circuitId, circuits[change!.circuitId]!.colour)).toEqual(change!.likeIds);
    expect(takenFor(change!.circuitId, change!.to)).toEqual([]);
  });
});
