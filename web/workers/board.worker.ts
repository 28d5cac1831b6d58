import { searchBoard, type BoardForm, type BoardFound, type BoardSearch, type BoardTree } from 'wattograph-core';

/** A loom to be spread on a board. */
export interface BoardQuestion {
  tree: BoardTree;
  search: Omit<BoardSearch, 'progress'>;
}

/** How far it is, with the best so far now and then, and in the end what was found. */
export type BoardAnswer = { done: number; best?: BoardForm } | { found: BoardFound; ms: number } | { failure: string };

/** the page is told so often at most, ms */
const EVERY_MS = 80;

const scope = self as unknown as {
  onmessage: ((event: MessageEvent<BoardQuestion>) => void) | null;
  postMessage(answer: BoardAnswer): void;
};

scope.onmessage = ({ data: { tree, search } }) => {
  const started = performance.now();
  let told = started;
  const progress = (done: number, best: BoardForm) => {
    const now = performance.now();
    if (now - told > EVERY_MS) {
      told = now;
      scope.postMessage({ done, best });
    }
    // given up by ending the worker
    return false;
  };
  try {
    const found = searchBoard(tree, { ...search, progress });
    scope.postMessage({ found, ms: performance.now() - started });
  } catch (error) {
    scope.postMessage({ failure: error instanceof Error ? error.message : String(error) });
  }
};
