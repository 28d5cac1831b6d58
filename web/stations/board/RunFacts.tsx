'use client';

import { foldRun, freeFork, toClockWords, turnFork, type PlannedBoard } from 'wattograph-core';
import { useJobStore, type PlannedLoom } from '../../client/jobContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import controls from '../../ui/controls.module.css';
import styles from './Board.module.css';
import { nameRun } from './nameRun';
import { isFork, listTurns } from './turns';

const FOLDS = { '180': 'back, to the left', '-180': 'back, to the right', '90': 'to the left', '-90': 'to the right' } as const;
type FoldWay = keyof typeof FOLDS;

/** One run as it lies on the board: how it leaves, where it is folded. */
export function RunFacts({ planned, board, segmentId }: { planned: PlannedLoom; board: PlannedBoard; segmentId: string | null }) {
  const store = useJobStore();
  const run = board.runs.find((one) => one.segmentId === segmentId);
  if (!run)
    return (
      <>
        <h2>Lay it out</h2>
        <p className="faint">
          Drag a branch to turn it round its breakout, also to the other side; choose a run to type its angle or to fold it. What is chosen
          by hand stays when the layout is searched again. Dashed runs are not fitted yet: where their ends may come to lie is drawn as a
          band.
        </p>
      </>
    );
  const { loomId, loom, plan } = planned;
  const place = { loomId, segmentId: run.segmentId, name: nameRun(planned, run.segmentId) };
  const { leavesDeg } = loom.segments[run.segmentId]!;
  const turn = loom.board.turns[run.segmentId];
  const fold = loom.board.folds[run.segmentId];
  const turnTo = (deg: number) => {
    store.edit(turnFork(place, deg, { turns: listTurns(board), at: board.at }));
  };
  const deg = run.turnDeg ?? 0;
  return (
    <>
      <h2>{place.name}</h2>
      <p>
        {Math.round(run.lengthMm)} mm, {run.odMm.toFixed(1)} mm thick,{' '}
        {run.isFitted ? 'fitted' : `${loom.segments[run.segmentId]!.status}, not fitted`}
      </p>
      {isFork(plan.tree, run.segmentId) && (
        <>
          <div className={styles.field}>
            leaves{' '}
            <Pick<'left' | 'right'>
              label="Side on the board"
              value={deg < 0 ? 'right' : 'left'}
              options={[
                { value: 'left', label: 'to the left' },
                { value: 'right', label: 'to the right' },
              ]}
              onChange={(side) => side && turnTo(side === 'left' ? Math.abs(deg) : -Math.abs(deg))}
            />
            at{' '}
            <NumberField
              label="Angle on the board"
              value={Math.abs(deg)}
              unit="°"
              least={0}
              most={180}
              digits={0}
              onChange={(value) => value !== null && turnTo(deg < 0 ? -value : value)}
            />
            °
          </div>
          {leavesDeg !== null && <p className="faint">In the vehicle it leaves at {toClockWords(leavesDeg)}.</p>}
          {turn?.pinned && (
            <button type="button" className={controls.button} onClick={() => store.edit(freeFork(place))}>
              Let the search turn it
            </button>
          )}
        </>
      )}
      <div className={styles.field}>
        folded{' '}
        <Pick<FoldWay>
          label="Fold on the board"
          value={fold ? (String(fold.deg) as FoldWay) : null}
          none="nowhere"
          options={(Object.keys(FOLDS) as FoldWay[]).map((value) => ({ value, label: FOLDS[value] }))}
          onChange={(way) =>
            store.edit(foldRun(place, way === null ? null : { atMm: fold?.atMm ?? Math.round(run.lengthMm / 2), deg: Number(way) }))
          }
        />
      </div>
      {fold && (
        <div className={styles.field}>
          after{' '}
          <NumberField
            label="Folded after"
            value={Math.round(fold.atMm)}
            unit="mm"
            least={0}
            most={20000}
            digits={0}
            onChange={(atMm) => atMm !== null && store.edit(foldRun(place, { atMm, deg: fold.deg }))}
          />{' '}
          mm{run.fold ? `, radius ${Math.round(run.fold.radiusMm)} mm` : ': no room for its bend'}
        </div>
      )}
    </>
  );
}
