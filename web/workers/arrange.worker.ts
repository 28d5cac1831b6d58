import { arrangeBulkheadPins, type BreakArrangement, type Catalogue, type Job } from 'wattograph-core';

/** A break whose cavities are to be put in a better order; currents by cavity, A. */
export interface ArrangeQuestion {
  job: Job;
  shop: Catalogue;
  mateId: string;
  currents: Record<string, number>;
}

export type ArrangeAnswer = { arrangement: BreakArrangement } | { failure: string };

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<ArrangeQuestion>) => void) | null;
  postMessage(answer: ArrangeAnswer): void;
};

scope.onmessage = ({ data: { job, shop, mateId, currents } }) => {
  try {
    scope.postMessage({ arrangement: arrangeBulkheadPins(job, shop, mateId, null, (cavity) => currents[cavity] ?? 0) });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
