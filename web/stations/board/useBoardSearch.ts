import { useEffect, useRef, useState } from 'react';
import {
  BOARD_TRIES,
  createBoardTree,
  findBoard,
  findStandard,
  layBoard,
  measureBox,
  takeBoard,
  toBoardPins,
  toMoves,
  toMiddle,
  toUsable,
  type BoardForm,
  type BoardTree,
} from 'wattograph-core';
import { runBoard } from '../../client/boardRunner';
import type { PlannedLoom } from '../../client/jobContext';
import type { JobStore } from '../../client/jobStore';
import { useShop } from '../../client/shopContext';

/** A search of the layout as the page shows it. */
export interface BoardSearchState {
  /** share that is done; null: none runs */
  done: number | null;
  failure: string | null;
  hasBest: boolean;
  start: () => void;
  /** gives up; what was found is let go */
  stop: () => void;
  /** ends it, and takes the best so far */
  takeBest: () => void;
}

/** The same loom searched anew finds the same. */
const SEED = 1;

/** Searches the layout of a loom on its board in a worker, and takes what was found as an edit. */
export function useBoardSearch({ job, loom, loomId, plan }: PlannedLoom, store: JobStore): BoardSearchState {
  const shop = useShop();
  const [state, setState] = useState<{ done: number | null; failure: string | null }>({ done: null, failure: null });
  const [best, setBest] = useState<{ tree: BoardTree; form: BoardForm } | null>(null);
  const giveUp = useRef<() => void>(() => undefined);
  useEffect(() => () => giveUp.current(), []);
  const board = findBoard(shop, loom.board);
  const take = (tree: BoardTree, form: BoardForm, isWhole: boolean) => {
    const laid = layBoard(tree, form);
    const box = measureBox([...laid.rods.flat(), ...(laid.datum ? [laid.datum] : [])]);
    store.edit(takeBoard(loomId, toMoves(tree, form), toMiddle(box, board), isWhole));
  };
  const start = () => {
    giveUp.current();
    setBest(null);
    setState({ done: 0, failure: null });
    const tree = createBoardTree(job, shop, plan, findStandard(job, shop).boardClearMm);
    const search = { seed: SEED, tries: BOARD_TRIES, size: toUsable(board), pins: toBoardPins(tree, loom.board, false) };
    giveUp.current = runBoard({ tree, search }, (answer) => {
      if ('done' in answer) {
        if (answer.best) setBest({ tree, form: answer.best });
        return setState({ done: answer.done, failure: null });
      }
      setState({ done: null, failure: 'failure' in answer ? answer.failure : null });
      if ('found' in answer) take(tree, answer.found.form, true);
    });
  };
  const stop = () => {
    giveUp.current();
    setState({ done: null, failure: null });
  };
  const takeBest = () => {
    stop();
    if (best) take(best.tree, best.form, false);
  };
  return { ...state, hasBest: best !== null, start, stop, takeBest };
}
