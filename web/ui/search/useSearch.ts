import { useEffect, useRef, useState } from 'react';

/** What a search says: how far it is, with the best so far now and then; in the end what it found, or why it stopped. */
export type SearchAnswer<Found> = { done: number; best?: Found | undefined } | { found: Found } | { failure: string };

/** A search as a page shows it. */
export interface Search {
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

/**
 * A search in a worker of its own, of which one runs at a time and none outlives its page.
 * @param run begins it; the function that it returns gives up
 * @param take what is done with what was found; isWhole: it was not ended early
 */
export function useSearch<Found>(
  run: (tell: (answer: SearchAnswer<Found>) => void) => () => void,
  take: (found: Found, isWhole: boolean) => void,
): Search {
  const [state, setState] = useState<{ done: number | null; failure: string | null }>({ done: null, failure: null });
  const [best, setBest] = useState<{ found: Found } | null>(null);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => () => giveUp.current(), []);
  const start = () => {
    giveUp.current();
    setState({ done: 0, failure: null });
    setBest(null);
    giveUp.current = run((answer) => {
      if ('done' in answer) {
        if (answer.best !== undefined) setBest({ found: answer.best });
        return setState({ done: answer.done, failure: null });
      }
      setState({ done: null, failure: 'failure' in answer ? answer.failure : null });
      if ('found' in answer) take(answer.found, true);
    });
  };
  const stop = () => {
    giveUp.current();
    setState({ done: null, failure: null });
  };
  const takeBest = () => {
    stop();
    if (best) take(best.found, false);
  };
  return { ...state, hasBest: best !== null, start, stop, takeBest };
}
