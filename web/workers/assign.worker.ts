import { assignPins, findStandard, type Assignment, type Catalogue, type Job } from 'wattograph-core';

/** What the page asks for: give what is open to the boxes of this job. */
export interface AssignQuestion {
  job: Job;
  shop: Catalogue;
}

export type AssignAnswer = { assignment: Assignment; ms: number } | { failure: string };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<AssignQuestion>) => void) | null;
  postMessage(answer: AssignAnswer): void;
};

scope.onmessage = ({ data: { job, shop } }) => {
  const started = performance.now();
  try {
    scope.postMessage({ assignment: assignPins(job, shop, findStandard(job, shop)), ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
