import { today } from '../client/today';
import { CATALOGUE, createPlanner, listFindings, type Job } from 'wattograph-core';
import { toDelta, type PlanDelta, type Planned } from '../client/planDelta';

/** What the page asks for: plan this job. */
export interface PlanRequest {
  sequence: number;
  job: Job;
}

/** Answers are told against the answer before them, and arrive in their order. */
export type PlanAnswer = { sequence: number; delta: PlanDelta; ms: number } | { sequence: number; failure: string };

const planner = createPlanner(CATALOGUE);
let last: Planned | null = null;
const scope = self as unknown as { onmessage: ((event: MessageEvent<PlanRequest>) => void) | null; postMessage(answer: PlanAnswer): void };

scope.onmessage = ({ data: { sequence, job } }) => {
  const started = performance.now();
  try {
    const plan = planner(job);
    const now = { ...plan, findings: listFindings(job, plan, CATALOGUE, today()) };
    const ms = performance.now() - started;
    scope.postMessage({ sequence, delta: toDelta(last, now), ms });
    last = now;
  } catch (error) {
    scope.postMessage({ sequence, failure: error instanceof Error ? error.message : String(error) });
  }
};
