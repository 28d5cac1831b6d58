import { CATALOGUE, createLookup, isWithin, listCavityContacts } from '../../../catalogue';
import { createFenRanger, createSkerry } from '../../../demo';
import { createRandomJob } from '../../../demo/createRandomJob';
import {
  changeDocument,
  checkJob,
  createCircuit,
  createEnd,
  createLoom,
  createNode,
  createSegment,
  findCavitySize,
  listCavities,
  type Circuit,
  type Job,
} from '../../../model';
import { listNets, toCircuitKey } from '../../../netlist';
import {
  countJunction,
  findStandard,
  fitJunction,
  listEndsBeyond,
  listJunctionPairs,
  measureJunctionWorth,
  plan,
  type JunctionPair,
} from '../../../plan';
import { runs } from '../../../testing/runs';
import { createRandom } from '../../../units';
import { gatherTails } from './gatherTails';

/** "A-1 X-2": pins of a circuit, its source first. */
const pins = (words: string): Circuit['terminations'] =>
  words.split(' ').map((word) => ({ endId: word.split('-')[0]!, cavity: word.split('-')[1]! }));

/** Five sensors of 4, 3, 3, 3 and 2 pins beyond one breakout, on one rail and one ground. */
function createFive(crankAlone = false): Job {
  const loom = createLoom('five', 'F');
  loom.nodes.b = createNode('breakout', 'rail');
  loom.segments.t = createSegment('datum', 'b', 500);
  loom.ends.A = createEnd('datum', 'anchor', 'hollin-37');
  for (const id of ['p', 'q', 'r', 's', 'u']) {
    loom.nodes[id] = createNode('end', id);
    loom.segments[`l${id}`] = createSegment('b', id, 200);
    loom.ends[id] = createEnd(id, id, id === 'p' ? 'tarn-4' : id === 'u' ? 'tarn-2' : 'tarn-3');
  }
  const add = (number: string, name: string, kind: Circuit['kind'], words: string) =>
    (loom.circuits[`c${number}`] = createCircuit(number, name, pins(words), { kind, wireTable: 'etfe' }));
  add('1', 'rail', 'sensor-supply', 'A-1 p-1 q-1 r-1 s-1');
  add('2', 'ground', 'sensor-ground', crankAlone ? 'A-2 p-2 q-2 r-2 s-2' : 'A-2 p-2 q-2 r-2 s-2 u-2');
  if (crankAlone) add('9', 'crank ground', 'sensor-ground', 'A-9 u-2');
  ['p-3', 'p-4', 'q-3', 'r-3', 's-3', 'u-1'].forEach((pin, at) => add(String(at + 3), `signal ${at}`, 'signal', `A-${at + 3} ${pin}`));
  const job = createSkerry();
  return {
    ...job,
    looms: { five: loom },
    mates: {},
    source: { ...job.source, isolator: null },
    devices: {},
    provings: {},
    openItems: {},
    parts: {},
    donors: {},
    accepted: {},
    surveyConflicts: {},
  };
}

const FIVE = new Set(['p', 'q', 'r', 's', 'u']);

describe('what crosses where tails are gathered (craft I1)', () => {
  test('five sensors of 4, 3, 3, 3 and 2 pins: 15 one by one; 6 signals, 1 feed, 1 reference, 1 spare shared', () => {
    const count = countJunction(createFive().looms.five!, FIVE, 0.1);
    expect(count).toMatchObject({ unshared: 15, signals: 6, feeds: 1, references: 1, shared: 8, spares: 1 });
  });
  test('a crank sensor in a noise group of its own needs a reference of its own: ten', () => {
    const count = countJunction(createFive(true).looms.five!, FIVE, 0.1);
    expect([count.references, count.shared + count.spares]).toEqual([2, 10]);
  });
  test('what stays on one side does not cross; a tenth of many is kept free', () => {
    expect(countJunction(createFive().looms.five!, new Set(['A', ...FIVE]), 0.1)).toMatchObject({ unshared: 0, shared: 0, spares: 0 });
    expect(countJunction(createFive().looms.five!, FIVE, 0.3).spares).toBe(3);
  });
  test('two swaps of three minutes do not pay for a pair of 85; twenty of eleven couplings less do', () => {
    const worth = (removalsPerYear: number, couplingsLess: number, minutesEach: number) =>
      measureJunctionWorth({ removalsPerYear, couplingsLess, minutesEach, labourPerHour: 48, price: 85 });
    expect(worth(2, 1, 3)).toEqual({ minutes: 6, money: expect.closeTo(4.8, 9) as number, pays: false });
    const many = worth(20, 11, 0.7);
    expect([Math.round(many.minutes), Math.round(many.money), many.pays]).toEqual([154, 123, true]);
  });
});

/** Pins that are joined, whatever loom they are in: each pin without the new connectors, with the name of its net. */
function listJoined(job: Job, without: ReadonlySet<string>): string[] {
  const { netOf } = listNets({ looms: job.looms, mates: job.mates });
  const groups = new Map<unknown, string[]>();
  for (const [loomId, { circuits, ends }] of Object.entries(job.looms))
    for (const [circuitId, { terminations }] of Object.entries(circuits)) {
      const net = netOf.get(toCircuitKey({ loomId, circuitId }))!;
      for (const { endId, cavity } of terminations)
        if (!without.has(`${loomId} ${endId}`)) groups.set(net, [...(groups.get(net) ?? []), `${ends[endId]!.name} ${cavity}`]);
    }
  return [...groups.values()]
    .map((one) => one.sort().join(', '))
    .filter((one) => one !== '')
    .sort();
}

const HOUSING = { near: { id: 'hollin-66', family: CATALOGUE.families['hollin-66']! }, farId: 'hollin-66' };
const problems = (job: Job) => {
  const checked = checkJob(job, createLookup(CATALOGUE));
  return checked.ok ? [] : checked.problems;
};
const treeOf = (job: Job, loomId: string) => plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!.tree;

describe('tails that are gathered', () => {
  const job = createFive();
  const tree = treeOf(job, 'five');
  const at = {
    loomId: 'five',
    tree,
    nodeId: 'b',
    segmentIds: ['lp', 'lq', 'lr', 'ls', 'lu'],
    stubMm: 60,
    name: 'junction',
    loomName: 'tails',
    prefix: 'G',
  };
  const next = changeDocument(job, gatherTails({ ...at, ...HOUSING }).apply);
  test('are a loom of their own, mated at one connector, as long as they were together with the stub', () => {
    expect(problems(next)).toEqual([]);
    const [five, tails] = Object.values(next.looms);
    expect(Object.keys(tails!.ends)).toHaveLength(6);
    expect(Object.keys(five!.ends)).toHaveLength(2);
    expect(Object.values(tails!.segments).map(({ lengthMm }) => lengthMm)).toEqual([140, 140, 140, 140, 140]);
    expect(Object.values(next.mates)).toHaveLength(1);
  });
  test('take as many cavities as were counted, each on both sides, and join what was joined', () => {
    const { a, b } = Object.values(next.mates)[0]!;
    const used = (side: typeof a) =>
      Object.values(next.looms[side.loomId]!.circuits)
        .flatMap(({ terminations }) => terminations.flatMap(({ endId, cavity }) => (endId === side.endId ? [cavity] : [])))
        .sort();
    expect(used(a)).toHaveLength(8);
    expect(used(b)).toEqual(used(a));
    expect(listJoined(next, new Set([`${a.loomId} ${a.endId}`, `${b.loomId} ${b.endId}`]))).toEqual(listJoined(job, new Set()));
  });
  test('are refused where the stub is longer than one of them, or the housing too small', () => {
    expect(() => changeDocument(job, gatherTails({ ...at, stubMm: 200, ...HOUSING }).apply)).toThrow(
      'expected tails longer than the stub of 200 mm',
    );
    const small = { near: { id: 'pellow-6', family: CATALOGUE.families['pellow-6']! }, farId: 'pellow-6' };
    expect(() => changeDocument(job, gatherTails({ ...at, ...small }).apply)).toThrow('expected a housing of 8 cavities or more');
  });
});

test('whatever is gathered, the job stays whole and every net joins the pins that it joined', () => {
  let gathered = 0;
  const jobs = [createSkerry(), createFenRanger(), ...Array.from({ length: runs(12, 200) }, (_, at) => createRandomJob(at + 1, 20))];
  jobs.forEach((job, seed) => {
    const random = createRandom(seed * 31 + 7);
    for (const loomId of Object.keys(job.looms)) {
      const tree = treeOf(job, loomId);
      const places = tree.nodeIds.filter((id) => job.looms[loomId]!.nodes[id]!.kind === 'breakout');
      const nodeId = places[Math.floor(random() * places.length)];
      if (nodeId === undefined) continue;
      const children = tree.nodes[nodeId]!.childSegmentIds;
      const segmentIds = children.filter(() => random() < 0.7);
      const stubMm = 5;
      if (segmentIds.length === 0 || segmentIds.some((id) => tree.segments[id]!.lengthMm <= stubMm)) continue;
      const { circuitIds } = countJunction(job.looms[loomId]!, listEndsBeyond(job.looms[loomId]!, tree, segmentIds), 0.1);
      if (listEndsBeyond(job.looms[loomId]!, tree, segmentIds).size === 0 || circuitIds.length > 66) continue;
      const next = changeDocument(
        job,
        gatherTails({ loomId, tree, nodeId, segmentIds, stubMm, name: 'junction', loomName: 'tails', prefix: 'ZZ', ...HOUSING }).apply,
      );
      expect(problems(next)).toEqual([]);
      const isNew = Object.values(next.mates).find(
        ({ a, b }) => next.looms[a.loomId]!.ends[a.endId]!.name === 'junction' && next.looms[b.loomId]!.ends[b.endId]!.name === 'junction',
      )!;
      const without = new Set([isNew.a, isNew.b].map(({ loomId: at, endId }) => `${at} ${endId}`));
      expect(listJoined(next, without)).toEqual(listJoined(job, new Set()));
      gathered += 1;
    }
  });
  expect(gathered).toBeGreaterThan(8);
});

describe('a pair of housings for what crosses', () => {
  const job = createFive();
  const planned = (one: Job) => plan(one, CATALOGUE).looms.find(({ loomId }) => loomId === 'five')!;
  const standard = findStandard(job, CATALOGUE);
  const { circuitIds } = countJunction(job.looms.five!, FIVE, 0.1);
  const fitOf = (pair: JunctionPair, one: Job = job, catalogue = CATALOGUE) =>
    fitJunction({ job: one, catalogue, standard, plan: planned(one), nodeId: 'b', pair, circuitIds });
  const pairs = listJunctionPairs(job, CATALOGUE, circuitIds.length + 1);
  test('has enough cavities, both halves in the shop, the smallest first; the half with sockets is the one that is fed', () => {
    expect(pairs.length).toBeGreaterThan(3);
    const ways = pairs.map(({ family }) => listCavities(family).length);
    expect(ways).toEqual([...ways].sort((a, b) => a - b));
    expect(Math.min(...ways)).toBeGreaterThan(circuitIds.length);
    for (const { id, family, mateId, mate } of pairs) {
      expect(family.gender).not.toBe('pins');
      expect(mate).toBe(CATALOGUE.families[mateId]);
      if (family.gender === null) expect(mateId).toBe(id);
    }
  });
  test.each(pairs.map((pair) => [pair.id, pair] as const))(
    '%s: every circuit has a cavity of its own, whose contact takes its wire wherever one does',
    (_, pair) => {
      const { cavityOf, unfitIds } = fitOf(pair);
      expect([...cavityOf.keys()].sort()).toEqual([...circuitIds].sort());
      expect(new Set(cavityOf.values()).size).toBe(circuitIds.length);
      for (const id of circuitIds) {
        const { areaMm2 } = planned(job).wires.find(({ circuitId }) => circuitId === id)!.conductor;
        const takes = listCavityContacts(CATALOGUE, pair.family, cavityOf.get(id)!).some((one) =>
          isWithin(areaMm2, one.minAreaMm2, one.maxAreaMm2),
        );
        expect([id, takes]).toEqual([id, !unfitIds.includes(id)]);
      }
    },
  );
  test('a feed of more than a contact is good for is named; a pair with larger contacts takes it into one of these', () => {
    const heavy = structuredClone(job);
    heavy.looms.five!.circuits.c1!.currentA = 11;
    heavy.looms.five!.circuits.c1!.kind = 'supply';
    const small = pairs.find(
      ({ id, family }) => family.mateId === null && fitOf({ ...pairs[0]!, id, family, mate: family, mateId: id }, heavy).over.length > 0,
    )!;
    const { over } = fitOf(small, heavy);
    expect(over).toMatchObject([{ circuitId: 'c1', currentA: 11 }]);
    expect(over[0]!.ratedA).toBeLessThan(11);
    const good = pairs.find((pair) => {
      const fit = fitOf(pair, heavy);
      return fit.over.length + fit.unfitIds.length === 0;
    });
    if (good) {
      const cavity = fitOf(good, heavy).cavityOf.get('c1')!;
      expect(Math.max(...listCavityContacts(CATALOGUE, good.family, cavity).map(({ currentA }) => currentA))).toBeGreaterThan(11);
    }
  });
  test('a circuit of which nobody knows what flows is named, not taken for one without current', () => {
    const whole = planned(job);
    const mine = new Set(whole.wires.flatMap(({ id, circuitId }) => (circuitId === 'c1' ? [id] : [])));
    const fit = (designA: number | null) => {
      const currents = whole.currents.map((one) => ({ ...one, designA: mine.has(one.wireId) ? designA : 0.5 }));
      return fitJunction({ job, catalogue: CATALOGUE, standard, plan: { ...whole, currents }, nodeId: 'b', pair: pairs[0]!, circuitIds });
    };
    expect([fit(0.5).unknownIds, fit(null).unknownIds]).toEqual([[], ['c1']]);
  });
  test('costs both housings and all that goes into them; unknown where one price is', () => {
    const [pair] = pairs.filter((one) => fitOf(one).unfitIds.length === 0 && one.family.sealed);
    const every = (price: number | null) => ({
      ...CATALOGUE,
      buying: Object.fromEntries(
        [
          ...Object.keys(CATALOGUE.families).map((id) => `families/${id}`),
          ...CATALOGUE.contacts.map(({ id }) => `contacts/${id}`),
          ...CATALOGUE.seals.map(({ id }) => `seals/${id}`),
          ...Object.keys(CATALOGUE.plugs).map((size) => `plugs/${size}`),
        ].map((key) => [key, { retired: false, price, packOf: null, orderAs: '' }]),
      ),
    });
    const cavities = listCavities(pair!.family).length;
    // a unit of money each: two housings, a contact a half for each circuit, a plug a half for each that is left, single seals beside
    const { price } = fitOf(pair!, job, every(1));
    const least = 2 + 2 * circuitIds.length;
    const size = findCavitySize(pair!.family, listCavities(pair!.family)[0]!);
    const plugs = CATALOGUE.plugs[size] ? 2 * (cavities - circuitIds.length) : 0;
    const seals = CATALOGUE.grommets[size] ? 0 : 2 * circuitIds.length;
    expect(price).toBe(least + plugs + seals);
    expect(fitOf(pair!, job, every(null)).price).toBeNull();
  });
  test('a loom that shares a hole with a tail goes on sharing it', () => {
    const beside = (nodeId: string) => {
      const both = structuredClone(job);
      both.looms.other = {
        ...createLoom('other', 'O'),
        nodes: { datum: createNode('datum', 'datum', { holeMm: 30, beside: { loomId: 'five', nodeId } }) },
      };
      const next = changeDocument(
        both,
        gatherTails({
          ...{ loomId: 'five', tree: planned(job).tree, nodeId: 'b', segmentIds: ['lp', 'lq', 'lr', 'ls', 'lu'], stubMm: 60 },
          ...{ name: 'junction', loomName: 'tails', prefix: 'G', near: pairs[0]!, farId: pairs[0]!.mateId },
        }).apply,
      );
      const { loomId } = next.looms.other!.nodes.datum!.beside!;
      expect(next.looms[loomId]!.nodes).toHaveProperty(nodeId);
      return loomId;
    };
    // the breakout stays, the end of a tail goes
    expect(beside('b')).toBe('five');
    expect(beside('p')).not.toBe('five');
  });
  test('tails that are gathered lie in the cavities that were chosen', () => {
    const [pair] = pairs;
    const { cavityOf } = fitOf(pair!);
    const next = changeDocument(
      job,
      gatherTails({
        ...{ loomId: 'five', tree: planned(job).tree, nodeId: 'b', segmentIds: ['lp', 'lq', 'lr', 'ls', 'lu'], stubMm: 60 },
        ...{ name: 'junction', loomName: 'tails', prefix: 'G', near: pair!, farId: pair!.mateId, cavityOf },
      }).apply,
    );
    const [mate] = Object.values(next.mates);
    for (const [id, cavity] of cavityOf)
      expect(next.looms.five!.circuits[id]!.terminations).toContainEqual({ endId: mate!.a.endId, cavity });
  });
});
