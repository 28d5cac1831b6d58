import { Value } from '@sinclair/typebox/value';
import fc from 'fast-check';
import { CATALOGUE, createLookup } from '../catalogue';
import { createInlet, createSkerry } from '../demo';
import { listFindings } from '../make';
import { applyEdit, checkJob, listOperations, type Job } from '../model';
import { createPlanner, createTree, findStandard, plan } from '../plan';
import {
  addEnd,
  assignPins,
  gatherParts,
  joinSegments,
  moveBranch,
  moveBreakout,
  moveDatum,
  placeDevice,
  removeEnd,
  splitSegment,
} from './index';

const LOOKUP = createLookup(CATALOGUE);
/** Plans each job from the one before it, as the application does. */
const planNext = createPlanner(CATALOGUE);
/** One edit of a planner: what it is, and two numbers that choose where and how much. */
const STEP = fc.record({
  kind: fc.constantFrom('split', 'join', 'branch', 'breakout', 'datum', 'end', 'remove', 'place', 'assign', 'gather', 'fix'),
  at: fc.nat(10_000),
  much: fc.nat(10_000),
});
type Step = typeof STEP extends fc.Arbitrary<infer S> ? S : never;

/** The job after an edit; where the edit is refused by its contract, the job as it was. Anything else thrown is a fault. */
function take(before: Job, { kind, at, much }: Step): Job {
  const job = structuredClone(before);
  const loomIds = Object.keys(job.looms).sort();
  const loomId = loomIds[at % loomIds.length]!;
  const loom = job.looms[loomId]!;
  const tree = createTree(loom, findStandard(job, CATALOGUE));
  const one = <T>(list: readonly T[], by: number): T => list[by % list.length]!;
  const segmentIds = Object.keys(tree.segments).sort();
  const nodeIds = Object.keys(tree.nodes).sort();
  const endIds = Object.keys(loom.ends).sort();
  try {
    if (kind === 'split') {
      const id = one(segmentIds, much);
      splitSegment(loom, tree, id, tree.segments[id]!.lengthMm * (0.1 + (at % 80) / 100), at % 2 ? 'pass' : 'breakout', `cut ${at}`);
    } else if (kind === 'join') joinSegments(loom, tree, one(nodeIds, much));
    else if (kind === 'branch') moveBranch(loom, tree, one(segmentIds, much), one(nodeIds, at));
    else if (kind === 'breakout') moveBreakout(loom, tree, one(nodeIds, much), (at % 400) - 200);
    else if (kind === 'datum') moveDatum(loom, tree, (at % 400) - 200);
    else if (kind === 'end')
      addEnd(loom, { nodeId: one(nodeIds, much), legMm: at % 5 ? 20 + (at % 700) : null }, `end ${at}`, at % 3 ? 'pellow-6' : null, {
        kind: at % 3 ? 'connector' : 'tail',
      });
    else if (kind === 'remove') removeEnd(job, loomId, tree, one(endIds, much));
    else if (kind === 'place') placeDevice(job, CATALOGUE, one(Object.keys(job.devices).sort(), much), loomId, one(endIds, at));
    else if (kind === 'assign') return assignPins(job, CATALOGUE, findStandard(job, CATALOGUE)).next;
    else if (kind === 'gather') return gatherParts(job, CATALOGUE, loomId)?.next ?? before;
    else {
      const fixes = listFindings(job, planNext(job), CATALOGUE, null).flatMap(({ fix }) => fix ?? []);
      const fix = fixes.length ? one(fixes, much) : null;
      if (!fix) return before;
      const applied = applyEdit(job, fix.patch);
      if (!applied.ok) throw new Error(`a fix is no edit: ${fix.label}`);
      return applied.value;
    }
  } catch (error) {
    if (error instanceof RangeError && error.message.includes('expected')) return before;
    throw error;
  }
  return job;
}

test.each([
  ['one loom', createInlet, 30],
  ['four looms', createSkerry, 10],
])('whatever edits follow each other, %s stays a job that plans, and every edit can be taken back', (_, create, numRuns) => {
  fc.assert(
    fc.property(fc.array(STEP, { minLength: 1, maxLength: 12 }), (steps) => {
      let job = create();
      for (const step of steps) {
        const next = take(job, step);
        const checked = checkJob(next, LOOKUP);
        expect(checked.ok ? [] : checked.problems).toEqual([]);
        const forth = applyEdit(job, listOperations(job, next));
        const back = applyEdit(next, listOperations(next, job));
        expect([forth.ok && Value.Equal(forth.value, next), back.ok && Value.Equal(back.value, job)]).toEqual([true, true]);
        job = next;
        planNext(job);
      }
      const planned = planNext(job);
      // step by step or all at once: one and the same plan
      expect(Value.Equal(planned, plan(job, CATALOGUE))).toBe(true);
      expect(planned.looms.flatMap(({ wires }) => wires).filter(({ cutMm }) => !(cutMm > 0))).toEqual([]);
      const keys = listFindings(job, planned, CATALOGUE, null).map(({ key }) => key);
      expect(new Set(keys).size).toBe(keys.length);
    }),
    { numRuns, seed: 4 },
  );
});
