'use client';

import { memo, useDeferredValue, useMemo, useState } from 'react';
import { planBoard } from 'wattograph-core';
import { useJobStore, usePlannedLoom, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { useLoomId } from '../../ui/JobShell';
import { NextAction } from '../../ui/NextAction';
import { Split } from '../../ui/Split';
import { ToolsSlot } from '../../ui/table/DataTable';
import bundle from '../bundle/Bundle.module.css';
import styles from './Board.module.css';
import { BoardBar } from './BoardBar';
import { BoardPicture } from './BoardPicture';
import { PegsTable } from './PegsTable';
import { PrintTab } from './PrintTab';
import { RunFacts } from './RunFacts';
import { useBoardSearch } from './useBoardSearch';

const TABS = ['print', 'pegs'] as const;
const NAMES = { print: 'Print', pegs: 'Pegs' } satisfies Record<(typeof TABS)[number], string>;

/** The loom laid out at full scale on the board that the shop has: forks, folds, pegs, and the print that hangs under them. */
export function BoardStation() {
  const planned = useDeferredValue(usePlannedLoom(useLoomId()));
  return planned ? <Open planned={planned} /> : <p className={bundle.wait}>Computing the plan …</p>;
}

const Open = memo(function Open({ planned }: { planned: PlannedLoom }) {
  const shop = useShop();
  const store = useJobStore();
  const search = useBoardSearch(planned, store);
  const [chosen, setChosen] = useState<string | null>(null);
  const [tab, setTab] = useState<(typeof TABS)[number]>('print');
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const { job, plan, loom } = planned;
  const isEmpty = Object.keys(loom.segments).length === 0;
  const board = useMemo(() => (isEmpty ? null : planBoard(job, shop, plan)), [isEmpty, job, shop, plan]);
  if (!board)
    return (
      <NextAction
        words="Nothing to lay out yet. Once the loom has runs, it is spread here at full scale on the board of the shop: where each branch forks, where pegs stand, what to print and to hang."
        at="bundle"
        action="Begin the route at Bundle"
      />
    );
  const segmentId = chosen !== null && Object.hasOwn(loom.segments, chosen) ? chosen : null;
  return (
    <div className={styles.station}>
      <BoardBar planned={planned} board={board} search={search} />
      <Split name="board" orientation="vertical" share={68} least={[30, 14]}>
        <div className={styles.upper}>
          <BoardPicture planned={planned} board={board} chosen={segmentId} onChoose={setChosen} />
          <aside className={styles.side} aria-label="Chosen run">
            <RunFacts key={segmentId} planned={planned} board={board} segmentId={segmentId} />
          </aside>
        </div>
        <section className={bundle.lower}>
          <div className={bundle.tabs}>
            <div role="tablist" aria-label="Lists of the board">
              {TABS.map((one) => (
                <button key={one} role="tab" aria-selected={tab === one} onClick={() => setTab(one)}>
                  {NAMES[one]}
                </button>
              ))}
            </div>
            <span className={bundle.tools} ref={setSlot} style={{ marginLeft: 'auto' }} />
          </div>
          <ToolsSlot value={slot}>
            <div className={bundle.scroll} role="tabpanel" aria-label={NAMES[tab]} tabIndex={0}>
              {tab === 'print' && <PrintTab planned={planned} board={board} />}
              {tab === 'pegs' && <PegsTable planned={planned} board={board} onChoose={setChosen} />}
            </div>
          </ToolsSlot>
        </section>
      </Split>
    </div>
  );
});
