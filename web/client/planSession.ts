import {
  applyEdit,
  createInspector,
  createPlanner,
  editDocument,
  type Catalogue,
  type EditOperation,
  type Finding,
  type Job,
  type Planner,
} from 'wattograph-core';
import { packFindings, toDelta, toFirstDelta, type Packed, type PlanDelta, type Planned, type SentPlan } from './planDelta';

/** What the page asks for: plan this job with this shop, or the one that was planned last with this changed. */
export type PlanRequest =
  /** given: the plan that the page shows already, as JSON */
  { sequence: number; job: Job; shop: Catalogue; given: string | null } | { sequence: number; patch: EditOperation[] };

/**
 * A plan, told against the one before it; they arrive in their order. ms: from the question to the plan, in the worker. delta null: the plan is
 * the given one. findings: the first ones, where the page has none yet; else they follow.
 */
export type PlanAnswer =
  { sequence: number; delta: PlanDelta | null; findings: Finding[] | null; ms: number } | { sequence: number; failure: string };

/** What was found in the plan of that number, against what was found last; null: the same. ms: in the worker. */
export type FindingsAnswer = { findingsOf: number; findings: Packed<Finding> | null; ms: number } | { findingsOf: number; failure: string };

/** The worker's side of planning. */
export interface PlanSession {
  answer: (request: PlanRequest) => PlanAnswer;
  /** What is found in the plan that was answered last, so that a person sees the plan before it is checked; null: it was told already. */
  check: () => FindingsAnswer | null;
  /**
   * Plans one length of the job a little longer and forgets it, so that the first edits of a person meet code that has run before: a plan
   * that runs for the tenth time takes half as long as the second. Answers nothing and changes nothing. round: which length, and in which
   * loom; false: there is nothing to plan.
   */
  rehearse: (round: number) => boolean;
}

const toMessage = (error: unknown) => (error instanceof Error ? error.message : String(error));

/**
 * Owns the document and is told what changes, so that what an edit does not touch stays the same object and need not be planned anew.
 * now: days for the findings; clock: for the time that a plan takes.
 */
export function createPlanSession(now: () => string, clock: () => number): PlanSession {
  let planner: Planner | null = null;
  let inspect: ReturnType<typeof createInspector> | null = null;
  const begin = (shop: Catalogue) => {
    planner = createPlanner(shop);
    inspect = createInspector(shop);
  };
  let document: Job | null = null;
  let last: SentPlan | null = null;
  /** as told last; null: none were told yet */
  let found: Finding[] | null = null;
  /** number of the plan whose findings are still to be told */
  let unchecked: number | null = null;
  const change = (patch: EditOperation[]): Job => {
    if (!document) throw new Error('plan: expected a job before its first change');
    const applied = applyEdit(document, patch);
    if (!applied.ok) throw new Error(`plan: ${applied.problems[0]!.path} ${applied.problems[0]!.message}`);
    return applied.value;
  };
  return {
    answer: (request) => {
      const started = clock();
      const { sequence } = request;
      unchecked = null;
      try {
        if ('shop' in request) begin(request.shop);
        document = 'job' in request ? request.job : change(request.patch);
        const plan = planner!(document);
        const given = 'given' in request && request.given !== null ? (JSON.parse(request.given) as Planned) : null;
        const delta = given ? toFirstDelta(given, plan) : toDelta(last, plan);
        const known = given?.findings ?? found;
        // none are shown yet: a plan without any would look sound
        const findings = known ? null : inspect!(document, plan, now());
        last = plan;
        found = known ?? findings;
        unchecked = known ? sequence : null;
        return { sequence, delta, findings, ms: clock() - started };
      } catch (error) {
        return { sequence, failure: toMessage(error) };
      }
    },
    check: () => {
      if (unchecked === null) return null;
      const started = clock();
      const findingsOf = unchecked;
      unchecked = null;
      try {
        const findings = inspect!(document!, last!, now());
        const packed = packFindings(found!, findings);
        found = findings;
        return { findingsOf, findings: packed, ms: clock() - started };
      } catch (error) {
        return { findingsOf, failure: toMessage(error) };
      }
    },
    rehearse: (round) => {
      const longer = document && last && lengthen(document, round);
      if (!longer) return false;
      try {
        const plan = planner!(longer);
        toDelta(last, plan);
        inspect!(longer, plan, now());
        return true;
      } catch {
        // a job that cannot be planned is told of when it is asked for
        return false;
      }
    },
  };
}

/** The job with one length 1 mm longer; null: it has none. */
function lengthen(job: Job, round: number): Job | null {
  const loomIds = Object.keys(job.looms);
  const loomId = loomIds[round % Math.max(1, loomIds.length)];
  if (loomId === undefined) return null;
  const { segments } = job.looms[loomId]!;
  const ids = Object.keys(segments);
  const id = ids[Math.floor(round / loomIds.length) % Math.max(1, ids.length)];
  if (id === undefined) return null;
  return editDocument(job, (draft) => {
    const segment = draft.looms[loomId]!.segments[id]!;
    if (segment.fittedMm === null) segment.lengthMm += 1;
    else segment.fittedMm += 1;
  }).next;
}
