'use client';

import { useState } from 'react';
import styles from './TextField.module.css';

/** Words kept when the field is left or Enter is pressed, so that one change is one edit; Escape leaves them as they were. */
export function TextField({
  label,
  value,
  onChange,
  most,
  required = false,
  placeholder,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  most: number;
  required?: boolean;
  placeholder?: string;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value;
  const isGood = !required || shown.trim() !== '';
  const keep = () => {
    if (text !== null && isGood && text.trim() !== value) onChange(text.trim());
    setText(null);
  };
  return (
    <input
      className={styles.field}
      aria-label={label}
      aria-invalid={!isGood}
      maxLength={most}
      placeholder={placeholder}
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
