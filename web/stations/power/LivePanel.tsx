'use client';

import { useMemo } from 'react';
import {
  findStandard,
  listLive,
  listStandingModes,
  setIsolator,
  setSource,
  toCount,
  type Job,
  type LiveLine,
  type StandingMode,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { NumberField } from '../../ui/fields/NumberField';
import { Pick } from '../../ui/fields/Pick';
import controls from '../../ui/controls.module.css';
import { FactTable } from '../../ui/table/FactTable';
import styles from './Power.module.css';
import type { PlannedVehicle } from './PowerTree';

const STATE_WORDS: Record<LiveLine['state'], string> = { live: '', momentary: 'while held', unsaid: 'not known: a switch is not said' };

/** What is live in a mode, behind which fuse, and for how long the battery gives it. mode null: with the isolator open. */
export function LivePanel({ planned, mode }: { planned: PlannedVehicle; mode: number | null }) {
  const { job, power } = planned;
  const store = useJobStore();
  const shop = useShop();
  const isolated = power.states.findIndex(({ isIsolated }) => isIsolated);
  const at = mode ?? (isolated === -1 ? null : isolated);
  const lines = useMemo(() => (at === null ? [] : listLive(job, { power }, at)), [job, power, at]);
  const standing = useMemo(() => listStandingModes(job, { power }, findStandard(job, shop)), [job, power, shop]);
  const { isolator } = job.source;
  const switches = power.protections.filter(({ kind }) => kind === 'switch' || kind === 'relay');
  const value = isolator && `${isolator.deviceId}.${isolator.linkId}`;
  return (
    <div className={controls.facts}>
      <p className={controls.caution}>What is live with the isolator open stays live while you work: cover it, and pull its fuse.</p>
      <div className={styles.edit}>
        <span>isolator</span>
        <Pick
          label="Isolator"
          value={value}
          none="not said"
          options={[
            ...switches.map(({ id, name }) => ({ value: id, label: name })),
            ...(value !== null && switches.every(({ id }) => id !== value) ? [{ value, label: 'what is gone' }] : []),
          ]}
          onChange={(id) => {
            const chosen = switches.find((one) => one.id === id);
            store.edit(setIsolator(chosen ? { deviceId: chosen.deviceId, linkId: chosen.linkId } : null));
          }}
        />
        <span />
        <span>battery holds</span>
        <NumberField
          unit="Ah"
          label="Battery capacity"
          value={job.source.capacityAh}
          least={0.1}
          most={1000}
          canBeEmpty
          onChange={(capacityAh) => store.edit(setSource('capacityAh', capacityAh))}
        />
        <span>Ah</span>
      </div>
      <StandingTable job={job} modeIds={power.modeIds} standing={standing} />
      <h3>{at === null ? 'Live when off' : `Live in “${job.modes[power.modeIds[at]!]!.name}”`}</h3>
      {at === null ? (
        <p className="faint">
          {value === null
            ? 'Say above which switch is the isolator, and on the left in which modes it is open.'
            : 'The isolator is open in no mode: say so on the left, or choose a mode.'}
        </p>
      ) : lines.length === 0 ? (
        <p>Nothing: every net is dead.</p>
      ) : (
        <LiveTable lines={lines} />
      )}
      {at !== null && power.states[at]!.isIsolated && lines.length > 0 && (
        <p className="faint">Compare it with what your event’s rules for the general circuit breaker allow: they are not in here.</p>
      )}
    </div>
  );
}

const LiveTable = ({ lines }: { lines: readonly LiveLine[] }) => (
  <FactTable label="Live nets">
    <thead>
      <tr>
        <th>net</th>
        <th>its fuse</th>
        <th>feeds</th>
      </tr>
    </thead>
    <tbody>
      {lines.map(({ net, name, fuse, loads, via, state, isByPassed }) => (
        <tr key={net.id} title={via.length > 0 ? `by ${via.join(', ')}` : 'straight from the battery'}>
          <td>
            {name}
            {isByPassed && <b> round the isolator</b>}
            {STATE_WORDS[state] && <span className="faint"> {STATE_WORDS[state]}</span>}
          </td>
          <td>{fuse ? `${fuse.name} ${fuse.ratingA ?? '?'} A` : 'none'}</td>
          <td>{loads.length === 0 ? '' : loads.length > 2 ? toCount(loads.length, 'load') : loads.map((load) => load.name).join(', ')}</td>
        </tr>
      ))}
    </tbody>
  </FactTable>
);

function StandingTable({ job, modeIds, standing }: { job: Job; modeIds: readonly string[]; standing: readonly StandingMode[] }) {
  if (standing.length === 0) return <p className="faint">No mode with the engine off, or no battery: add one under “Source, modes”.</p>;
  return (
    <FactTable label="Battery time">
      <thead>
        <tr>
          <th>engine off</th>
          <th className={styles.num}>draws</th>
          <th className={styles.num}>battery lasts</th>
        </tr>
      </thead>
      <tbody>
        {standing.map(({ mode, meanA, hours, isAtMost }) => (
          <tr key={mode}>
            <td>{job.modes[modeIds[mode]!]!.name}</td>
            <td className={styles.num}>{toAmperes(meanA)}</td>
            <td className={styles.num}>
              {hours === null
                ? meanA === 0
                  ? 'nothing drawn'
                  : 'capacity not said'
                : `${isAtMost ? 'at least ' : ''}${toTimeWords(hours)}`}
            </td>
          </tr>
        ))}
      </tbody>
    </FactTable>
  );
}

const toAmperes = (currentA: number) => (currentA < 1 ? `${Math.round(currentA * 1000)} mA` : `${currentA.toFixed(1)} A`);

/** "13.9 days", "5.3 h", "44 min" */
const toTimeWords = (hours: number) =>
  hours >= 48 ? `${(hours / 24).toFixed(1)} days` : hours >= 2 ? `${hours.toFixed(1)} h` : `${Math.round(hours * 60)} min`;
