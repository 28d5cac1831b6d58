'use client';

import { Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import {
  addProving,
  compareIds,
  findStandard,
  FIRST_STARTS,
  PROVING_KINDS,
  setFirstStart,
  setProving,
  setReusedWire,
  strikeProving,
  type Command,
  type FirstStart,
  type Job,
  type Proving,
  type ProvingKind,
} from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { Pick } from '../../ui/fields/Pick';
import { Segmented } from '../../ui/fields/Segmented';
import { TextField } from '../../ui/fields/TextField';
import type { Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';
import { NoteLine } from './NoteLine';

interface Row {
  id: string;
  proving: Proving;
}

const KIND_WORDS: Readonly<Record<ProvingKind, string>> = {
  coding: 'coding',
  value: 'voltage for the controller’s file',
  later: 'not provable standing',
};
const KINDS = PROVING_KINDS.map((value) => ({ value, label: KIND_WORDS[value] }));
const START_WORDS: Readonly<Record<FirstStart, string>> = { vehicle: 'in the vehicle', stand: 'on a stand' };
const STARTS = FIRST_STARTS.map((value) => ({ value, words: START_WORDS[value] }));

/** What first power asks for beside what the wires say, and where the engine starts for the first time. */
export function ProvingsTable({ job }: { job: Job }) {
  const store = useJobStore();
  const rows = useMemo(() => Object.entries(job.provings).map(([id, proving]) => ({ id, proving })), [job]);
  const columns = useMemo(() => createColumns(job, store.edit), [job, store]);
  const head = (
    <div className={styles.heads}>
      <div className={styles.bar}>
        <span>The engine starts for the first time</span>
        <Segmented
          label="Where the engine starts for the first time"
          value={job.startsOn}
          options={STARTS}
          onChange={(startsOn) => store.edit(setFirstStart(startsOn))}
        />
        {job.startsOn === 'stand' && <span className="faint">first power looks over the stand before it</span>}
      </div>
      <ReusedWire job={job} />
      <NoteLine<ProvingKind>
        kindLabel="Kind of proof"
        kinds={KINDS}
        first="coding"
        label="To be proved"
        placeholder="what is set, read or seen"
        onNote={(kind, what) => store.edit(addProving(kind, what))}
      />
    </div>
  );
  return (
    <DataTable
      name="provings"
      label="To be proved"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      empty={
        <>
          {head}
          <p className={styles.empty}>
            First power asks for what the wires say. What a module has to be taught, voltages that go into the controller’s file, and what
            shows only under boost, at speed or in the rain, goes here.
          </p>
        </>
      }
    >
      {head}
    </DataTable>
  );
}

/** Which looms have wire that was in use before, and what that makes of their isolation. */
function ReusedWire({ job }: { job: Job }) {
  const shop = useShop();
  const store = useJobStore();
  const { isolationMegohm, isolationVolts, isolationReusedMegohm, isolationReusedVolts } = findStandard(job, shop);
  return (
    <div className={styles.bar} role="group" aria-label="Wire that was in use before">
      <span>Wire that was in use before</span>
      {Object.entries(job.looms).map(([id, { name, hasReusedWire }]) => (
        <Checkbox
          key={id}
          size="xs"
          label={name}
          checked={hasReusedWire}
          onChange={(event) => store.edit(setReusedWire(id, name, event.currentTarget.checked))}
        />
      ))}
      <span className="faint">
        isolation {isolationReusedMegohm} MΩ at {isolationReusedVolts} V there, {isolationMegohm} MΩ at {isolationVolts} V elsewhere
      </span>
    </div>
  );
}

function createColumns(job: Job, edit: (command: Command) => void): Column<Row>[] {
  const devices = Object.entries(job.devices)
    .map(([value, { name }]) => ({ value, label: name }))
    .sort((a, b) => compareIds(a.label, b.label));
  return [
    { id: 'kind', head: 'kind', value: ({ proving }) => KIND_WORDS[proving.kind] },
    {
      id: 'device',
      head: 'of',
      value: ({ proving }) => (proving.deviceId === null ? '' : (job.devices[proving.deviceId]?.name ?? '')),
      cell: ({ id, proving }) => (
        <Pick
          label={`Device of ${proving.what}`}
          value={proving.deviceId}
          none="the vehicle"
          options={devices}
          onChange={(deviceId) => edit(setProving(id, 'deviceId', deviceId))}
        />
      ),
    },
    {
      id: 'what',
      head: 'what is set, read or seen',
      className: styles.proof,
      value: ({ proving }) => proving.what,
      cell: ({ id, proving }) => (
        <TextField
          label={`To be proved ${id}`}
          value={proving.what}
          most={300}
          onChange={(what) => what && edit(setProving(id, 'what', what))}
        />
      ),
    },
    {
      id: 'when',
      head: 'under which condition',
      className: styles.condition,
      value: ({ proving }) => proving.when,
      cell: ({ id, proving }) =>
        proving.kind === 'later' ? (
          <TextField
            label={`Condition of ${proving.what}`}
            value={proving.when}
            most={200}
            placeholder="on the road, above 60 kPa"
            onChange={(when) => edit(setProving(id, 'when', when))}
          />
        ) : null,
    },
    {
      id: 'do',
      head: '',
      cell: ({ id, proving }) => (
        <button className={styles.link} aria-label={`Strike off: ${proving.what}`} onClick={() => edit(strikeProving(id))}>
          strike off
        </button>
      ),
    },
  ];
}
