import { Input } from '@mantine/core';
import { useState } from 'react';
import { isPassing, toLimitWords, type ExpectedReading, type KnownReading } from 'wattograph-core';
import { readQuantity } from '../../ui/fields/readQuantity';
import styles from './Floor.module.css';

/** rows shown at once; a loom has hundreds of pairs */
const MOST_OPEN = 6;

/** What an item is proved by: each reading with its limit, what was read last, and a field for the next one. */
export function ItemReadings({
  reads,
  taken,
  instrument,
  onInstrument,
  onRead,
}: {
  reads: readonly ExpectedReading[];
  taken: readonly KnownReading[];
  /** with what is read now; empty: not said yet */
  instrument: string;
  onInstrument: (name: string) => void;
  onRead: (one: ExpectedReading, value: number) => void;
}) {
  const [isOpen, setOpen] = useState(false);
  const lastOf = (id: string) => taken.findLast(({ readId }) => readId === id);
  const read = reads.filter(({ id }) => lastOf(id));
  const failed = read.filter((one) => !isPassing(one, lastOf(one.id)!.value));
  if (!isOpen)
    return (
      <button className={styles.reads} aria-expanded={false} onClick={() => setOpen(true)}>
        {read.length} of {reads.length} {reads.length === 1 ? 'reading' : 'readings'}
        {failed.length > 0 && <b className={styles.failed}>, {failed.length} outside the limit</b>}
      </button>
    );
  // what is still to be read stands first
  const open = [...reads].sort((a, b) => Number(lastOf(a.id) !== undefined) - Number(lastOf(b.id) !== undefined));
  return (
    <div className={styles.readings}>
      <button className={styles.reads} aria-expanded onClick={() => setOpen(false)}>
        {read.length} of {reads.length} {reads.length === 1 ? 'reading' : 'readings'}: close
      </button>
      <label>
        read with{' '}
        <Input
          variant="unstyled"
          aria-label="Instrument"
          list="instruments"
          maxLength={80}
          value={instrument}
          placeholder="name or number of the instrument"
          onChange={(event) => onInstrument(event.target.value)}
        />
      </label>
      {instrument.trim() === '' && <p className={styles.failed}>A reading needs the instrument it was taken with.</p>}
      <ul aria-label="Readings">
        {open.slice(0, MOST_OPEN).map((one) => (
          <ReadingRow
            key={one.id}
            one={one}
            last={lastOf(one.id)}
            canRead={instrument.trim() !== ''}
            onRead={(value) => onRead(one, value)}
          />
        ))}
      </ul>
      {open.length > MOST_OPEN && <p className={styles.limit}>{open.length - MOST_OPEN} more follow as these are read.</p>}
    </div>
  );
}

function ReadingRow({
  one,
  last,
  canRead,
  onRead,
}: {
  one: ExpectedReading;
  last: KnownReading | undefined;
  canRead: boolean;
  onRead: (value: number) => void;
}) {
  const [typed, setTyped] = useState('');
  const value = readQuantity(typed, one.unit) ?? NaN;
  const isGood = Number.isFinite(value);
  const keep = () => {
    if (!isGood || !canRead) return;
    onRead(value);
    setTyped('');
  };
  return (
    <li>
      <span>
        {one.words} <small className={styles.limit}>{toLimitWords(one)}</small>
        {last && (
          <small className={isPassing(one, last.value) ? styles.limit : styles.failed}>
            {' '}
            read {last.value} {last.unit}, {last.instrument}, {last.author}
            {!isPassing(one, last.value) && ': outside the limit, mend it and read again'}
          </small>
        )}
      </span>
      <Input
        variant="unstyled"
        aria-label={`${one.words}, ${one.unit}`}
        inputMode="decimal"
        value={typed}
        onChange={(event) => setTyped(event.target.value)}
        onKeyDown={(event) => event.key === 'Enter' && keep()}
      />
      <span>{one.unit}</span>
      <button disabled={!isGood || !canRead} onClick={keep}>
        Keep
      </button>
    </li>
  );
}
