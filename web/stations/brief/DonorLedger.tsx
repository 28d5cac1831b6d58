'use client';

import { useDisclosure } from '@mantine/hooks';
import { useMemo, useState } from 'react';
import {
  DONOR_DECISIONS,
  findStandard,
  listDonorDispositions,
  type Command,
  type Donor,
  type DonorDecision,
  type Job,
  decideDonorWire,
  joinCommands,
  setDonorWire,
  toCount,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { TextField } from '../../ui/fields/TextField';
import { LengthField, OF_RUN } from '../../ui/fields/LengthField';
import { Pick } from '../../ui/fields/Pick';
import { takeFigure, type Column } from '../../ui/table/columns';
import { DataTable } from '../../ui/table/DataTable';
import styles from './Brief.module.css';
import { ImportDonor } from './ImportDonor';

const WORDS: Record<DonorDecision, string> = {
  keep: '= keep',
  shorten: '− shorten',
  extend: '+ extend',
  repurpose: '↻ re-purpose',
  remove: '× remove',
};

/** The old loom wire by wire: what stays, what is joined, what goes and what goes missing with it. */
export function DonorLedger({ job }: { job: Job }) {
  const [chosen, setChosen] = useState<string | null>(null);
  const [importing, dialog] = useDisclosure(false);
  const ids = Object.keys(job.donors);
  const donorId = chosen !== null && ids.includes(chosen) ? chosen : ids[0];
  return (
    <>
      <div className={styles.bar}>
        {ids.length > 1 && (
          <Pick
            label="Donor loom"
            value={donorId!}
            options={ids.map((value) => ({ value, label: job.donors[value]!.name }))}
            onChange={setChosen}
          />
        )}
        <button className={styles.button} onClick={dialog.open}>
          Import a pinout (CSV, XLSX)
        </button>
      </div>
      {donorId === undefined ? (
        <p className={styles.empty}>
          Where an old loom is used again, its pinout comes here: each wire is kept, shortened, extended, put to other use or removed, and
          what is lost by it shows.
        </p>
      ) : (
        <Open key={donorId} job={job} donorId={donorId} donor={job.donors[donorId]!} />
      )}
      {importing && (
        <ImportDonor
          onClose={dialog.close}
          onDone={(id) => {
            dialog.close();
            setChosen(id);
          }}
        />
      )}
    </>
  );
}

interface Row {
  id: string;
  name: string;
  wire: Donor['wires'][string];
}

function Open({ job, donorId, donor }: { job: Job; donorId: string; donor: Donor }) {
  const shop = useShop();
  const store = useJobStore();
  const ledger = useMemo(
    () => listDonorDispositions(donor, Object.values(job.devices), findStandard(job, shop).leastOffcutMm),
    [donor, job, shop],
  );
  const rows = useMemo(() => Object.entries(donor.wires).map(([id, wire]) => ({ id, wire, name: wire.number || id })), [donor]);
  const columns = useMemo(() => createColumns(donorId, ledger, store.edit), [donorId, ledger, store]);
  const metres = (mm: number) => (mm / 1000).toFixed(2);
  return (
    <>
      <section className={styles.ledger} role="status" aria-label="Ledger">
        <b>{donor.name}</b>
        {(Object.keys(WORDS) as DonorDecision[]).map((decision) => (
          <span key={decision}>
            {WORDS[decision]} <b className="mono">{ledger.counts[decision]}</b>
          </span>
        ))}
        {ledger.counts.undecided > 0 && (
          <span className={styles.alarm}>
            ? undecided <b className="mono">{ledger.counts.undecided}</b>
          </span>
        )}
        <span>
          joins <b className="mono">{ledger.joins}</b>
        </span>
        <span
          title={ledger.recovered
            .map(({ size, colour, pieces, lengthMm }) => `${size} ${colour}: ${pieces} pieces, ${metres(lengthMm)} m`)
            .join('\n')}
        >
          for stock <b className="mono">{metres(ledger.recoveredMm)} m</b>
          {ledger.unmeasured ? `, ${ledger.unmeasured} not measured` : ''}
        </span>
      </section>
      {ledger.lost.length > 0 && (
        <p className={styles.lost}>
          Functions lost:{' '}
          {ledger.lost.map(({ name, devices }) => (
            <span key={name} className={devices.length ? styles.alarm : ''}>
              {devices.length ? '▲ ' : ''}
              {name}
              {devices.length ? ` (${devices.join(', ')} stays)` : ''};{' '}
            </span>
          ))}
        </p>
      )}
      {ledger.bare.length > 0 && (
        <p className={`${styles.lost} ${styles.alarm}`}>▲ No wire left for {ledger.bare.join(', ')}, which stays.</p>
      )}
      <div className={styles.listed}>
        <DataTable
          name="donor"
          label="Wires of the donor loom"
          rows={rows}
          columns={columns}
          keyOf={({ id }) => id}
          rowProps={toRowProps}
          onTake={(commands) => store.edit(joinCommands(`paste ${toCount(commands.length, 'figure')} of donor wires`, commands))}
        />
      </div>
    </>
  );
}

const toRowProps = ({ wire }: Row) => ({ 'data-decision': wire.decision ?? 'none' });

function createColumns(donorId: string, ledger: ReturnType<typeof listDonorDispositions>, edit: (command: Command) => void): Column<Row>[] {
  const wrong = new Map(ledger.problems.map(({ wireId, words }) => [wireId, words]));
  const nameless = new Set(ledger.aliases.flatMap(({ wireId, name }) => (name === '' ? [wireId] : [])));
  const orphans = new Map(ledger.orphans.map(({ wireId, device }) => [wireId, device]));
  const at = ({ id, name }: Row) => ({ donorId, wireId: id, number: name });
  const length = (key: 'lengthMm' | 'newLengthMm', head: string, label: string): Column<Row> => ({
    id: key,
    head,
    isNumber: true,
    value: ({ wire }) => wire[key],
    cell: (row) =>
      (key === 'lengthMm' || isChanged(row)) && (
        <LengthField
          label={`${label} of donor wire ${row.name}`}
          optional
          value={row.wire[key]}
          onChange={(value) => edit(setDonorWire(at(row), key, value))}
        />
      ),
    take: (row, text) =>
      key === 'newLengthMm' && !isChanged(row)
        ? 'a wire that is shortened, extended or put to other use'
        : takeFigure(text, row.wire[key], { ...OF_RUN, canBeEmpty: true }, (value) => setDonorWire(at(row), key, value)),
  });
  return [
    { id: 'wire', head: 'wire', className: 'mono', value: ({ name }) => name },
    {
      id: 'from',
      head: 'from',
      value: ({ wire }) => `${wire.from} ${wire.fromPin}`,
      cell: ({ wire }) => (
        <>
          {wire.from} <span className="mono faint">{wire.fromPin}</span>
        </>
      ),
    },
    {
      id: 'to',
      head: 'to',
      value: ({ wire }) => `${wire.to} ${wire.toPin}`,
      cell: ({ wire }) => (
        <>
          {wire.to} <span className="mono faint">{wire.toPin}</span>
        </>
      ),
    },
    { id: 'functions', head: 'functions', value: ({ wire }) => wire.functions.join(', ') },
    { id: 'colour', head: 'colour', value: ({ wire }) => wire.colour },
    { id: 'size', head: 'size', className: 'mono', value: ({ wire }) => wire.size },
    length('lengthMm', 'length mm', 'Length'),
    {
      id: 'decision',
      head: 'decision',
      value: ({ wire }) => (wire.decision === null ? '? undecided' : WORDS[wire.decision]),
      cell: (row) => (
        <>
          <Pick
            label={`Decision on donor wire ${row.name}`}
            value={row.wire.decision}
            none="? undecided"
            options={DONOR_DECISIONS.map((value) => ({ value, label: WORDS[value] }))}
            onChange={(decision) => edit(decideDonorWire(at(row), decision))}
          />
          {wrong.has(row.id) && <span className={styles.alarm}> {wrong.get(row.id)}</span>}
          {orphans.has(row.id) && <span className={styles.alarm}> leads to {orphans.get(row.id)}, which goes</span>}
        </>
      ),
      take: (row, text) => {
        const decision = DONOR_DECISIONS.find((one) => one === text.toLowerCase() || WORDS[one] === text);
        return decision ? decideDonorWire(at(row), decision) : `one of ${DONOR_DECISIONS.join(', ')}`;
      },
    },
    length('newLengthMm', 'new length', 'New length'),
    {
      id: 'newName',
      head: 'new name',
      className: 'mono',
      value: ({ wire }) => wire.newName,
      cell: (row) =>
        row.wire.decision === 'repurpose' && (
          <>
            <TextField
              label={`New name of donor wire ${row.name}`}
              value={row.wire.newName}
              most={40}
              onChange={(name) => edit(setDonorWire(at(row), 'newName', name))}
            />
            {nameless.has(row.id) && <span className={styles.alarm}>over the {row.name} printed on it</span>}
          </>
        ),
      take: (row, text) => {
        if (row.wire.decision !== 'repurpose') return 'a wire that is put to other use';
        return text.length > 40 ? 'at most 40 letters' : setDonorWire(at(row), 'newName', text);
      },
    },
    {
      id: 'note',
      head: 'note',
      value: ({ wire }) => wire.note,
      cell: (row) => (
        <TextField
          label={`Note on donor wire ${row.name}`}
          value={row.wire.note}
          most={200}
          onChange={(note) => edit(setDonorWire(at(row), 'note', note))}
        />
      ),
      take: (row, text) => (text.length > 200 ? 'at most 200 letters' : setDonorWire(at(row), 'note', text)),
    },
  ];
}

const isChanged = ({ wire: { decision } }: Row) => decision === 'shorten' || decision === 'extend' || decision === 'repurpose';
