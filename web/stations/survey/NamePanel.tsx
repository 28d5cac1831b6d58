'use client';

import { Input } from '@mantine/core';
import { useForm } from '@mantine/form';
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
  const taken = new Set(
    Object.values(job.looms[loomId]!.nodes).flatMap((node) => (node.kind === what ? [node.name.trim().toLowerCase()] : [])),
  );
  const form = useForm({
    initialValues: { name: '', bore: '' },
    validateInputOnChange: true,
    validate: {
      name: (name) => {
        if (taken.has(name.trim().toLowerCase())) return 'There is one of that name already. A second reading of it goes in under Runs.';
        return name.trim() ? null : 'expected a name';
      },
      bore: (bore) => {
        const mm = readLength(bore);
        return mm === null || (mm > 0 && mm <= 500) ? null : 'above 0, at most 500 mm';
      },
    },
  });
  const words = form.values.name.trim().toLowerCase();
  const devices = Object.entries(job.devices).filter(([, device]) => device.at === null && device.decision !== 'remove');
  const offered = devices.filter(([, device]) => device.name.toLowerCase().includes(words)).slice(0, 8);
  const exact = devices.find(([, device]) => device.name.toLowerCase() === words);
  const keep = ({ name, bore }: typeof form.values) =>
    onKeep(name.trim(), what === 'pass' ? readLength(bore) : null, what === 'end' ? (exact?.[0] ?? null) : null);
  return (
    <form className={styles.name} onSubmit={form.onSubmit(keep)}>
      <p>
        <b>{atMm} mm</b> {WORDS[what]}
      </p>
      <Input
        variant="unstyled"
        aria-label={`Name of the ${WORDS[what].toLowerCase()}`}
        placeholder="name"
        autoFocus
        autoComplete="off"
        maxLength={80}
        enterKeyHint="done"
        {...form.getInputProps('name')}
      />
      {form.errors.name && words !== '' && (
        <p role="alert" className={styles.problem}>
          {form.errors.name}
        </p>
      )}
      {what === 'pass' && (
        <label className={styles.bore}>
          Bore, mm
          <Input variant="unstyled" inputMode="decimal" placeholder="not known" {...form.getInputProps('bore')} />
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
        <button type="submit" className={styles.primary} disabled={!form.isValid()}>
          Keep
        </button>
      </div>
    </form>
  );
}
