'use client';

import { useEffect, useState } from 'react';
import { request, RequestError } from '../../client/request';
import type { Person } from '../../server/accounts/rights';
import styles from './Accounts.module.css';

const LEAST = 4;
const MOST = 8;
const DIGITS = ['1', '2', '3', '4', '5', '6', '7', '8', '9'];

/** Digits of a person, by touch or by keys, on a device of the shop. */
export function PinPad({ person, onIn }: { person: Person; onIn: (person: Person) => void }) {
  const [digits, setDigits] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const add = (digit: string) => setDigits((now) => (now.length < MOST ? now + digit : now));
  const open = async () => {
    if (digits.length < LEAST || busy) return;
    setBusy(true);
    setProblem(null);
    try {
      onIn(await request<Person>('/api/accounts/pin', { personId: person.id, pin: digits }));
    } catch (error) {
      if (!(error instanceof RequestError)) throw error;
      setProblem(error.message);
    } finally {
      setDigits('');
      setBusy(false);
    }
  };
  useEffect(() => {
    const type = (event: KeyboardEvent) => {
      if (/^\d$/.test(event.key)) add(event.key);
      else if (event.key === 'Backspace') setDigits((now) => now.slice(0, -1));
      else if (event.key === 'Enter') void open();
      else return;
      event.preventDefault();
    };
    window.addEventListener('keydown', type);
    return () => window.removeEventListener('keydown', type);
  });
  return (
    <div role="group" aria-label={`Digits of ${person.name}`}>
      <div className={styles.dots} role="img" aria-label={`${digits.length} digits typed`}>
        {'•'.repeat(digits.length)}
      </div>
      {problem && (
        <p className={styles.wrong} role="alert">
          {problem}
        </p>
      )}
      <div className={styles.pad}>
        {DIGITS.map((digit) => (
          <button key={digit} type="button" className={styles.key} onClick={() => add(digit)}>
            {digit}
          </button>
        ))}
        <button
          type="button"
          className={styles.key}
          aria-label="Take the last digit back"
          onClick={() => setDigits((now) => now.slice(0, -1))}
        >
          ←
        </button>
        <button type="button" className={styles.key} onClick={() => add('0')}>
          0
        </button>
        <button
          type="button"
          className={`${styles.key} ${styles.open}`}
          disabled={digits.length < LEAST || busy}
          onClick={() => void open()}
        >
          Open
        </button>
      </div>
    </div>
  );
}
