import type { Catalogue } from '../catalogue';
import { checkPlan } from '../check';
import { applyEdit, type Job } from '../model';
import { createPlanner } from '../plan';

/** As often as taking a fix may bring up another of the same kind. */
const MOST_ROUNDS = 6;

/** A job with the fixes of these findings taken, as a planner would press them one after another. */
export function takeFixes(job: Job, catalogue: Catalogue, codes: readonly string[]): Job {
  const planner = createPlanner(catalogue);
  let now = job;
  for (let round = 0; round < MOST_ROUNDS; round += 1) {
    const fixes = checkPlan(now, planner(now), catalogue, null).filter(({ code, fix }) => codes.includes(code) && fix !== null);
    if (fixes.length === 0) break;
    for (const { fix } of fixes) {
      const taken = applyEdit(now, fix!.patch);
      if (taken.ok) now = taken.value;
    }
  }
  return now;
}
