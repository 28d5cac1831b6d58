import { CATALOGUE } from '../catalogue';
import { toCutListCsv, toWireListCsv } from '../exchange';
import type { Job } from '../model';
import { findStandard, plan } from '../plan';
import { createBench } from '../testing/createBench';
import { createBuild } from './index';

const bench = (bands: ('red' | 'blue')[], change: (job: Job) => void = () => undefined) =>
  createBench((loom, job) => {
    for (const id of ['c1', 'c3']) loom.circuits[id]!.colour = { base: 'white', stripe: null, bands: [] };
    loom.circuits.c1!.colour.bands = bands;
    change(job);
  });
const build = (job: Job) => {
  const [loom] = plan(job, CATALOGUE).looms;
  return { loom: loom!, ...createBuild(job, loom!, CATALOGUE) };
};
const wordsOf = (job: Job, prefix: string) =>
  build(job)
    .steps.filter(({ id }) => id.startsWith(prefix))
    .flatMap(({ items }) => items.map(({ words }) => words));

describe('bands of a wire', () => {
  test('go on with its marker for good: where it is cut at once, or once it is trimmed after the fit', () => {
    const { bandMm, bandGapMm } = findStandard(bench([]), CATALOGUE);
    const words = `, then bands red, blue from the end on, ${bandMm} mm wide, ${bandGapMm} apart`;
    const told = [...wordsOf(bench(['red', 'blue']), 'cut.'), ...wordsOf(bench(['red', 'blue']), 'mark.')].filter((one) =>
      one.includes('bands'),
    );
    expect(told.length).toBeGreaterThan(0);
    expect(told.every((one) => one.endsWith(words))).toBe(true);
    // never at a rough end, which is cut off with the surplus
    expect(told.some((one) => one.includes('paper flag'))).toBe(false);
    expect(wordsOf(bench([]), '').some((one) => one.includes('band '))).toBe(false);
  });
  test('and again on either side of each breakout that it passes', () => {
    const { loom } = build(bench(['red']));
    const wire = loom.wires.find(({ circuitId }) => circuitId === 'c1')!;
    expect(wire.pieces.length).toBeGreaterThan(1);
    const laid = wordsOf(bench(['red']), 'lay').filter((words) => words.includes('bands again'));
    expect(laid).toEqual([expect.stringMatching(new RegExp(`; bands again on either side of it: ${wire.number} red$`))]);
  });
  test('are bought by their colour; wires of one insulation come off one reel all the same, and the list of wires names them', () => {
    const plain = build(bench([]));
    const banded = build(bench(['red', 'blue']));
    expect(banded.cuts.map(({ reel, wires }) => [reel, wires.length])).toEqual(plain.cuts.map(({ reel, wires }) => [reel, wires.length]));
    // at both ends of the wire, and on either side of the breakout that it passes
    const { bandMm } = findStandard(bench([]), CATALOGUE);
    const bands = banded.parts.filter(({ id }) => id.startsWith('band-'));
    expect(bands.map(({ id, pieces, lengthMm }) => [id, pieces, lengthMm])).toEqual([
      ['band-red', 4, 4 * bandMm],
      ['band-blue', 4, 4 * bandMm],
    ]);
    expect(banded.parts.filter((one) => !bands.includes(one))).toEqual(plain.parts);
    expect(toCutListCsv(banded)).toBe(toCutListCsv(plain));
    expect(toWireListCsv(bench(['red', 'blue']), banded.loom)).toContain('white (red blue)');
  });
  test('of a wire that has others: the pieces of work that tell them are open again, and no others', () => {
    const asksOf = (job: Job) =>
      new Map(build(job).steps.flatMap(({ id, items }) => items.map((item) => [`${id} ${item.id}`, JSON.stringify(item.asks)])));
    const [before, after] = [asksOf(bench(['red'])), asksOf(bench(['blue']))];
    const changed = [...after].filter(([id, asks]) => before.get(id) !== asks).map(([id]) => id);
    expect(changed.length).toBeGreaterThan(0);
    const ofIt = /^(cut|mark|seal|thread|crimp|seat)\..* (c1\.1|1)$|^lay b1$|^test |^sign /;
    expect(changed.filter((id) => !ofIt.test(id))).toEqual([]);
  });
});
