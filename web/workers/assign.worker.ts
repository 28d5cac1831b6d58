import { assignPins, CATALOGUE, findStandard, type Assignment, type Job } from 'wattograph-core';

/** What the page asks for: give what is open to the boxes of this job. */
export type AssignAnswer = { assignment: Assignment; ms: number } | { failure: string };

const scope = self as unknown as { onmessage: ((event: MessageEvent<Job>) => void) | null; postMessage(answer: AssignAnswer): void };

scope.onmessage = ({ data: job }) => {
  const started = performance.now();
  try {
    scope.postMessage({ assignment: assignPins(job, CATALOGUE, findStandard(job, CATALOGUE)), ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
