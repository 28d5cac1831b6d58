import { applyEdit, createInspector, createPlanner, type Catalogue, type EditOperation, type Job, type Planner } from 'wattograph-core';
import { toDelta, type PlanDelta, type Planned } from './planDelta';

/** What the page asks for: plan this job with this shop, or the one that was planned last with this changed. */
export type PlanRequest = { sequence: number; job: Job; shop: Catalogue } | { sequence: number; patch: EditOperation[] };

/** Answers are told against the answer before them, and arrive in their order. ms: from the question to the answer, in the worker. */
export type PlanAnswer = { sequence: number; delta: PlanDelta; ms: number } | { sequence: number; failure: string };

/**
 * The worker's side of planning: it owns the document and is told what changes, so that what an edit does not touch stays the same object
 * and need not be planned anew. now: days for the findings; clock: for the time that a plan takes.
 */
export function createPlanSession(now: () => string, clock: () => number): (request: PlanRequest) => PlanAnswer {
  let planner: Planner | null = null;
  let inspect: ReturnType<typeof createInspector> | null = null;
  const begin = (shop: Catalogue) => {
    planner = createPlanner(shop);
    inspect = createInspector(shop);
  };
  let document: Job | null = null;
  let last: Planned | null = null;
  const change = (patch: EditOperation[]): Job => {
    if (!document) throw new Error('plan: expected a job before its first change');
    const applied = applyEdit(document, patch);
    if (!applied.ok) throw new Error(`plan: ${applied.problems[0]!.path} ${applied.problems[0]!.message}`);
    return applied.value;
  };
  return (request) => {
    const started = clock();
    const { sequence } = request;
    try {
      if ('shop' in request) begin(request.shop);
      document = 'job' in request ? request.job : change(request.patch);
      const plan = planner!(document);
      const planned = { ...plan, findings: inspect!(document, plan, now()) };
      const delta = toDelta(last, planned);
      last = planned;
      return { sequence, delta, ms: clock() - started };
    } catch (error) {
      return { sequence, failure: error instanceof Error ? error.message : String(error) };
    }
  };
}
