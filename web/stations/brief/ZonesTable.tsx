'use client';

import { Checkbox } from '@mantine/core';
import { useMemo } from 'react';
import { type Command, type Job, type Zone, addZone, countZoneUses, joinCommands, removeZone, setZone, toCount } from 'wattograph-core';
import { useJobStore } from '../../client/jobContext';
import { NumberField } from '../../ui/fields/NumberField';
import { TextField } from '../../ui/fields/TextField';
import { takeFigure, type Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';

const FLAGS = [
  ['wet', 'wet'],
  ['abrasion', 'abrasion'],
  ['flexing', 'moves in use'],
  ['reopen', 'must be opened later'],
  ['handled', 'in the hand often'],
] as const;

/** what a place in a vehicle can be, °C */
const AMBIENT = { unit: '°C', least: -60, most: 400 } as const;

/** from one clip to the next, mm; empty: as the shop has it */
const PITCH = { unit: 'mm', least: 1, most: 10_000, canBeEmpty: true } as const;

interface Row {
  id: string;
  zone: Zone;
  uses: number;
}

/** Parts of the vehicle with what they do to a loom. A run that lies in one takes its covering from it. */
export function ZonesTable({ job }: { job: Job }) {
  const store = useJobStore();
  const rows = useMemo(() => Object.entries(job.zones).map(([id, zone]) => ({ id, zone, uses: countZoneUses(job, id) })), [job]);
  const columns = useMemo(() => createColumns(store.edit), [store]);
  const add = (
    <button className={styles.button} onClick={() => store.edit(addZone())}>
      Add zone
    </button>
  );
  return (
    <DataTable
      name="zones"
      label="Zones"
      rows={rows}
      columns={columns}
      keyOf={({ id }) => id}
      onTake={(commands) => store.edit(joinCommands(`paste ${toCount(commands.length, 'figure')} of zones`, commands))}
      empty={
        <div className={styles.empty}>
          <p>
            Parts of the vehicle by what they do to a loom: how hot, wet or sharp, and whether it moves. A run that lies in one takes its
            insulation and its covering from it. Add the engine bay first.
          </p>
          {add}
        </div>
      }
    >
      {add}
    </DataTable>
  );
}

function createColumns(edit: (command: Command) => void): Column<Row>[] {
  const toAmbient = ({ id, zone }: Row, ambientC: number) => setZone(id, zone.name, `${ambientC} °C`, 'ambientC', ambientC);
  const toPitch = ({ id, zone }: Row, mm: number | null) =>
    setZone(id, zone.name, mm === null ? 'clips as the shop has them' : `clips every ${mm} mm`, 'clipEveryMm', mm);
  return [
    {
      id: 'zone',
      head: 'zone',
      value: ({ zone }) => zone.name,
      cell: ({ id, zone }) => (
        <TextField
          label={`Name of zone ${zone.name}`}
          value={zone.name}
          most={80}
          required
          onChange={(name) => edit(setZone(id, zone.name, 'name', 'name', name))}
        />
      ),
    },
    {
      id: 'ambient',
      head: 'hottest ambient °C',
      isNumber: true,
      value: ({ zone }) => zone.ambientC,
      cell: (row) => (
        <NumberField
          label={`Ambient of ${row.zone.name}`}
          value={row.zone.ambientC}
          {...AMBIENT}
          onChange={(ambientC) => ambientC !== null && edit(toAmbient(row, ambientC))}
        />
      ),
      take: (row, text) => takeFigure(text, row.zone.ambientC, AMBIENT, (ambientC) => toAmbient(row, ambientC!)),
    },
    {
      id: 'clips',
      head: 'clips every mm',
      isNumber: true,
      value: ({ zone }) => zone.clipEveryMm,
      cell: (row) => (
        <NumberField
          label={`Clips in ${row.zone.name} every`}
          value={row.zone.clipEveryMm}
          {...PITCH}
          onChange={(clipEveryMm) => edit(toPitch(row, clipEveryMm))}
        />
      ),
      take: (row, text) => takeFigure(text, row.zone.clipEveryMm, PITCH, (clipEveryMm) => toPitch(row, clipEveryMm)),
    },
    ...FLAGS.map(([flag, words]): Column<Row> => ({
      id: flag,
      head: words,
      value: ({ zone }) => (zone[flag] ? 'yes' : 'no'),
      cell: ({ id, zone }) => (
        <Checkbox
          size="xs"
          aria-label={`${zone.name}: ${words}`}
          checked={zone[flag]}
          onChange={(event) => edit(setZone(id, zone.name, words, flag, event.currentTarget.checked))}
        />
      ),
    })),
    { id: 'uses', head: 'runs and devices in it', isNumber: true, value: ({ uses }) => uses },
    {
      id: 'do',
      head: '',
      cell: ({ id, zone, uses }) => (
        <button
          className={styles.link}
          disabled={uses > 0}
          title={uses ? 'something lies in it' : undefined}
          onClick={() => edit(removeZone(id, zone.name))}
        >
          remove
        </button>
      ),
    },
  ];
}
