'use client';

import { useDisclosure } from '@mantine/hooks';
import { useState } from 'react';
import {
  DONOR_DECISIONS,
  findStandard,
  listDonorDispositions,
  type Donor,
  type DonorDecision,
  type Job,
  decideDonorWire,
  setDonorWire,
} from 'wattograph-core';
import { useShop } from '../../client/shopContext';
import { useJobStore } from '../../client/jobContext';
import { TextField } from '../../ui/TextField';
import { LengthField } from '../bundle/LengthsTable';
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
          <select className={styles.pick} aria-label="Donor loom" value={donorId} onChange={(event) => setChosen(event.target.value)}>
            {ids.map((id) => (
              <option key={id} value={id}>
                {job.donors[id]!.name}
              </option>
            ))}
          </select>
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
          job={job}
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

function Open({ job, donorId, donor }: { job: Job; donorId: string; donor: Donor }) {
  const shop = useShop();
  const store = useJobStore();
  const ledger = listDonorDispositions(donor, Object.values(job.devices), findStandard(job, shop).leastOffcutMm);
  const wrong = new Map(ledger.problems.map(({ wireId, words }) => [wireId, words]));
  const orphans = new Map(ledger.orphans.map(({ wireId, device }) => [wireId, device]));
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
      <table className={styles.table}>
        <thead>
          <tr>
            <th>wire</th>
            <th>from</th>
            <th>to</th>
            <th>functions</th>
            <th>colour</th>
            <th>size</th>
            <th className={styles.num}>length mm</th>
            <th>decision</th>
            <th className={styles.num}>new length</th>
            <th>note</th>
          </tr>
        </thead>
        <tbody>
          {Object.entries(donor.wires).map(([id, wire]) => {
            const name = wire.number || id;
            const at = { donorId, wireId: id, number: name };
            const changes = wire.decision === 'shorten' || wire.decision === 'extend' || wire.decision === 'repurpose';
            return (
              <tr key={id} data-decision={wire.decision ?? 'none'}>
                <td className="mono">{name}</td>
                <td>
                  {wire.from} <span className="mono faint">{wire.fromPin}</span>
                </td>
                <td>
                  {wire.to} <span className="mono faint">{wire.toPin}</span>
                </td>
                <td>{wire.functions.join(', ')}</td>
                <td>{wire.colour}</td>
                <td className="mono">{wire.size}</td>
                <td className={styles.num}>
                  <LengthField
                    label={`Length of donor wire ${name}`}
                    optional
                    value={wire.lengthMm}
                    onChange={(value) => store.edit(setDonorWire(at, 'lengthMm', value))}
                  />
                </td>
                <td>
                  <select
                    className={styles.pick}
                    aria-label={`Decision on donor wire ${name}`}
                    value={wire.decision ?? ''}
                    onChange={(event) => {
                      const decision = (event.target.value || null) as DonorDecision | null;
                      store.edit(decideDonorWire(at, decision));
                    }}
                  >
                    <option value="">? undecided</option>
                    {DONOR_DECISIONS.map((one) => (
                      <option key={one} value={one}>
                        {WORDS[one]}
                      </option>
                    ))}
                  </select>
                  {wrong.has(id) && <span className={styles.alarm}> {wrong.get(id)}</span>}
                  {orphans.has(id) && <span className={styles.alarm}> leads to {orphans.get(id)}, which goes</span>}
                </td>
                <td className={styles.num}>
                  {changes && (
                    <LengthField
                      label={`New length of donor wire ${name}`}
                      optional
                      value={wire.newLengthMm}
                      onChange={(value) => store.edit(setDonorWire(at, 'newLengthMm', value))}
                    />
                  )}
                </td>
                <td>
                  <TextField
                    label={`Note on donor wire ${name}`}
                    value={wire.note}
                    most={200}
                    onChange={(note) => store.edit(setDonorWire(at, 'note', note))}
                  />
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </>
  );
}
