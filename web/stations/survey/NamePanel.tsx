'use client';

import { useState } from 'react';
import type { Job } from 'wattograph-core';
import { readLength } from '../../ui/fields/readLength';
import styles from './Survey.module.css';

const WORDS = { breakout: 'Breakout', pass: 'Hole', end: 'End' } as const;

/** The name of a mark; for an end also the devices of the brief that have no place yet, for a hole its bore. */
export function NamePanel({
  job,
  loomId,
  what,
  atMm,
  onKeep,
  onCancel,
}: {
  job: Job;
  loomId: string;
  what: keyof typeof WORDS;
  atMm: number;
  onKeep: (name: string, holeMm: number | null, deviceId: string | null) => void;
  onCancel: () => void;
}) {
  const [name, setName] = useState('');
  const [bore, setBore] = useState('');
  const words = name.trim().toLowerCase();
  const devices = Object.entries(job.devices).filter(([, device]) => device.at === null && device.decision !== 'remove');
  const offered = devices.filter(([, device]) => device.name.toLowerCase().includes(words)).slice(0, 8);
  const exact = devices.find(([, device]) => device.name.toLowerCase() === words);
  const isTaken = Object.values(job.looms[loomId]!.nodes).some((node) => node.kind === what && node.name.trim().toLowerCase() === words);
  const boreMm = readLength(bore);
  const isBoreGood = boreMm === null || (boreMm > 0 && boreMm <= 500);
  const isGood = name.trim() !== '' && !isTaken && isBoreGood;
  return (
    <form
      className={styles.name}
      onSubmit={(event) => {
        event.preventDefault();
        if (isGood) onKeep(name.trim(), what === 'pass' ? boreMm : null, what === 'end' ? (exact?.[0] ?? null) : null);
      }}
    >
      <p>
        <b>{atMm} mm</b> {WORDS[what]}
      </p>
      <input
        aria-label={`Name of the ${WORDS[what].toLowerCase()}`}
        placeholder="name"
        autoFocus
        autoComplete="off"
        maxLength={80}
        value={name}
        onChange={(event) => setName(event.target.value)}
        enterKeyHint="done"
      />
      {isTaken && (
        <p role="alert" className={styles.problem}>
          There is one of that name already. A second reading of it goes in under Runs.
        </p>
      )}
      {what === 'pass' && (
        <label className={styles.bore}>
          Bore, mm
          <input
            inputMode="decimal"
            value={bore}
            aria-invalid={!isBoreGood}
            onChange={(event) => setBore(event.target.value)}
            placeholder="not known"
          />
        </label>
      )}
      {what === 'end' && offered.length > 0 && (
        <div className={styles.chips} role="group" aria-label="Devices without a place">
          {offered.map(([id, device]) => (
            <button key={id} type="button" onClick={() => onKeep(device.name, null, id)}>
              {device.name}
            </button>
          ))}
        </div>
      )}
      <div className={styles.kinds}>
        <button type="button" onClick={onCancel}>
          Back
        </button>
        <button type="submit" className={styles.primary} disabled={!isGood}>
          Keep
        </button>
      </div>
    </form>
  );
}
