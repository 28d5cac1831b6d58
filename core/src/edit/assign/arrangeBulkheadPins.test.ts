import fc from 'fast-check';
import { createDemoStart, CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo';
import { createRandom } from '../../units/createRandom';
import {
  createCircuit,
  createEnd,
  createJob,
  createLoom,
  createNode,
  createSegment,
  listCavities,
  placeCavities,
  type Job,
} from '../../model';
import { arrangeBulkheadPins, measureBreak } from './arrangeBulkheadPins';

const FAMILY = 'hollin-37';
const none = () => 0;

/** Two looms that meet in one round plug of 37; wires to ends at 100, 200 … mm, in the cavities given. */
function createBreak(wires: { cavity: string; toMm: number; kind?: 'supply' | 'signal' | 'data'; pair?: string }[]): Job {
  const job = createJob('break', '', 'larkhollow', createDemoStart());
  job.looms = { one: createLoom('one', 'A'), two: createLoom('two', 'B') };
  for (const loom of Object.values(job.looms)) {
    loom.nodes.plug = createNode('end', 'plug');
    loom.segments.s0 = createSegment('datum', 'plug', 50);
    loom.ends.plug = createEnd('plug', 'plug', FAMILY);
    let before = 'datum';
    for (const toMm of [...new Set(wires.map((wire) => wire.toMm))].sort((a, b) => a - b)) {
      loom.nodes[`b${toMm}`] = createNode('breakout', `at ${toMm}`);
      loom.nodes[`n${toMm}`] = createNode('end', `end ${toMm}`);
      loom.segments[`t${toMm}`] = createSegment(before, `b${toMm}`, 100);
      loom.segments[`s${toMm}`] = createSegment(`b${toMm}`, `n${toMm}`, 60);
      loom.ends[`e${toMm}`] = createEnd(`n${toMm}`, `end ${toMm}`, FAMILY);
      before = `b${toMm}`;
    }
  }
  const used = new Map<number, number>();
  wires.forEach(({ cavity, toMm, kind = 'signal', pair }, index) => {
    const at = (used.get(toMm) ?? 0) + 1;
    used.set(toMm, at);
    for (const loom of Object.values(job.looms))
      loom.circuits[`c${index + 1}`] = createCircuit(
        String(index + 1),
        `wire ${index + 1}`,
        [
          { endId: 'plug', cavity },
          { endId: `e${toMm}`, cavity: String(at) },
        ],
        { kind, wireTable: 'etfe', twist: pair ? { groupId: pair, pitchMm: 25 } : null },
      );
  });
  job.mates.plug = { a: { loomId: 'one', endId: 'plug' }, b: { loomId: 'two', endId: 'plug' } };
  return job;
}

const faceOf = (job: Job, loomId: string, endId = 'plug') =>
  Object.values(job.looms[loomId]!.circuits)
    .flatMap(({ name, terminations }) => terminations.flatMap((one) => (one.endId === endId ? [`${one.cavity} ${name}`] : [])))
    .sort();
const ringOf = (cavity: string) => {
  const { x, y } = placeCavities(CATALOGUE.families[FAMILY]!).find((one) => one.cavity === cavity)!;
  return Math.hypot(x, y);
};

describe('a break', () => {
  test('counts a crossing where what leaves first lies deeper, once for each loom', () => {
    // cavity 1 is the middle, 37 lies on the rim: the short wire in the middle has to come out past the long one
    expect(
      measureBreak(
        createBreak([
          { cavity: '1', toMm: 100 },
          { cavity: '37', toMm: 300 },
        ]),
        CATALOGUE,
        'plug',
      ),
    ).toEqual({ crossings: 2, splitPairs: 0, mixed: 0 });
    expect(
      measureBreak(
        createBreak([
          { cavity: '37', toMm: 100 },
          { cavity: '1', toMm: 300 },
        ]),
        CATALOGUE,
        'plug',
      ).crossings,
    ).toBe(0);
  });
  test('what leaves first goes to the outer rings, partners beside each other, power and sensors apart', () => {
    const wires = Array.from({ length: 20 }, (_, index) => ({
      cavity: String(index + 1),
      toMm: 100 * (1 + (index % 5)),
      kind: index % 2 ? ('supply' as const) : ('signal' as const),
      ...(index === 0 || index === 13 ? { pair: 'p', kind: 'data' as const } : {}),
    }));
    const job = createBreak(wires);
    const { before, after, next, moves } = arrangeBulkheadPins(job, CATALOGUE, 'plug', null, none);
    expect(before.crossings).toBeGreaterThan(50);
    expect(before.splitPairs).toBe(1);
    expect(after.crossings).toBeLessThan(before.crossings / 5);
    expect(after.splitPairs).toBe(0);
    expect(after.mixed).toBeLessThan(before.mixed / 4);
    expect(measureBreak(next, CATALOGUE, 'plug')).toEqual(after);
    expect(moves.length).toBeGreaterThan(5);
    const first = moves.find(({ name }) => name === 'wire 6')!;
    expect(ringOf(first.to)).toBeGreaterThan(ringOf(first.from));
  });
  test('both faces stay the same, every wire has a cavity of its own, and the job holds together', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 0, max: 37 }), (seed, count) => {
        const random = createRandom(seed);
        const cavities = [...listCavities(CATALOGUE.families[FAMILY]!)].sort(() => random() - 0.5);
        const job = createBreak(cavities.slice(0, count).map((cavity) => ({ cavity, toMm: 100 * (1 + Math.floor(random() * 6)) })));
        const { next, before, after, moves } = arrangeBulkheadPins(job, CATALOGUE, 'plug', null, none);
        expect(faceOf(next, 'one')).toEqual(faceOf(next, 'two'));
        const used = faceOf(next, 'one').map((line) => line.split(' ')[0]);
        expect(new Set(used).size).toBe(count);
        for (const endId of Object.keys(job.looms.one!.ends))
          if (endId !== 'plug') expect(faceOf(next, 'one', endId)).toEqual(faceOf(job, 'one', endId));
        expect(after.crossings).toBeLessThanOrEqual(before.crossings);
        // a second look finds nothing more
        if (moves.length)
          expect(arrangeBulkheadPins(next, CATALOGUE, 'plug', null, none).after.crossings).toBeLessThanOrEqual(after.crossings);
        expect(arrangeBulkheadPins(job, CATALOGUE, 'plug', null, none).next).toEqual(next);
      }),
      { numRuns: 15 },
    );
  });
  test('what may not move stays where it is, and so do the pins of a device', () => {
    const job = createBreak([
      { cavity: '1', toMm: 100 },
      { cavity: '2', toMm: 200 },
      { cavity: '37', toMm: 300 },
    ]);
    const { moves } = arrangeBulkheadPins(job, CATALOGUE, 'plug', new Set(['1']), none);
    expect(moves.map(({ name }) => name)).toEqual(['wire 1']);
    const own = structuredClone(job);
    own.looms.two!.ends.plug!.pins['1'] = createCleanSkerry().looms.chassis!.ends['m-fuel-pump']!.pins['1']!;
    expect(arrangeBulkheadPins(own, CATALOGUE, 'plug', new Set(['1']), none).moves).toEqual([]);
  });
  test('large currents do not lie side by side', () => {
    const job = createBreak([
      { cavity: '1', toMm: 100, kind: 'supply' },
      { cavity: '2', toMm: 100, kind: 'supply' },
    ]);
    const { next } = arrangeBulkheadPins(job, CATALOGUE, 'plug', null, () => 12);
    const [a, b] = faceOf(next, 'one').map((line) =>
      placeCavities(CATALOGUE.families[FAMILY]!).find((one) => one.cavity === line.split(' ')[0])!,
    );
    expect(Math.hypot(a!.x - b!.x, a!.y - b!.y)).toBeGreaterThan(1.3 * CATALOGUE.families[FAMILY]!.pitchMm);
  });
  test('halves that differ are arranged in the cavities that both have', () => {
    const job = createBreak([
      { cavity: '1', toMm: 100 },
      { cavity: '2', toMm: 300 },
      { cavity: '37', toMm: 200 },
    ]);
    job.looms.two!.ends.plug!.familyId = 'hollin-19';
    const { next, moves } = arrangeBulkheadPins(job, CATALOGUE, 'plug', null, none);
    for (const { to } of moves) expect(Number(to)).toBeLessThanOrEqual(19);
    expect(faceOf(next, 'one')).toContain('37 wire 3');
  });
  test('without a housing there is no face to arrange', () => {
    const job = createBreak([{ cavity: '1', toMm: 100 }]);
    job.looms.one!.ends.plug!.familyId = null;
    expect(() => arrangeBulkheadPins(job, CATALOGUE, 'plug', null, none)).toThrow('break: expected a housing at one/plug, got none');
  });
  test('of the demo: fewer crossings through the inlet plug, no power beside a sensor', () => {
    const { before, after } = arrangeBulkheadPins(createCleanSkerry(), CATALOGUE, 'inlet', null, none);
    expect(after.crossings).toBeLessThan(before.crossings / 20);
    expect(after.mixed).toBe(0);
  });
});
