'use client';

import { useState } from 'react';
import {
  findBoardPlace,
  toCount,
  toPegWords,
  toRangeWords,
  toWholeRun,
  type FloorBoard,
  type BoardPlace,
  type LoomPlan,
} from 'wattograph-core';
import styles from './Floor.module.css';

/** The run that is laid last on the way to a node, which is what an item of the laying is about; null: there is none any more. */
export const findLaidSegment = ({ tree }: Pick<LoomPlan, 'tree'>, nodeId: string): string | null =>
  tree.nodes[nodeId]?.parentSegmentId ?? null;

/** Where a run lies on the board; nowhere where there is none. */
export const findRunPlace = ({ tree }: Pick<LoomPlan, 'tree'>, { planned, tiles }: FloorBoard, segmentId: string | null): BoardPlace =>
  findBoardPlace(tree, planned, tiles, segmentId === null ? [] : [toWholeRun(tree, segmentId)]);

/** Between which pegs a branch lies, and on which pages of the print. */
export function BoardWay({ plan, board, nodeId }: { plan: LoomPlan; board: FloorBoard; nodeId: string }) {
  const { pegs, pages } = findRunPlace(plan, board, findLaidSegment(plan, nodeId));
  const words = [
    ...(pegs.length > 0 ? [`${pegs.length === 1 ? 'peg' : 'pegs'} ${toPegWords(pegs)}`] : []),
    ...(pages.length > 0 ? [`${pages.length === 1 ? 'page' : 'pages'} ${toRangeWords(pages)}`] : []),
  ];
  return words.length === 0 ? null : <small className={styles.carried}>{words.join(' · ')}</small>;
}

/** Before anything is laid: is what hangs on the board the print of this revision? The mark of a page is read off or scanned. */
export function PrintCheck({ board, release }: { board: FloorBoard; release: number }) {
  const [mark, setMark] = useState('');
  const asked = mark.trim().toLowerCase();
  const found = board.tiles.find(({ fingerprint }) => fingerprint === asked);
  if (board.tiles.length === 0) return null;
  return (
    <div className={styles.check}>
      <label>
        Mark of any page that hangs
        <input value={mark} maxLength={40} autoComplete="off" spellCheck={false} onChange={(event) => setMark(event.currentTarget.value)} />
      </label>
      <p role="status" className={asked !== '' && !found ? styles.failed : undefined}>
        {asked === ''
          ? `Read it off or scan it: the print of revision ${release} has ${toCount(board.tiles.length, 'page')}.`
          : found
            ? `Page ${found.number} of this revision. Lay on it.`
            : `No page of revision ${release} has this mark: what hangs is of another state. Do not lay on it; ask for a new print.`}
      </p>
    </div>
  );
}
