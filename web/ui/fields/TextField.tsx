'use client';

import { Input } from '@mantine/core';
import { useState } from 'react';
import styles from './fields.module.css';

/** Words kept when the field is left or Enter is pressed, so that one change is one edit; Escape leaves them as they were. */
export function TextField({
  label,
  value,
  onChange,
  most,
  required = false,
  placeholder,
  id,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  most: number;
  required?: boolean;
  placeholder?: string;
  id?: string;
}) {
  const [text, setText] = useState<string | null>(null);
  const shown = text ?? value;
  const isGood = !required || shown.trim() !== '';
  const keep = () => {
    if (text !== null && isGood && text.trim() !== value) onChange(text.trim());
    setText(null);
  };
  return (
    <Input
      variant="unstyled"
      classNames={{ wrapper: styles.wrapperFull!, input: styles.input! }}
      id={id}
      aria-label={label}
      error={!isGood}
      title={isGood ? undefined : 'expected a word or more'}
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

/** Words that a form around it keeps. */
export function Words({
  label,
  value,
  onChange,
  most,
  placeholder,
  isShort = false,
  isWrong = false,
}: {
  label: string;
  value: string;
  onChange: (value: string) => void;
  most: number;
  placeholder?: string;
  isShort?: boolean;
  isWrong?: boolean;
}) {
  return (
    <Input
      variant="unstyled"
      classNames={{ wrapper: isShort ? styles.wrapper! : styles.wrapperFull!, input: `${styles.input} ${isShort ? styles.short : ''}` }}
      aria-label={label}
      error={isWrong}
      maxLength={most}
      placeholder={placeholder}
      value={value}
      onChange={(event) => onChange(event.currentTarget.value)}
    />
  );
}
