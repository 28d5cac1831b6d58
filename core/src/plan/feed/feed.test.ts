import { CATALOGUE } from '../../catalogue';
import { createEnd, type Job, type Loom } from '../../model';
import { createBench } from '../../testing/createBench';
import { createRandom } from '../../units';
import { runs } from '../../testing/runs';
import { plan } from '../index';
import { findFreeTurn } from './planFeeds';
import { leadThrough, measureLeastBore, orderFeed, type FeedPiece } from './orderFeed';

const piece = (id: string, envelopeMm: number, odMm: number): FeedPiece => ({ id, envelopeMm, odMm });
const THREE = [piece('c', 14, 2.4), piece('b', 17, 2.4), piece('a', 20, 3.2)];

describe('three housings and a hole of 22 mm (craft I2)', () => {
  test('pass in this order: 20, 17 + 3.2 = 20.2, 14 + 5.6 = 19.6', () => {
    const { pieces, offIds } = orderFeed(THREE, 21.5, 8);
    expect(pieces.map(({ id, needMm, passes }) => [id, Number(needMm.toFixed(1)), passes])).toEqual([
      ['a', 20, true],
      ['b', 20.2, true],
      ['c', 19.6, true],
    ]);
    expect(offIds).toEqual([]);
  });
  test('and not in the other: the last asks 20 + 4.8 = 24.8', () => {
    const last = leadThrough(THREE, 21.5, 8).at(-1)!;
    expect([last.id, last.needMm, last.passes]).toEqual(['a', 24.8, false]);
  });
  test('what is through never counts with more than the whole bundle', () => {
    expect(leadThrough(THREE, 21.5, 4).at(-1)!.needMm).toBe(24);
  });
  test('a hole of 20.7 is too small for one of them, and 21 is the least that does', () => {
    // 20.2 + 0.5
    expect(measureLeastBore(THREE, 8, 0.5)).toBe(21);
    expect(orderFeed(THREE, 20.1, 8).offIds).toHaveLength(1);
    expect(orderFeed(THREE, 19.9, 8).offIds).toEqual(['a']);
  });
});

/** Every order of every subset, one by one. */
function countLeastOff(pieces: readonly FeedPiece[], freeMm: number, wholeMm: number): number {
  let most = 0;
  const go = (led: number, sumMm: number, left: readonly FeedPiece[]) => {
    most = Math.max(most, led);
    for (const one of left)
      if (Math.min(sumMm, wholeMm) + one.envelopeMm <= freeMm + 1e-9)
        go(
          led + 1,
          sumMm + one.odMm,
          left.filter((other) => other !== one),
        );
  };
  go(0, 0, pieces);
  return pieces.length - most;
}

test('no other order leaves fewer over: against every order, up to seven parts', () => {
  const random = createRandom(31);
  for (let run = 0; run < runs(150, 3000); run += 1) {
    const pieces = Array.from({ length: 1 + Math.floor(random() * 7) }, (_, at) => {
      const odMm = 1 + Math.round(random() * 80) / 10;
      return piece(`p${at}`, odMm + Math.round(random() * 200) / 10, odMm);
    });
    const wholeMm = pieces.reduce((sum, { odMm }) => sum + odMm, 0) * (0.4 + 0.6 * random());
    const freeMm = 8 + random() * 25;
    const ordered = orderFeed(pieces, freeMm, wholeMm);
    expect(ordered.offIds).toHaveLength(countLeastOff(pieces, freeMm, wholeMm));
    // those that are not left over do pass, one after another
    const led = ordered.pieces.filter(({ id }) => !ordered.offIds.includes(id));
    expect(leadThrough(led, freeMm, wholeMm).every(({ passes }) => passes)).toBe(true);
    const least = measureLeastBore(pieces, wholeMm, 0.5);
    expect(countLeastOff(pieces, least - 0.5, wholeMm)).toBe(0);
    const needed = Math.max(wholeMm, ...pieces.map(({ envelopeMm }) => envelopeMm)) + 0.5;
    if (least - 1 >= needed) expect(countLeastOff(pieces, least - 1.5, wholeMm)).toBeGreaterThan(0);
  }
});

const feedOf = (job: Job) => plan(job, CATALOGUE).looms[0]!.feeds;
/** A hole at the breakout of the bench: the ends L and R lie beyond, A at the datum. */
const withHole = (holeMm: number | null, change: (loom: Loom, job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    loom.nodes.b1 = { ...loom.nodes.b1!, holeMm };
    loom.clampedBy = null;
    change(loom, job);
  });

describe('a hole on the way of a loom', () => {
  test('has the ends beyond in their order, with what each asks; none where its bore is not known', () => {
    expect(feedOf(withHole(null))).toEqual([]);
    const [feed] = feedOf(withHole(40));
    expect(feed).toMatchObject({ nodeId: 'b1', boreMm: 40, leaveMm: 0.5, direction: 'outward', offIds: [], unknownIds: [] });
    expect(feed!.pieces.map(({ id }) => id).sort()).toEqual(['L', 'R']);
    expect(feed!.pieces.every(({ needMm, envelopeMm, throughMm, passes }) => passes && needMm === envelopeMm + throughMm)).toBe(true);
  });
  test('is passed the other way round where that leaves more housings on; not where the datum is clamped; else as it is said', () => {
    const small = (loom: Loom) => {
      loom.ends.A = { ...loom.ends.A!, familyId: 'tarn-2', key: null };
      for (const circuit of Object.values(loom.circuits))
        circuit.terminations = circuit.terminations.filter(({ endId, cavity }) => endId !== 'A' || Number(cavity) <= 2);
      loom.ends.L = { ...loom.ends.L!, familyId: 'hollin-19', key: 'A' };
    };
    const clamp = (loom: Loom) => {
      small(loom);
      loom.clampedBy = 'Jun Okafor';
    };
    const wide = feedOf(withHole(60, small))[0]!;
    expect(wide.direction).toBe('outward');
    const boreMm = Math.ceil(wide.pieces.find(({ id }) => id === 'L')!.envelopeMm) - 1;
    expect(feedOf(withHole(boreMm, small))[0]).toMatchObject({
      direction: 'inward',
      because: 'more housings stay on this way',
      offIds: [],
    });
    expect(feedOf(withHole(boreMm, clamp))[0]).toMatchObject({ direction: 'outward', offIds: ['L'] });
    const said = withHole(60, (loom) => {
      small(loom);
      loom.nodes.b1 = { ...loom.nodes.b1!, feed: 'inward' };
    });
    expect(feedOf(said)[0]).toMatchObject({ direction: 'inward', because: 'chosen by hand' });
    expect(feedOf(said)[0]!.pieces.map(({ id }) => id)).toEqual(['A']);
  });
  test('an end that is pinned in the vehicle goes through as its wires; one whose housing is still to be chosen is named', () => {
    const feed = feedOf(
      withHole(40, (loom) => {
        loom.ends.L = { ...loom.ends.L!, pinAt: 'vehicle' };
        loom.ends.R = { ...loom.ends.R!, familyId: null };
      }),
    )[0]!;
    const [only] = feed.pieces;
    expect([only!.id, only!.goesAs, only!.envelopeMm]).toEqual(['L', 'wires', only!.odMm]);
    expect(feed.unknownIds).toEqual(['R']);
  });
  test('a ring is as wide as the shop says; where it does not, nobody knows', () => {
    const rings = (loom: Loom) => {
      loom.ends.R = createEnd(loom.ends.R!.nodeId, 'R', null, { kind: 'ring', studMm: 6 });
    };
    const known = feedOf(withHole(40, rings))[0]!;
    expect(known.pieces.find(({ id }) => id === 'R')).toMatchObject({ goesAs: 'rings', envelopeMm: 12 });
    const doubted = { ...CATALOGUE, rings: CATALOGUE.rings.map((ring) => ({ ...ring, widthMm: null })) };
    expect(plan(withHole(40, rings), doubted).looms[0]!.feeds[0]!.unknownIds).toEqual(['R']);
  });
});

test('from where on the order does not matter: the first that passes beside the whole bundle, where all after it do too', () => {
  const base = {
    nodeId: 'h',
    boreMm: 22,
    leaveMm: 0.5,
    besideMm: 0,
    direction: 'outward' as const,
    because: '',
    unknownIds: [],
    leastBoreMm: 21,
  };
  const turns = (wholeMm: number) => {
    const { pieces, offIds } = orderFeed([...THREE, piece('d', 12, 2)], 21.5, wholeMm);
    return findFreeTurn({ ...base, wholeMm, offIds, pieces: pieces.map((one) => ({ ...one, goesAs: 'housing' as const })) });
  };
  // 14 + 7 and 12 + 7 pass, 17 + 7 does not; at 8 only the last is free
  expect([turns(7), turns(8)]).toEqual([3, null]);
});
