import { Value } from '@sinclair/typebox/value';
import fc from 'fast-check';
import { CATALOGUE, createLookup } from '../catalogue';
import { createInlet, createSkerry } from '../demo';
import { listFindings } from '../make';
import { applyEdit, checkJob, listOperations } from '../model';
import { createPlanner, plan } from '../plan';
import { STEP, takeStep } from '../testing/takeStep';
import { runs } from '../testing/runs';

const LOOKUP = createLookup(CATALOGUE);
/** Plans each job from the one before it, as the application does. */
const planNext = createPlanner(CATALOGUE);

/** Places of a plan with numbers that are none. */
function listUnnumbers(value: unknown, at = ''): string[] {
  if (typeof value === 'number') return Number.isFinite(value) ? [] : [`${at} ${value}`];
  if (typeof value !== 'object' || value === null) return [];
  return Object.entries(value).flatMap(([key, one]) => listUnnumbers(one, `${at}/${key}`));
}

test.each([
  ['one loom', createInlet, runs(5, 300)],
  ['four looms', createSkerry, runs(2, 100)],
])('whatever edits follow each other, %s stays a job that plans, and every edit can be taken back', (_, create, numRuns) => {
  fc.assert(
    fc.property(fc.array(STEP, { minLength: 1, maxLength: 12 }), (steps) => {
      let job = create();
      for (const step of steps) {
        const next = takeStep(job, step);
        const checked = checkJob(next, LOOKUP);
        expect(checked.ok ? [] : checked.problems).toEqual([]);
        const forth = applyEdit(job, listOperations(job, next));
        const back = applyEdit(next, listOperations(next, job));
        expect([forth.ok && Value.Equal(forth.value, next), back.ok && Value.Equal(back.value, job)]).toEqual([true, true]);
        // as the application has it: what an edit does not touch stays the same object
        job = forth.ok ? forth.value : next;
        planNext(job);
      }
      const planned = planNext(job);
      // step by step or all at once: one and the same plan
      expect(Value.Equal(planned, plan(job, CATALOGUE))).toBe(true);
      expect(listUnnumbers(planned)).toEqual([]);
      expect(planned.looms.flatMap(({ wires }) => wires).filter(({ cutMm }) => !(cutMm > 0))).toEqual([]);
      const keys = listFindings(job, planned, CATALOGUE, null).map(({ key }) => key);
      expect(new Set(keys).size).toBe(keys.length);
    }),
    { numRuns, seed: 4 },
  );
});
