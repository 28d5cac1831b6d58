'use client';

import styles from './Survey.module.css';

const KEYS = ['7', '8', '9', '4', '5', '6', '1', '2', '3', '.', '0', '⌫'] as const;

/** Digits large enough for gloves. The text it writes is checked where it is used. */
export function Keypad({ value, onChange }: { value: string; onChange: (value: string) => void }) {
  return (
    <div className={styles.keypad}>
      {KEYS.map((key) => (
        <button key={key} aria-label={key === '⌫' ? 'Take back' : key} onClick={() => onChange(typeKey(value, key))}>
          {key}
        </button>
      ))}
    </div>
  );
}

/** The text after a key: at most five digits before the point and one after, never two points. */
export function typeKey(value: string, key: string): string {
  if (key === '⌫' || key === 'Backspace') return value.slice(0, -1);
  const next = value + key.replace(',', '.');
  return /^\d{0,5}(\.\d?)?$/.test(next) ? next : value;
}
