import {
  BOARD_TRIES,
  createBoardTree,
  findBoard,
  findStandard,
  takeBoard,
  toBoardMoves,
  toBoardPins,
  toUsable,
  type BoardForm,
  type BoardTree,
} from 'wattograph-core';
import { runBoard } from '../../client/boardRunner';
import type { PlannedLoom } from '../../client/jobContext';
import type { JobStore } from '../../client/jobStore';
import { useShop } from '../../client/shopContext';
import { useSearch, type Search } from '../../ui/search/useSearch';

/** The same loom searched anew finds the same. */
const SEED = 1;

/** Searches the layout of a loom on its board in a worker, and takes what was found as an edit. */
export function useBoardSearch({ job, loom, loomId, plan }: PlannedLoom, store: JobStore): Search {
  const shop = useShop();
  const board = findBoard(shop, loom.board);
  return useSearch<{ tree: BoardTree; form: BoardForm }>(
    (tell) => {
      const tree = createBoardTree(job, shop, plan, findStandard(job, shop).boardClearMm);
      const search = { seed: SEED, tries: BOARD_TRIES, size: toUsable(board), pins: toBoardPins(tree, loom.board, false) };
      return runBoard({ tree, search }, (answer) => {
        if ('found' in answer) tell({ found: { tree, form: answer.found.form } });
        else if ('failure' in answer) tell(answer);
        else tell({ done: answer.done, best: answer.best && { tree, form: answer.best } });
      });
    },
    ({ tree, form }, isWhole) => {
      const { at, ...moves } = toBoardMoves(tree, form, board);
      store.edit(takeBoard(loomId, moves, at, isWhole));
    },
  );
}
