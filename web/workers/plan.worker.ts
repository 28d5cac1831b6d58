import { CATALOGUE, createPlanner, listFindings, type Finding, type Job, type LoomPlan } from 'wattograph-core';

/** What the page asks for: plan this job. */
export interface PlanRequest {
  sequence: number;
  job: Job;
}

export type PlanAnswer = { sequence: number; looms: LoomPlan[]; findings: Finding[]; ms: number } | { sequence: number; failure: string };

const planner = createPlanner(CATALOGUE);
const scope = self as unknown as { onmessage: ((event: MessageEvent<PlanRequest>) => void) | null; postMessage(answer: PlanAnswer): void };

scope.onmessage = ({ data: { sequence, job } }) => {
  const started = performance.now();
  try {
    const plan = planner(job);
    scope.postMessage({ sequence, looms: plan.looms, findings: listFindings(job, plan, CATALOGUE), ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ sequence, failure: error instanceof Error ? error.message : String(error) });
  }
};
