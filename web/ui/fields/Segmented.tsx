import type { ReactNode } from 'react';
import controls from '../controls.module.css';

/** One of a few, as buttons in a row. */
export function Segmented<T extends string | number | null>({
  label,
  options,
  value,
  onChange,
}: {
  label: string;
  options: readonly { value: T; words: ReactNode; isAlarm?: boolean }[];
  value: T;
  onChange: (value: T) => void;
}) {
  return (
    <div className={controls.choice} role="group" aria-label={label}>
      {options.map(({ value: one, words, isAlarm }) => (
        <button
          type="button"
          key={String(one)}
          aria-pressed={one === value}
          onClick={() => onChange(one)}
          className={isAlarm ? controls.alarm : ''}
        >
          {words}
        </button>
      ))}
    </div>
  );
}
