import { findStandard, takeLayup, USUAL_TRIES, type Job, type Loom, type LoomPlan } from 'wattograph-core';
import type { JobStore } from '../../client/jobStore';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { runLayup } from '../../client/layupRunner';
import { useSearch, type Search } from '../../ui/search/useSearch';

/** The same job searched anew finds the same. */
const SEED = 1;

/** Searches the lay-up of a loom in its worker, and takes what was found as an edit. */
export function useLayupSearch({ job, loomId, plan }: PlannedLoom, store: JobStore): Search {
  const shop = useShop();
  return useSearch<Loom['laidUp']>(
    (tell) =>
      runLayup(toQuestion(job, loomId, plan, shop), (answer) => {
        if ('laidUp' in answer) return tell({ found: answer.laidUp });
        if ('failure' in answer) return tell(answer);
        const hasBest = answer.best !== undefined && Object.keys(answer.best).length > 0;
        tell({ done: answer.done, best: hasBest ? answer.best : undefined });
      }),
    (laidUp, isWhole) => store.edit(takeLayup(loomId, laidUp, isWhole)),
  );
}

const toQuestion = (job: Job, loomId: string, { tree, wires, bundles, splices }: LoomPlan, shop: Parameters<typeof findStandard>[1]) => ({
  loom: job.looms[loomId]!,
  plan: { tree, wires, bundles, splices },
  standard: findStandard(job, shop),
  seed: SEED,
  tries: USUAL_TRIES,
});
