'use client';

import { useSearchParams } from 'next/navigation';
import { memo, useDeferredValue, useState } from 'react';
import { DRESSING_WORDS, DRESSINGS, findStandard, setDressing, toCount, type Dressing } from 'wattograph-core';
import { useJobStore, usePlannedLoom, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import { useLoomId } from '../../ui/JobShell';
import { Split } from '../../ui/Split';
import { ToolsSlot } from '../../ui/table/DataTable';
import bundle from '../bundle/Bundle.module.css';
import { BreakoutView } from './BreakoutView';
import styles from './Dress.module.css';
import { DressList } from './DressList';
import { EndView } from './EndView';
import { HoleView } from './HoleView';
import { listAssemblies, toKey } from './listAssemblies';
import { LabelsTable } from './LabelsTable';
import { RunView } from './RunView';
import { SleevesTable } from './SleevesTable';

const TABS = ['coverings', 'labels'] as const;
const NAMES = { coverings: 'Coverings of the runs', labels: 'Labels' } satisfies Record<(typeof TABS)[number], string>;

/** What covers a loom and what finishes it: every run, breakout and end as a small assembly from the wire outwards. */
export function DressStation() {
  const planned = useDeferredValue(usePlannedLoom(useLoomId()));
  return planned ? <Open planned={planned} /> : <p className={bundle.wait}>Computing the plan …</p>;
}

const Open = memo(function Open({ planned }: { planned: PlannedLoom }) {
  const wanted = useSearchParams().get('at');
  const [picked, setPicked] = useState<{ key: string; at: string | null } | null>(null);
  const [tab, setTab] = useState<(typeof TABS)[number]>('coverings');
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const assemblies = listAssemblies(planned);
  const key = picked && picked.at === wanted ? picked.key : wanted;
  const chosen = assemblies.find((one) => toKey(one) === key) ?? assemblies[0];
  if (!chosen)
    return (
      <p className={bundle.wait}>
        Nothing to cover yet. Once wires run through the loom, every run, breakout and end stands here from the wire outwards: its covering
        and what else would do, what is cut, and the order in which things slide on.
      </p>
    );
  return (
    <div className={styles.station}>
      <DressBar planned={planned} />
      <Split name="dress" orientation="vertical" share={71} least={[30, 12]}>
        <div className={styles.upper}>
          <DressList
            planned={planned}
            assemblies={assemblies}
            chosen={chosen}
            onPick={(one) => setPicked({ key: toKey(one), at: wanted })}
          />
          <section className={styles.view} aria-label={chosen.name} tabIndex={0}>
            {chosen.kind === 'run' && <RunView key={chosen.id} planned={planned} segmentId={chosen.id} />}
            {chosen.kind === 'hole' && <HoleView key={chosen.id} planned={planned} nodeId={chosen.id} />}
            {chosen.kind === 'breakout' && <BreakoutView key={chosen.id} planned={planned} nodeId={chosen.id} />}
            {chosen.kind === 'end' && <EndView key={chosen.id} planned={planned} endId={chosen.id} />}
          </section>
        </div>
        <section className={bundle.lower}>
          <div className={bundle.tabs}>
            <div role="tablist" aria-label="Tables of the loom">
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
              {tab === 'coverings' && <SleevesTable planned={planned} />}
              {tab === 'labels' && <LabelsTable planned={planned} />}
            </div>
          </ToolsSlot>
        </section>
      </Split>
    </div>
  );
});

/** How the loom finishes its ends, and what all of it comes to. */
function DressBar({ planned: { loom, loomId, job, plan } }: { planned: PlannedLoom }) {
  const shop = useShop();
  const store = useJobStore();
  const standard = findStandard(job, shop);
  const pieces = [...plan.endDress, ...plan.breakoutDress].flatMap((one) => one.pieces);
  const moulded = pieces.filter(({ table }) => table !== 'coverings').length;
  const covered = plan.coverings.filter(({ kind }) => kind !== 'none');
  const metres = covered.reduce((sum, { cutMm }) => sum + cutMm, 0) / 1000;
  const tight = [...plan.endDress, ...plan.breakoutDress].filter(({ parking }) => parking !== null && !parking.fits).length;
  return (
    <div className={styles.bar}>
      <span>
        Ends and breakouts{' '}
        <Pick<Dressing>
          label="How ends and breakouts of this loom are finished"
          value={loom.dressing}
          none={`as the shop: ${DRESSING_WORDS[standard.dressing]}`}
          options={DRESSINGS.map((value) => ({ value, label: DRESSING_WORDS[value] }))}
          onChange={(dressing) => store.edit(setDressing(loomId, dressing))}
        />
      </span>
      <span data-testid="dress-sums">
        {toCount(covered.length, 'run')} covered, {metres.toFixed(1)} m; {toCount(moulded, 'moulded part')},{' '}
        {toCount(pieces.length - moulded, 'piece')} of sleeve over joints; {Math.round(plan.massG.covering)} g of{' '}
        {Math.round(plan.massG.total)}
      </span>
      {tight > 0 && <b className={styles.alarm}>no room to stand back at {toCount(tight, 'place')}</b>}
    </div>
  );
}
