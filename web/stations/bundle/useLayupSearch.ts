import { useEffect, useRef, useState } from 'react';
import { findStandard, takeLayup, USUAL_TRIES, type Job, type Loom, type LoomPlan } from 'wattograph-core';
import type { JobStore } from '../../client/jobStore';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { runLayup } from '../../client/layupRunner';

/** A search of the lay-up as the page shows it. */
export interface LayupSearch {
  /** share that is done; null: none runs */
  done: number | null;
  failure: string | null;
  /** has it found something that could be taken as it is */
  hasBest: boolean;
  start: () => void;
  /** gives up; what was found is let go */
  stop: () => void;
  /** ends it, and takes the best so far */
  takeBest: () => void;
}

/** The same job searched anew finds the same. */
const SEED = 1;

/** Searches the lay-up of a loom in its worker, and takes what was found as an edit. */
export function useLayupSearch({ job, loomId, plan }: PlannedLoom, store: JobStore): LayupSearch {
  const shop = useShop();
  const [state, setState] = useState<{ done: number | null; failure: string | null }>({ done: null, failure: null });
  const [best, setBest] = useState<Loom['laidUp'] | null>(null);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => () => giveUp.current(), []);
  const start = () => {
    giveUp.current();
    setState({ done: 0, failure: null });
    setBest(null);
    giveUp.current = runLayup(toQuestion(job, loomId, plan, shop), (answer) => {
      if ('done' in answer) {
        if (answer.best && Object.keys(answer.best).length > 0) setBest(answer.best);
        return setState({ done: answer.done, failure: null });
      }
      setState({ done: null, failure: 'failure' in answer ? answer.failure : null });
      if ('laidUp' in answer) store.edit(takeLayup(loomId, answer.laidUp));
    });
  };
  const stop = () => {
    giveUp.current();
    setState({ done: null, failure: null });
  };
  const takeBest = () => {
    stop();
    if (best) store.edit(takeLayup(loomId, best, false));
  };
  return { ...state, hasBest: best !== null, start, stop, takeBest };
}

const toQuestion = (job: Job, loomId: string, { tree, wires, bundles, splices }: LoomPlan, shop: Parameters<typeof findStandard>[1]) => ({
  loom: job.looms[loomId]!,
  plan: { tree, wires, bundles, splices },
  standard: findStandard(job, shop),
  seed: SEED,
  tries: USUAL_TRIES,
});
