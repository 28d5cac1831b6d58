'use client';

import { useDeferredValue, useMemo, useState } from 'react';
import { measureSourceMean } from 'wattograph-core';
import type { PlannedLoad } from 'wattograph-core';
import { useFindings, usePower } from '../../client/jobContext';
import { useLoomId } from '../../ui/JobShell';
import { FindingLines } from '../../ui/findings/FindingLine';
import { EventPanel } from './EventPanel';
import { LoadPanel } from './LoadPanel';
import { Segmented } from '../../ui/fields/Segmented';
import { TapeBand } from '../../ui/strip/TapeBand';
import { SideTabs } from '../../ui/SideTabs';
import { NextAction } from '../../ui/NextAction';
import controls from '../../ui/controls.module.css';
import styles from './Power.module.css';
import { PowerTree } from './PowerTree';
import { LivePanel } from './LivePanel';
import { SourcePanel } from './SourcePanel';
import { SwitchTable } from './SwitchTable';
import { HeatPanel } from './HeatPanel';

type Side = 'load' | 'event' | 'live' | 'heat' | 'source';
const NAMES: Record<Side, string> = { load: 'Load', event: 'In seconds', live: 'Switches', heat: 'Heat along it', source: 'Source, modes' };
const OF_POWER = /^(PO([2-9]|1\d|2[0-3])|EN5)$/;

/** From the battery to every load: what protects it, what it loses on the way, and what is wrong. */
export function PowerStation() {
  const planned = useDeferredValue(usePower());
  const findings = useFindings();
  const [mode, setMode] = useState<number | null>(null);
  const [side, setSide] = useState<Side>('load');
  const [chosen, setChosen] = useState<string | null>(null);
  const loomId = useLoomId();
  const [at, setAt] = useState<{ loomId: string; endId: string } | null>(null);
  const about = useMemo(() => findings.filter(({ code, grade }) => OF_POWER.test(code) && grade !== 'note'), [findings]);
  if (!planned) return <p className={controls.wait}>Computing the plan …</p>;
  const { job, power } = planned;
  if (power.loads.length === 0)
    return (
      <NextAction
        words="From the battery out to each load: fuses, channels, wire sizes, drop and heat. No loads yet: a load is a device pin that draws a current, and devices get theirs from their kind in Brief. Boxes that feed them (battery, main fuse, power module, fuse box, ground studs) are devices too; put them on an end, and assign in Circuits."
        at="brief?tab=devices"
        action="Add devices in Brief"
      />
    );
  const load = power.loads.find(({ id }) => id === chosen) ?? power.loads.find(({ load: kind }) => kind !== 'feed') ?? power.loads[0]!;
  const pick = ({ id }: PlannedLoad) => {
    setChosen(id);
    if (side !== 'event') setSide('load');
  };
  const endId = at?.loomId === loomId && job.looms[loomId]?.ends[at.endId] ? at.endId : null;
  const plan = planned.looms.find((one) => one.loomId === loomId);
  const sourceA = measureSourceMean(job, power, mode);
  const saved = power.copper.oneSizeMassG - power.copper.massG;
  return (
    <div className={styles.station}>
      <div className={styles.bar}>
        <Segmented
          label="Mode"
          value={mode}
          onChange={setMode}
          options={[{ value: null, words: 'worst mode' }, ...power.modeIds.map((id, value) => ({ value, words: job.modes[id]!.name }))]}
        />
        {sourceA !== null && (
          <span>
            battery gives <b className="mono">{sourceA.toFixed(1)} A</b> mean{mode === null ? ', at most' : ''}
          </span>
        )}
        {power.unfused && (
          <span title={power.unfused.words}>
            <b className="mono">{Math.round(power.unfused.lengthMm)} mm</b> unfused at the battery
          </span>
        )}
        <span className={styles.right}>
          feed and return copper <b className="mono">{Math.round(power.copper.massG)} g</b>
          {saved > 0.5 && <span className="faint">, {Math.round(saved)} g less than one size throughout</span>}
          {power.copper.alikeG > 0.05 && (
            <span className="faint">, {power.copper.alikeG.toFixed(power.copper.alikeG < 10 ? 1 : 0)} g for alike devices wired alike</span>
          )}
        </span>
      </div>
      {plan && (
        <TapeBand
          loom={job.looms[loomId]!}
          plan={plan}
          chosen={endId}
          onChoose={(end) => {
            setAt(end === null ? null : { loomId, endId: end });
            const first = power.loads.find(({ pin }) => pin.loomId === loomId && pin.endId === end);
            if (first) pick(first);
          }}
        />
      )}
      <div className={styles.tree} role="region" aria-label={side === 'live' ? 'Switches' : 'Power tree'}>
        <FindingLines findings={about} />
        {side === 'live' ? (
          <SwitchTable planned={planned} mode={mode} />
        ) : (
          <PowerTree planned={planned} only={endId === null ? null : { loomId, endId }} mode={mode} chosen={load.id} onPick={pick} />
        )}
      </div>
      <aside className={styles.side}>
        <SideTabs names={NAMES} value={side} onChange={setSide}>
          {side === 'load' && <LoadPanel key={load.id} planned={planned} load={load} />}
          {side === 'event' && <EventPanel key={load.id} planned={planned} load={load} />}
          {side === 'live' && <LivePanel planned={planned} mode={mode} />}
          {side === 'source' && <SourcePanel job={job} />}
          {side === 'heat' && <HeatPanel looms={planned.looms} job={job} modeIds={power.modeIds} mode={mode} />}
        </SideTabs>
      </aside>
    </div>
  );
}
