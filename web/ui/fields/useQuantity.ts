import { useState, type ChangeEvent, type KeyboardEvent } from 'react';
import { readQuantity, toRound, type Unit } from './readQuantity';

export interface Quantity {
  value: number | null;
  /** that it is kept in and may be typed in others of; null: a plain number */
  unit: Unit | null;
  least: number;
  most: number;
  /** empty means not known */
  canBeEmpty?: boolean;
  /** decimals that are shown */
  digits?: number;
  onChange: (value: number | null) => void;
}

/** Words on what a field takes. */
export const toExpected = ({ unit, least, most }: Pick<Quantity, 'unit' | 'least' | 'most'>): string =>
  `${Number.isFinite(most) ? `${least} to ${most}${unit === null ? '' : ` ${unit}`}` : `a figure${unit === null ? '' : ` in ${unit}`}`}${unit === 'mm' ? '; 1.2 m, 3/4 in and the like too' : ''}`;

/** A figure, checked against what it is expected to be; what is wrong is said and not kept. */
export function checkQuantity(
  text: string,
  { unit, least, most, canBeEmpty = false }: Pick<Quantity, 'unit' | 'least' | 'most' | 'canBeEmpty'>,
): { value: number | null } | { expected: string } {
  const read = readQuantity(text, unit);
  if (read === null) return canBeEmpty ? { value: null } : { expected: toExpected({ unit, least, most }) };
  const value = toRound(read);
  return value >= least && value <= most ? { value } : { expected: toExpected({ unit, least, most }) };
}

/**
 * A field that a figure is typed into. It is kept when the field is left or Enter is pressed, so that one change is one edit; Escape leaves it
 * as it was. In a dialog, where Keep keeps, it is told at each letter, and what is wrong is told as NaN: a dialog is not kept with one.
 */
export function useQuantity(quantity: Quantity, isLive = false) {
  const { value, digits, onChange } = quantity;
  const [text, setText] = useState<string | null>(null);
  const shown =
    text ?? (value === null || Number.isNaN(value) ? '' : String(digits === undefined ? toRound(value) : Number(value.toFixed(digits))));
  const checked = checkQuantity(shown, quantity);
  const isGood = 'value' in checked;
  const keep = () => {
    if (text !== null && 'value' in checked && checked.value !== value) onChange(checked.value);
    // what is wrong stays to be seen where a dialog is kept later
    if (isGood || !isLive) setText(null);
  };
  return {
    expected: 'value' in checked || (isLive && text === null) ? null : checked.expected,
    input: {
      inputMode: 'decimal' as const,
      value: shown,
      onChange: (event: ChangeEvent<HTMLInputElement>) => {
        setText(event.currentTarget.value);
        if (!isLive) return;
        const next = checkQuantity(event.currentTarget.value, quantity);
        onChange('value' in next ? next.value : NaN);
      },
      onBlur: keep,
      onKeyDown: (event: KeyboardEvent<HTMLInputElement>) => {
        if (isLive) return;
        if (event.key === 'Enter') event.currentTarget.blur();
        if (event.key === 'Escape' && text !== null) {
          setText(null);
          event.stopPropagation();
        }
      },
    },
  };
}
