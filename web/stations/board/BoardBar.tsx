'use client';

import { Progress } from '@mantine/core';
import { LEAST_FORK_DEG, mirrorBoard, setBoard, toCount, type PlannedBoard } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import { Why } from '../../ui/Why';
import controls from '../../ui/controls.module.css';
import styles from './Board.module.css';
import type { BoardSearchState } from './useBoardSearch';

const SIDES = { left: 'on the left', top: 'at the top', right: 'on the right', bottom: 'at the bottom' } as const;
/** so many pairs are named */
const MOST_PAIRS = 3;

/** Which board, how it was laid out, what it takes, and what is wrong with it. */
export function BoardBar({ planned, board, search }: { planned: PlannedLoom; board: PlannedBoard; search: BoardSearchState }) {
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
        <span className={styles.running} role="status" aria-label="Search of the layout">
          <Progress value={search.done * 100} w={110} aria-label="searched" /> {Math.round(search.done * 100)} %
          <button type="button" className={controls.button} disabled={!search.hasBest} onClick={search.takeBest}>
            Take the best so far
          </button>
          <button type="button" className={controls.button} onClick={search.stop}>
            Cancel
          </button>
        </span>
      )}
      <span data-testid="board-sums">
        takes {Math.round(board.box.widthMm)} × {Math.round(board.box.heightMm)} mm,{' '}
        <Why
          because={`No layout takes less than ${m2(board.boundMm2)} m²: half of the clearance round each run belongs to it alone; and where the trunk lies straight, the board is as wide as it is long and as high as the longest fork of each side reaches at ${LEAST_FORK_DEG}°.`}
        >
          {m2(board.areaMm2)} m²
        </Why>
        , {toCount(board.runs.filter(({ fold }) => fold).length, 'fold')}, {toCount(board.pegs.length, 'peg')}
      </span>
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
