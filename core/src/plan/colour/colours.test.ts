import fc from 'fast-check';
import { CATALOGUE } from '../../catalogue';
import { createInlet, createSkerry } from '../../demo';
import { COLOUR_NAMES, toColourWords, type Colour, type Job } from '../../model';
import { createBench, join } from '../../testing/createBench';
import { findStandard, plan } from '../index';
import { listLookAlikes, listNeighbours, listWireGroups } from './listLookAlikes';
import { isLookAlike, measureColours } from './measureColours';
import { proposeColours } from './proposeColours';

const standard = CATALOGUE.standards.larkhollow!;
const plain = (base: Colour['base'], stripe: Colour['stripe'] = null): Colour => ({ base, stripe, bands: [] });
const propose = (job: Job, loomId: string, change: Partial<typeof standard> = {}) => {
  const planned = plan(job, CATALOGUE).looms.find((one) => one.loomId === loomId)!;
  return { planned, proposal: proposeColours(job.looms[loomId]!, planned, { ...findStandard(job, CATALOGUE), ...change }) };
};

describe('colours apart (craft A6)', () => {
  test('a colour is no way from itself, as far one way as the other, and names are far enough apart for most eyes', () => {
    for (const a of COLOUR_NAMES)
      for (const b of COLOUR_NAMES) {
        const { normal } = measureColours(a, b);
        expect(normal).toBeCloseTo(measureColours(b, a).normal, 9);
        if (a === b) expect(normal).toBeCloseTo(0, 9);
        else expect(normal).toBeGreaterThan(10);
      }
  });
  test('who sees no red or no green takes brown for green or red sooner than others do', () => {
    const { normal, protan, deutan } = measureColours('brown', 'green');
    expect(Math.min(protan, deutan)).toBeLessThan(normal / 2);
    // what differs in lightness alone is as far apart for everybody
    const dark = measureColours('black', 'white');
    expect(Math.min(dark.protan, dark.deutan)).toBeGreaterThan(0.8 * dark.normal);
  });
  test.each<[Colour, Colour, boolean]>([
    [plain('red'), plain('red'), true],
    [plain('red'), plain('blue'), false],
    [plain('red', 'black'), plain('red'), false],
    [plain('red', 'black'), plain('red', 'black'), true],
    [plain('red', 'black'), plain('red', 'white'), false],
    // a stripe of its own colour is none
    [plain('red', 'red'), plain('red'), true],
  ])('%j and %j: %s', (a, b, alike) => expect(isLookAlike(a, b, standard)).toBe(alike));
  test('a stripe under 12 % of the circumference is not seen', () => {
    expect(isLookAlike(plain('red', 'black'), plain('red'), { ...standard, stripeShare: 0.11 })).toBe(true);
    expect(isLookAlike(plain('red', 'black'), plain('red'), { ...standard, stripeShare: 0.12 })).toBe(false);
  });
  test('how far apart they have to be is the shop’s to say, for most eyes and for those that see red or green weakly', () => {
    const { normal } = measureColours('red', 'orange');
    expect(isLookAlike(plain('red'), plain('orange'), { ...standard, colourApart: normal + 1 })).toBe(true);
    expect(isLookAlike(plain('red'), plain('orange'), { ...standard, colourApart: normal - 1, colourApartSimulated: 0 })).toBe(false);
    const { protan, deutan } = measureColours('brown', 'green');
    expect(
      isLookAlike(plain('brown'), plain('green'), { ...standard, colourApart: 0, colourApartSimulated: Math.min(protan, deutan) + 0.1 }),
    ).toBe(true);
  });
});

describe('who is held beside whom', () => {
  test('wires of one housing; and of ends that hang on one breakout within reach of it', () => {
    const job = createBench();
    const planned = plan(job, CATALOGUE).looms[0]!;
    const places = (colourReachMm: number) =>
      listWireGroups(job.looms.bench!, planned, { colourReachMm, sizeApartShare: 0.2 }).map(({ place }) => Object.values(place)[0]);
    expect(places(99)).toEqual(['A', 'L', 'R']);
    // legs of 100 and 200 mm
    expect(places(199)).toEqual(['A', 'L', 'R']);
    expect(places(200)).toEqual(['A', 'L', 'R', 'b1']);
  });
  test('wires of one circuit are alike for good reason; wires of unlike size are told apart by it', () => {
    const job = createBench((loom) => {
      for (const id of ['c1', 'c2']) loom.circuits[id]!.colour = plain('red');
    });
    const near = { ...standard, colourReachMm: 100 };
    const groups = (of: Job) =>
      listWireGroups(of.looms.bench!, plan(of, CATALOGUE).looms[0]!, near).flatMap((group) => listLookAlikes(group, near));
    expect(groups(job)).toEqual([{ numbers: ['T-1', 'T-2'], looks: ['red'] }]);
    const thick = createBench((loom) => {
      for (const id of ['c1', 'c2']) loom.circuits[id]!.colour = plain('red');
      loom.circuits.c2!.sizePin = { size: '16', reason: 'x' };
    });
    expect(groups(thick)).toEqual([]);
  });
});

describe('the least change of colours', () => {
  /** A bench whose circuits all end beside one another, in so many colours. */
  const crowded = (colours: readonly Colour[]) =>
    createBench((loom) => {
      loom.ends.A = { ...loom.ends.A!, familyId: 'hollin-22' };
      loom.ends.R = { ...loom.ends.R!, familyId: 'hollin-22' };
      loom.circuits = Object.fromEntries(
        colours.map((colour, at) => [`c${at}`, join(String(at + 1), `A-${at + 1} R-${at + 1}`, { colour })]),
      );
    });
  /** Fewest circuits to recolour, by trying every set of them. */
  const byForce = (colours: readonly Colour[]): number => {
    const sizes = Array.from({ length: 2 ** colours.length }, (_, set) => set)
      .filter((set) => {
        const kept = colours.filter((_, at) => !(set & (1 << at)));
        return kept.every((one, at) => kept.slice(at + 1).every((other) => !isLookAlike(one, other, standard)));
      })
      .map((set) => set.toString(2).replaceAll('0', '').length);
    return Math.min(...sizes);
  };
  test('after it no wire is taken for one beside it; no smaller change does (every set tried)', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...(['red', 'orange', 'brown', 'green', 'blue', 'violet', 'grey'] as const)), {
          minLength: 2,
          maxLength: 9,
        }),
        (bases) => {
          const colours = bases.map((base) => plain(base));
          const job = crowded(colours);
          const { proposal } = propose(job, 'bench');
          expect(proposal.left).toEqual([]);
          const now = colours.map((colour, at) => proposal.changes.find(({ circuitId }) => circuitId === `c${at}`)?.to ?? colour);
          for (const [at, one] of now.entries())
            for (const other of now.slice(at + 1)) expect(isLookAlike(one, other, standard)).toBe(false);
          expect([proposal.changes.length, proposal.isLeast]).toEqual([byForce(colours), true]);
        },
      ),
      { numRuns: 60 },
    );
  });
  test('from what the shop has in stock, first what a reel of the loom has already', () => {
    const job = crowded([plain('red'), plain('red'), plain('blue')]);
    const { proposal } = propose(job, 'bench', { colours: ['red', 'blue', 'yellow/black', 'green'] });
    expect(proposal.changes.map(({ to }) => toColourWords(to))).toEqual(['yellow/black']);
    const none = propose(job, 'bench', { colours: ['red', 'blue'] }).proposal;
    expect(none.changes).toEqual([]);
    expect([none.left.length, none.isLeast]).toEqual([1, false]);
  });
  test('cores of a cable keep their colours: what is like them changes', () => {
    const job = crowded([plain('red'), plain('red')]);
    job.looms.bench!.circuits.c0!.cable = { groupId: 'k', itemId: 'etfe-1x24s' };
    const { proposal } = propose(job, 'bench');
    expect(proposal.changes.map(({ circuitId }) => circuitId)).toEqual(['c1']);
  });
  test('the demo’s looms: nothing left alike, as few reels as before or fewer than a new one for each change, the same every time', () => {
    for (const [job, loomId] of [
      [createInlet(), 'inlet'],
      [createSkerry(), 'chassis'],
    ] as const) {
      const { planned, proposal } = propose(job, loomId);
      expect(propose(job, loomId).proposal).toEqual(proposal);
      expect(proposal.reelsAfter - proposal.reelsBefore).toBeLessThanOrEqual(proposal.changes.length);
      const { neighbours } = listNeighbours(listWireGroups(job.looms[loomId]!, planned, standard));
      const now = (id: string) =>
        proposal.changes.find(({ circuitId }) => circuitId === id)?.to ?? (job.looms[loomId]!.circuits[id]!.colour as Colour);
      const alike = [...neighbours].flatMap(([id, beside]) =>
        [...beside].filter((other) => id < other && isLookAlike(now(id), now(other), standard)),
      );
      expect(alike).toHaveLength(proposal.left.length);
    }
  });
});
