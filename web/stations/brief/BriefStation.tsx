'use client';

import { useSearchParams } from 'next/navigation';
import { useState } from 'react';
import { listScope, listScopeChange, agreeScope, setBrief, workTo, toCount } from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { readAuthor } from '../../client/person';
import { useJob, useJobStore } from '../../client/jobContext';
import { today } from '../../client/today';
import { DayField } from '../../ui/fields/DayField';
import { Pick } from '../../ui/fields/Pick';
import { ToolsSlot } from '../../ui/table/DataTable';
import { TextField } from '../../ui/fields/TextField';
import styles from './Brief.module.css';
import { DevicesTable } from './DevicesTable';
import { DonorLedger } from './DonorLedger';
import { HouseStyle } from './HouseStyle';
import { MatesTable } from './MatesTable';
import { AnchorsTable } from './AnchorsTable';
import { OpenItems } from './OpenItems';
import { ProvingsTable } from './ProvingsTable';
import { TasksTable } from './TasksTable';
import { ZonesTable } from './ZonesTable';

const TABS = ['devices', 'open', 'tasks', 'proving', 'anchors', 'donor', 'zones', 'style', 'mates'] as const;
type Tab = (typeof TABS)[number];
const NAMES: Record<Tab, string> = {
  devices: 'Devices',
  open: 'Open items',
  tasks: 'Tasks',
  proving: 'Proving',
  anchors: 'Anchors',
  donor: 'Donor loom',
  zones: 'Zones',
  style: 'House style',
  mates: 'Mates',
};

/** What the vehicle has and needs: everything that is settled before a tape is pulled. */
export function BriefStation() {
  const wanted = useSearchParams().get('tab') as Tab | null;
  const [tab, setTab] = useState<Tab>(wanted !== null && TABS.includes(wanted) ? wanted : 'devices');
  const [slot, setSlot] = useState<HTMLElement | null>(null);
  const job = useJob(({ document }) => document);
  const counts: Partial<Record<Tab, number>> = {
    devices: Object.keys(job.devices).length,
    open: Object.values(job.openItems).filter(({ answer, kind }) => answer === null && kind !== 'concession').length,
    tasks: Object.keys(job.tasks).length,
    proving: Object.keys(job.provings).length,
    anchors: Object.values(job.anchors).filter(({ state }) => state === 'open').length,
    donor: Object.values(job.donors).reduce((sum, { wires }) => sum + Object.keys(wires).length, 0),
    style: Object.keys(job.brief.departures).length,
    mates: Object.keys(job.mates).length,
  };
  return (
    <div className={styles.station}>
      <Head />
      <div className={styles.tabs}>
        <div role="tablist" aria-label="Parts of the brief">
          {TABS.map((one) => (
            <button key={one} role="tab" aria-selected={tab === one} onClick={() => setTab(one)}>
              {NAMES[one]} {counts[one] ? <span className="mono faint">{counts[one]}</span> : null}
            </button>
          ))}
        </div>
        <span className={styles.right} ref={setSlot} />
      </div>
      <ToolsSlot value={slot}>
        <div className={styles.scroll} role="tabpanel" tabIndex={0} aria-label={NAMES[tab]}>
          {tab === 'devices' && <DevicesTable job={job} />}
          {tab === 'open' && <OpenItems job={job} />}
          {tab === 'tasks' && <TasksTable job={job} />}
          {tab === 'proving' && <ProvingsTable job={job} />}
          {tab === 'anchors' && <AnchorsTable job={job} />}
          {tab === 'donor' && <DonorLedger job={job} />}
          {tab === 'zones' && <ZonesTable job={job} />}
          {tab === 'style' && <HouseStyle job={job} />}
          {tab === 'mates' && <MatesTable job={job} />}
        </div>
      </ToolsSlot>
    </div>
  );
}

/** Vehicle, promise, standard, and the scope against what was agreed. */
function Head() {
  const shop = useShop();
  const store = useJobStore();
  const job = useJob(({ document }) => document);
  const { brief } = job;
  const scope = listScope(job);
  const change = listScopeChange(job);
  const added = change ? change.devicesAdded.length + change.circuitsAdded.length : 0;
  const gone = change ? change.devicesGone.length + change.circuitsGone.length : 0;
  return (
    <section className={styles.head} aria-label="Scope">
      <label className={styles.wide}>
        <span>Vehicle</span>
        <TextField label="Vehicle" value={brief.vehicle} most={200} onChange={(vehicle) => store.edit(setBrief('vehicle', vehicle))} />
      </label>
      <label>
        <span>Customer</span>
        <TextField label="Customer" value={job.customer} most={80} onChange={(customer) => store.edit(setBrief('customer', customer))} />
      </label>
      <label>
        <span>Promised</span>
        <DayField label="Promised on" value={brief.promisedOn} onChange={(day) => store.edit(setBrief('promisedOn', day))} />
      </label>
      <label>
        <span>Standard</span>
        <Pick
          label="Shop standard"
          value={job.standardId}
          options={Object.values(shop.standards).map(({ id, name }) => ({ value: id, label: name }))}
          onChange={(id) => id && store.edit(workTo(id, shop.standards[id]!.name))}
        />
      </label>
      <div className={styles.scope} role="status" aria-label="Scope against the quote">
        {brief.agreed === null ? (
          <span>
            <b>{scope.deviceIds.length}</b> devices, <b>{scope.circuitIds.length}</b> circuits, not agreed yet
          </span>
        ) : (
          <span title={[...change!.devicesAdded, ...change!.circuitsAdded].join(', ')}>
            agreed {brief.agreed.on} by {brief.agreed.by}:{' '}
            <b className={added ? styles.alarm : ''}>
              {added
                ? `▲ +${toCount(change!.devicesAdded.length, 'device')}, +${toCount(change!.circuitsAdded.length, 'circuit')}`
                : 'nothing added'}
            </b>
            {gone ? `, ${gone} gone` : ''}
          </span>
        )}
        <button className={styles.button} onClick={() => store.edit(agreeScope(today(), readAuthor()))}>
          {brief.agreed === null ? 'Agree scope' : 'Agree anew'}
        </button>
      </div>
    </section>
  );
}
