'use client';

import { useDisclosure } from '@mantine/hooks';
import { toCount } from 'wattograph-core';
import { useSearchParams } from 'next/navigation';
import { memo, useDeferredValue, useState } from 'react';
import { useFindings, useJob, usePlannedLoom, type PlannedLoom } from '../../client/jobContext';
import { useLoomId } from '../../ui/JobShell';
import { SectionPanel } from '../../ui/section/SectionPanel';
import { Split } from '../../ui/Split';
import { ToolsSlot } from '../../ui/table/DataTable';
import { Strip } from '../../ui/strip/Strip';
import styles from './Bundle.module.css';
import { Changes } from './Changes';
import { CircuitsTable } from './CircuitsTable';
import { FindingsList } from './FindingsList';
import { LayupTab } from './LayupTab';
import { LengthsTable } from './LengthsTable';
import { AddEndDialog, SplitDialog } from './RouteDialogs';
import { WiresTable } from './WiresTable';

const TABS = ['wires', 'lengths', 'layup', 'circuits', 'findings'] as const;
type Tab = (typeof TABS)[number];
const NAMES: Record<Tab, string> = {
  wires: 'Wires',
  lengths: 'Lengths',
  layup: 'Lay-up',
  circuits: 'Circuits',
  findings: 'Findings',
};

/** Strip, section and figures: where a loom gets its lengths. */
export function BundleStation() {
  const loomId = useLoomId();
  // a new plan is drawn in slices, so that the pointer is never waited for
  const planned = useDeferredValue(usePlannedLoom(loomId));
  return planned ? <Open planned={planned} /> : <p className={styles.wait}>Computing the plan …</p>;
}

/** Drawn again only for a plan that is ready to be drawn: what changes sooner is in parts of its own. */
const Open = memo(function Open({ planned }: { planned: PlannedLoom }) {
  const wanted = useSearchParams().get('tab');
  const [chosen, setChosen] = useState<{ tab: Tab; at: string | null } | null>(null);
  // a tab named by the address counts until another is chosen by hand
  const tab = chosen && chosen.at === wanted ? chosen.tab : TABS.includes(wanted as Tab) ? (wanted as Tab) : (chosen?.tab ?? 'wires');
  const setTab = (next: Tab) => setChosen({ tab: next, at: wanted });
  // the strip first: what it is worked with is there while the rest is still being drawn
  const isFilled = useDeferredValue(true, false);
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const [adding, addDialog] = useDisclosure(false);
  const [splitting, splitDialog] = useDisclosure(false);
  const hasRuns = Object.keys(planned.loom.segments).length > 0;
  return (
    <div className={styles.station}>
      <Split name="bundle" orientation="vertical" share={67} least={[20, 15]}>
        <Split name="section" orientation="horizontal" share={71} least={[40, 20]}>
          <Strip
            planned={planned}
            tools={
              <>
                <button onClick={addDialog.open}>Add end</button>
                <button onClick={splitDialog.open} disabled={!hasRuns}>
                  Add breakout
                </button>
              </>
            }
          />
          {isFilled && <SectionPanel planned={planned} />}
        </Split>
        <div className={styles.below}>
          <Changes planned={planned} />
          <section className={styles.lower}>
            <div className={styles.tabs}>
              <div role="tablist" aria-label="Figures of the loom">
                {TABS.map((one) => (
                  <button key={one} role="tab" aria-selected={tab === one} onClick={() => setTab(one)}>
                    {NAMES[one]}
                    {one === 'findings' && <FindingsCount loomId={planned.loomId} />}
                  </button>
                ))}
              </div>
              <span className={styles.right}>
                {toCount(planned.plan.wires.length, 'wire')}, {Math.round(planned.plan.massG.total)} g
                <PlannedIn />
              </span>
              <span className={styles.tools} ref={setSlot} />
            </div>
            <ToolsSlot value={slot}>
              <div className={styles.scroll} role="tabpanel" tabIndex={0} aria-label={NAMES[tab]}>
                {isFilled && tab === 'wires' && <WiresTable planned={planned} />}
                {isFilled && tab === 'lengths' && <LengthsTable planned={planned} />}
                {isFilled && tab === 'layup' && <LayupTab planned={planned} />}
                {isFilled && tab === 'circuits' && <CircuitsTable planned={planned} />}
                {isFilled && tab === 'findings' && <LoomFindings planned={planned} />}
              </div>
            </ToolsSlot>
          </section>
        </div>
      </Split>
      {adding && <AddEndDialog planned={planned} onClose={addDialog.close} />}
      {splitting && <SplitDialog planned={planned} onClose={splitDialog.close} />}
    </div>
  );
});

function useLoomFindings(loomId: string) {
  const findings = useFindings();
  return findings.filter((one) => one.loomId === loomId || one.loomId === '');
}

const FindingsCount = ({ loomId }: { loomId: string }) => ` ${useLoomFindings(loomId).length}`;

const LoomFindings = ({ planned }: { planned: PlannedLoom }) => (
  <FindingsList planned={planned} findings={useLoomFindings(planned.loomId)} />
);

function PlannedIn() {
  const ms = useJob(({ result }) => result?.ms ?? null);
  return ms === null ? null : `, planned in ${ms < 10 ? ms.toFixed(1) : Math.round(ms)} ms`;
}
