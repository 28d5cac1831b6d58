'use client';

import { Input, TextInput, type TextInputProps } from '@mantine/core';
import styles from './fields.module.css';
import { useQuantity, type Quantity } from './useQuantity';

/** A figure in a line or a table; typed in any unit of its kind. isLive: told at every letter, what is wrong as NaN; else when it is left. */
export function NumberField({
  label,
  placeholder,
  isWide = false,
  isLive = false,
  ...quantity
}: Quantity & { label: string; placeholder?: string | undefined; isWide?: boolean; isLive?: boolean }) {
  const { expected, input } = useQuantity(quantity, isLive);
  return (
    <Input
      variant="unstyled"
      classNames={{ wrapper: styles.wrapper!, input: `${styles.input} ${styles.figure} ${isWide ? styles.wide : ''}` }}
      aria-label={label}
      error={expected !== null}
      title={expected === null ? undefined : `expected ${expected}`}
      placeholder={placeholder ?? (quantity.canBeEmpty ? '–' : undefined)}
      {...input}
    />
  );
}

/** A figure in a dialog, with its name above it; the dialog keeps it. What is typed wrong is told as NaN, and says why. */
export function NumberEntry({
  label,
  value,
  unit,
  least,
  most,
  canBeEmpty,
  onChange,
  ...rest
}: Omit<Quantity, 'digits'> & { label: string } & Omit<TextInputProps, 'value' | 'onChange' | 'label' | 'error'>) {
  const { expected, input } = useQuantity({ value, unit, least, most, ...(canBeEmpty ? { canBeEmpty } : {}), onChange }, true);
  return <TextInput label={label} error={expected === null ? undefined : `expected ${expected}`} {...rest} {...input} />;
}
