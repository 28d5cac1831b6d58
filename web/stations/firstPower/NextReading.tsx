import { Button, Input } from '@mantine/core';
import { useState } from 'react';
import { type FirstPower, type JudgedTest, type PowerProof } from 'wattograph-core';
import { readQuantity, isUnit } from '../../ui/fields/readQuantity';
import styles from '../prove/Prove.module.css';
import { PART_HINTS, PART_WORDS, toBandWords, toPowerWords } from './powerWords';

/** One thing to read, in type that is seen from beside the vehicle: how it stands, where the probe goes, what passes, what may hurt. */
export function NextReading({
  sheet,
  judged,
  canRead,
  why,
  last,
  onRead,
  onLeave,
}: {
  sheet: FirstPower;
  judged: JudgedTest;
  canRead: boolean;
  /** why nothing can be read in */
  why: string;
  last: PowerProof | null;
  onRead: (value: number) => void;
  onLeave: (() => void) | null;
}) {
  const [typed, setTyped] = useState('');
  const { test } = judged;
  const { unit } = test;
  const isOpen = /^(ol|open)$/i.test(typed.trim()) && (unit === 'Ω' || unit === 'mΩ');
  const value = isOpen ? OPEN : ((isUnit(unit) ? readQuantity(typed, unit) : null) ?? NaN);
  const isGood = Number.isFinite(value) && (value >= 0 || unit === '°C' || unit === 'V');
  const state = sheet.states.find(({ id }) => id === test.stateId);
  const limitA = sheet.limitA[test.id] ?? state?.limitA ?? null;
  return (
    <section aria-label="Next reading" className={styles.next}>
      <h2>{PART_WORDS[test.part]}</h2>
      <p className={styles.last}>{PART_HINTS[test.part]}</p>
      {state && (
        <p className={styles.lead}>
          <b>{state.name}</b>
          {state.settings.length > 0 && <> · {state.settings.map((one) => `${one.name} ${SET_WORDS[one.state]}`).join(', ')}</>}
        </p>
      )}
      <p className={styles.probeWords}>{test.words}</p>
      {test.note !== '' && <p className={styles.last}>{test.note}</p>}
      {test.hazard !== '' && <p className={styles.caution}>{test.hazard}</p>}
      {limitA !== null && (
        <p className={styles.last}>
          supply limited to <b className="mono">{limitA.toFixed(2)} A</b>
          {unit === 'A' && ' above what flows already'}
        </p>
      )}
      <p className={styles.pass}>
        {test.expected !== null && unit !== 'look' && <>expected {toPowerWords(test.expected, unit)}, </>}
        passes: {toBandWords(judged)}
      </p>
      {unit === 'look' ? (
        <div className={styles.entry}>
          <Button size="lg" disabled={!canRead} onClick={() => onRead(1)}>
            As said
          </Button>
          <Button size="lg" variant="default" disabled={!canRead} onClick={() => onRead(0)}>
            Not so
          </Button>
          <Leave onLeave={onLeave} />
        </div>
      ) : (
        <form
          className={styles.entry}
          onSubmit={(event) => {
            event.preventDefault();
            if (isGood && canRead) onRead(value);
          }}
        >
          <Input
            variant="unstyled"
            autoFocus
            aria-label={`Reading, ${unit}`}
            inputMode="decimal"
            placeholder={unit === 'Ω' ? '47 k, OL' : unit}
            value={typed}
            onChange={(event) => setTyped(event.target.value)}
          />
          <span>{unit}</span>
          <Button type="submit" size="md" disabled={!isGood || !canRead}>
            Keep
          </Button>
          <Leave onLeave={onLeave} />
        </form>
      )}
      {!canRead && <p className={styles.alarm}>{why}</p>}
      {last && (
        <p className={styles.last}>
          last read {toPowerWords(last.value, unit)} with {last.instrument} by {last.author}
          {last.voidBecause !== null && `; void: ${last.voidBecause}`}
        </p>
      )}
    </section>
  );
}

const OPEN = 1_000_000;

const SET_WORDS = { open: 'open', closed: 'closed', momentary: 'held', unsaid: 'not said' } as const;

const Leave = ({ onLeave }: { onLeave: (() => void) | null }) =>
  onLeave && (
    <Button size="md" variant="subtle" onClick={onLeave}>
      Leave it
    </Button>
  );
