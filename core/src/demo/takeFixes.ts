import type { Catalogue } from '../catalogue';
import { createChecker } from '../check';
import { applyEdit, type Job } from '../model';
import { createPlanner } from '../plan';

/** A job with the fixes of these findings taken, one code after another, as a planner would press them. */
export function takeFixes(job: Job, catalogue: Catalogue, codes: readonly string[]): Job {
  const [plan, check] = [createPlanner(catalogue), createChecker(catalogue)];
  return codes.reduce((now, wanted) => {
    const fixes = check(now, plan(now), null).filter(({ code, fix }) => code === wanted && fix !== null);
    return fixes.reduce((mended, { fix }) => {
      const taken = applyEdit(mended, fix!.patch);
      return taken.ok ? taken.value : mended;
    }, now);
  }, job);
}
