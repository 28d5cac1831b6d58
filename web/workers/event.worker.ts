import { measureEvent, type EventHeat, type LoadEvent } from 'wattograph-core';

/** How far it is, and in the end the heat; null where no stretch is known. */
export type EventAnswer = { done: number } | { heat: EventHeat | null; ms: number } | { failure: string };

const scope = self as unknown as { onmessage: ((event: MessageEvent<LoadEvent>) => void) | null; postMessage(answer: EventAnswer): void };

scope.onmessage = ({ data: event }) => {
  const started = performance.now();
  try {
    scope.postMessage({ heat: measureEvent(event, (done) => scope.postMessage({ done })), ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
