'use client';

import { useState } from 'react';

/** A figure kept when the field is left or Enter is pressed; Escape leaves it as it was. Empty means not known where that is allowed. */
export function NumberField({
  label,
  value,
  least,
  most,
  canBeEmpty = false,
  className,
  onChange,
}: {
  label: string;
  value: number | null;
  least: number;
  most: number;
  canBeEmpty?: boolean;
  className: string | undefined;
  onChange: (value: number | null) => void;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? (value === null ? '' : String(value));
  const number = Number(shown.replace(',', '.'));
  const isGood = shown.trim() === '' ? canBeEmpty : Number.isFinite(number) && number >= least && number <= most;
  const keep = () => {
    const next = shown.trim() === '' ? null : number;
    if (text !== null && isGood && next !== value) onChange(next);
    setText(null);
  };
  return (
    <input
      className={className}
      aria-label={label}
      aria-invalid={!isGood}
      title={isGood ? undefined : `expected ${least} to ${most}`}
      inputMode="decimal"
      value={shown}
      onChange={(event) => setText(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => {
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape') {
          setText(null);
          event.stopPropagation();
        }
      }}
    />
  );
}
