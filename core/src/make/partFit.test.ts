import fc from 'fast-check';
import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { createRandomJob } from '../demo/createRandomJob';
import type { Job, Loom } from '../model';
import { plan } from '../plan';
import { createBench } from '../testing/createBench';
import { runs } from '../testing/runs';
import { createBuild } from './index';
import { FIRST_FIT } from './planFits';

const fit = (loom: Loom, ids: readonly string[]) => {
  for (const id of ids) Object.assign(loom.segments[id]!, { status: 'fitted', fittedMm: loom.segments[id]!.lengthMm });
};
const bench = (ids: readonly string[]) => createBench((loom) => fit(loom, ids));
const build = (job: Job) => {
  const [loom] = plan(job, CATALOGUE).looms;
  const { steps } = createBuild(job, loom!, CATALOGUE);
  const waits = new Map(steps.map(({ id, needs }) => [id, needs.map(({ stepId }) => stepId)]));
  return { loom: loom!, steps, waits };
};

describe('what is fitted before the rest (craft A2, G1)', () => {
  test('nothing fitted, or everything: one trial fit', () => {
    for (const ids of [[], ['s1', 's2', 's3']]) expect(build(bench(ids)).waits.has(FIRST_FIT)).toBe(false);
  });
  test('trunk and left leg fitted: left is covered, trimmed and closed; the right one waits for its fit', () => {
    const { waits, steps, loom } = build(bench(['s1', 's2']));
    const left = loom.wires.filter(({ unfittedIds }) => unfittedIds.length === 0);
    expect(left.length).toBeGreaterThan(0);
    for (const id of ['cover.s1', 'cover.s2', 'crimp.L'].filter((one) => waits.has(one)))
      expect([id, waits.get(id)!.includes(FIRST_FIT), waits.get(id)!.includes('fit')]).toEqual([id, true, false]);
    expect(waits.get('cover.s2')).toBeDefined();
    expect([waits.get('cover.s3')!.includes('fit'), waits.get('cover.s3')!.includes(FIRST_FIT)]).toEqual([true, false]);
    const trimmed = (id: string) =>
      steps
        .find((step) => step.id === id)!
        .items.find((item) => item.id === 'trimmed')!
        .asks.map(({ what }) => what);
    expect(trimmed(FIRST_FIT)).toEqual(left.map(({ number }) => number));
    expect(trimmed('fit')).toEqual(loom.wires.filter((wire) => !left.includes(wire)).map(({ number }) => number));
  });
  test('a leg whose trunk is open stays open: its wires still move through it', () => {
    const { waits } = build(bench(['s2']));
    expect(waits.has(FIRST_FIT)).toBe(false);
    expect(waits.get('cover.s2')).toContain('fit');
  });
  test('whatever is fitted: no end is closed before all its wires are final, no run covered before the way to it is', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 400 }),
        fc.array(fc.nat(60), { minLength: 1, maxLength: 40 }),
        fc.boolean(),
        (seed, picks, isDemo) => {
          const job = isDemo ? structuredClone(createInlet()) : structuredClone(createRandomJob(seed, 12));
          const loom = Object.values(job.looms)[0]!;
          const ids = Object.keys(loom.segments);
          fit(loom, [...new Set(picks.map((at) => ids[at % ids.length]!))]);
          const { loom: planned, steps, waits } = build(job);
          const isAfter = (id: string, wanted: string, seen = new Set<string>()): boolean =>
            id === wanted || (waits.get(id) ?? []).some((one) => !seen.has(one) && (seen.add(one), isAfter(one, wanted, seen)));
          expect(steps.length).toBeGreaterThan(0);
          const open = (id: string) => loom.segments[id]!.fittedMm === null;
          const wires = new Map(planned.wires.map((wire) => [wire.id, wire]));
          for (const { segmentId, kind } of planned.coverings) {
            if (kind === 'none') continue;
            let way: string | null = segmentId;
            let isOpen = false;
            while (way !== null) {
              isOpen ||= open(way);
              way = planned.tree.nodes[planned.tree.segments[way]!.nearNodeId]!.parentSegmentId;
            }
            if (isOpen) expect(isAfter(`cover.${segmentId}`, 'fit')).toBe(true);
          }
          for (const { id } of steps.filter((step) => step.id.startsWith('crimp.'))) {
            const endId = id.slice('crimp.'.length);
            if (loom.ends[endId]!.nodeId === planned.tree.datumId) continue;
            const own = planned.terminations.filter((one) => one.endId === endId).flatMap(({ wireIds }) => wireIds);
            if (own.some((one) => wires.get(one)!.unfittedIds.length > 0)) expect(isAfter(id, 'fit')).toBe(true);
            else expect(isAfter(id, FIRST_FIT) || isAfter(id, 'fit')).toBe(true);
          }
        },
      ),
      { numRuns: runs(25, 500) },
    );
  });
});
