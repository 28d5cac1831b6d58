import { createBench } from '../../testing/createBench';
import { CATALOGUE } from '../../catalogue';
import { createRandom } from '../../units';
import { assignKeys, judgeSwap, measureReaches, plan } from '../index';

describe('who reaches whose device (craft A6)', () => {
  const [long, short] = [
    { legMm: 180, loopMm: 20 },
    { legMm: 120, loopMm: 20 },
  ];
  test('legs of 180 and 120 with loops of 20: the long one reaches, not the reverse, and is 100 too long', () =>
    expect(judgeSwap(long, short)).toEqual({ kind: 'mis-plug', reaches: 'a', excessMm: 100 }));
  test('told the other way round it is the other one', () =>
    expect(judgeSwap(short, long)).toEqual({ kind: 'mis-plug', reaches: 'b', excessMm: 100 }));
  test('shortened by more than that it does not reach; by just that it does', () => {
    expect(judgeSwap({ legMm: 79.9, loopMm: 20 }, short).reaches).toBe('b');
    expect(judgeSwap({ legMm: 80, loopMm: 20 }, { legMm: 120, loopMm: 20 }).kind).toBe('swap');
  });
  test('legs as long as one another are swapped; clipped bundle between their breakouts has to be bridged too', () => {
    expect(judgeSwap(short, short)).toEqual({ kind: 'swap', reaches: null, excessMm: 40 });
    expect(judgeSwap(short, short, 39).kind).toBe('swap');
    expect(judgeSwap(short, short, 41).kind).toBeNull();
  });
});

test('two ends of a loom are measured from where their ways part, and once clipped by their own legs', () => {
  const job = createBench((loom) => {
    loom.segments.s2 = { ...loom.segments.s2!, lengthMm: 180 };
    loom.segments.s3 = { ...loom.segments.s3!, lengthMm: 120 };
    for (const id of ['L', 'R']) loom.ends[id] = { ...loom.ends[id]!, serviceLoopMm: 20 };
  });
  const { tree } = plan(job, CATALOGUE).looms[0]!;
  const reaches = measureReaches(job.looms.bench!, tree, 'L', 'R');
  expect(reaches).toEqual({
    apartMm: 300,
    clipped: { kind: 'mis-plug', reaches: 'a', excessMm: 100 },
  });
  // the anchor lies at the datum: it has no leg of its own, and the way to it is the trunk
  const anchor = measureReaches(job.looms.bench!, tree, 'A', 'L');
  expect(anchor.apartMm).toBe(tree.nodes[job.looms.bench!.ends.L!.nodeId]!.distanceMm);
  expect(anchor.clipped.reaches).not.toBe('a');
});

/** The fewest changes over every choice there is. */
function countLeast(
  ends: readonly string[],
  confused: readonly (readonly [string, string])[],
  keys: readonly string[],
  present: ReadonlyMap<string, string | null>,
) {
  let least = Infinity;
  const go = (at: number, chosen: Map<string, string | null>, changes: number) => {
    if (at === ends.length) {
      if (confused.every(([a, b]) => chosen.get(a) !== chosen.get(b))) least = Math.min(least, changes);
      return;
    }
    const own = present.get(ends[at]!)!;
    for (const key of [own, ...keys.filter((one) => one !== own)])
      go(at + 1, new Map(chosen).set(ends[at]!, key), changes + (key === own ? 0 : 1));
  };
  go(0, new Map(), 0);
  return least;
}

test('keys keep apart what is confused, with the fewest changes: against every choice', () => {
  const random = createRandom(77);
  for (let run = 0; run < 120; run += 1) {
    const ends = Array.from({ length: 2 + Math.floor(random() * 5) }, (_, at) => `e${at}`);
    const confused = ends.flatMap((a, at) => ends.slice(at + 1).flatMap((b) => (random() < 0.5 ? [[a, b] as const] : [])));
    const keys = ['A', 'B', 'C'].slice(0, 1 + Math.floor(random() * 3));
    const present = new Map(ends.map((id) => [id, random() < 0.5 ? null : keys[Math.floor(random() * keys.length)]!]));
    const found = assignKeys(ends, confused, keys, present);
    const least = countLeast(ends, confused, keys, present);
    if (found === null) expect(least).toBe(Infinity);
    else {
      expect(confused.every(([a, b]) => found.get(a) !== found.get(b))).toBe(true);
      expect(ends.filter((id) => found.get(id) !== present.get(id))).toHaveLength(least);
    }
  }
});
