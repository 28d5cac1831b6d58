'use client';

import { LEAST_FORK_DEG, mirrorBoard, setBoard, toCount, type PlannedBoard } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import { Why } from '../../ui/Why';
import { SearchProgress } from '../../ui/search/SearchProgress';
import type { Search } from '../../ui/search/useSearch';
import controls from '../../ui/controls.module.css';
import styles from './Board.module.css';

const SIDES = { left: 'on the left', top: 'at the top', right: 'on the right', bottom: 'at the bottom' } as const;
/** so many pairs are named */
const MOST_PAIRS = 3;

/** Which board, how it was laid out, what it takes, and what is wrong with it. */
export function BoardBar({ planned, board, search }: { planned: PlannedLoom; board: PlannedBoard; search: Search }) {
  const shop = useShop();
  const store = useJobStore();
  const { loomId, loom } = planned;
  const over = (Object.keys(SIDES) as (keyof typeof SIDES)[]).filter((side) => board.over[side] >= 0.5);
  const m2 = (mm2: number) => (mm2 / 1e6).toFixed(2);
  return (
    <div className={styles.bar}>
      <span>
        On the{' '}
        <Pick
          label="Board"
          value={board.board.id}
          options={shop.boards.map(({ id, name, widthMm, heightMm }) => ({ value: id, label: `${name}, ${widthMm} × ${heightMm} mm` }))}
          onChange={(id) => id && store.edit(setBoard(loomId, id, shop.boards.find((one) => one.id === id)!.name))}
        />
      </span>
      <Pick<'up' | 'down'>
        label="Face of the loom"
        value={loom.board.isMirrored ? 'down' : 'up'}
        options={[
          { value: 'up', label: 'built face up' },
          { value: 'down', label: 'built face down, mirrored' },
        ]}
        onChange={(face) => store.edit(mirrorBoard(loomId, face === 'down'))}
      />
      {search.done === null ? (
        <button type="button" className={controls.button} onClick={search.start}>
          {board.by === 'search' ? 'Lay out again' : 'Search the layout'}
        </button>
      ) : (
        <SearchProgress search={search} name="layout" />
      )}
      <span data-testid="board-sums">
        takes {Math.round(board.takes.widthMm)} × {Math.round(board.takes.heightMm)} mm,{' '}
        <Why
          because={`With half of the clearance round it. No layout that keeps its distances takes less than ${m2(board.boundMm2)} m²: half of the clearance round each run belongs to it alone; and where the trunk lies straight, it is as wide as that is long and as high as the longest fork of each side reaches at ${LEAST_FORK_DEG.toFixed(0)}°.`}
        >
          {m2(board.areaMm2)} m²
        </Why>
        , {toCount(board.runs.filter(({ fold }) => fold).length, 'fold')}, {toCount(board.pegs.length, 'peg')}
      </span>
      {loom.board.boardId !== null && loom.board.boardId !== board.board.id && (
        <span className={styles.alarm}>The board that was chosen is no longer in the shop.</span>
      )}
      <span className={board.by === 'search' ? 'faint' : styles.alarm}>
        {board.by === 'search'
          ? 'laid out'
          : board.by === 'partial'
            ? 'Some forks are new since it was laid out: they lie where there is room at a guess.'
            : 'Not searched yet: spread at a guess.'}
      </span>
      {over.length > 0 && (
        <span className={styles.alarm}>
          Stands over the board {over.map((side) => `${Math.round(board.over[side])} mm ${SIDES[side]}`).join(', ')}.
        </span>
      )}
      {board.tooNear.length > 0 && (
        <span className={styles.alarm}>
          Too near:{' '}
          {board.tooNear
            .slice(0, MOST_PAIRS)
            .map(({ a, b, byMm }) => `${a} and ${b} by ${Math.ceil(byMm)} mm`)
            .join('; ')}
          {board.tooNear.length > MOST_PAIRS && ` and ${toCount(board.tooNear.length - MOST_PAIRS, 'pair')} more`}.
        </span>
      )}
      {board.lostFolds.length > 0 && (
        <span className={styles.alarm}>{toCount(board.lostFolds.length, 'fold')} without room in the run: laid straight.</span>
      )}
      {search.failure && <span className={styles.alarm}>{search.failure}</span>}
    </div>
  );
}
