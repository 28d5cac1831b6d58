'use client';

import { Select } from '@mantine/core';
import { useEffect, useReducer, useRef, useState, type KeyboardEvent } from 'react';
import styles from './Pick.module.css';

/** an option's value that stands for none; no id holds a space alone */
const NONE = ' ';
/** a list longer than this is typed into */
const MOST_UNSEARCHED = 12;

export interface PickOption<T extends string> {
  value: T;
  label: string;
  disabled?: boolean;
}

interface PickProps<T extends string> {
  label: string;
  value: T | null;
  options: readonly (T | PickOption<T>)[];
  /** words for none of them; left out where there must be one */
  none?: string | undefined;
  title?: string | undefined;
  disabled?: boolean;
  onChange: (value: T | null) => void;
}

/**
 * One of a list, dense enough for a row of a table. The list itself is made when it is opened: a table has hundreds of these, and a list is a
 * hundred times dearer than the words of what was chosen.
 */
export function Pick<T extends string>(props: PickProps<T>) {
  const { label, value, options, none, title, disabled = false } = props;
  const [isOpen, setOpen] = useState(false);
  const button = useRef<HTMLButtonElement>(null);
  const isBack = useRef(false);
  useEffect(() => {
    // focus comes back to where the list was opened, unless the user went on to something else
    if (isOpen || !isBack.current) return;
    isBack.current = false;
    button.current?.focus();
  }, [isOpen]);
  if (isOpen)
    return (
      <OpenPick
        {...props}
        onClose={(isHere) => {
          isBack.current = isHere;
          setOpen(false);
        }}
      />
    );
  const open = (event: KeyboardEvent) => {
    if (event.key !== 'ArrowDown' && event.key !== 'ArrowUp') return;
    event.preventDefault();
    event.stopPropagation();
    setOpen(true);
  };
  return (
    <button
      ref={button}
      type="button"
      role="combobox"
      aria-haspopup="listbox"
      aria-expanded={false}
      aria-label={label}
      title={title}
      className={styles.closed}
      disabled={disabled}
      onClick={() => setOpen(true)}
      onKeyDown={open}
    >
      {findLabel(options, value) ?? none ?? ''}
    </button>
  );
}

const findLabel = <T extends string>(options: readonly (T | PickOption<T>)[], value: T | null): string | undefined => {
  const one = options.find((option) => (typeof option === 'string' ? option : option.value) === value);
  return typeof one === 'object' ? one.label : one;
};

function OpenPick<T extends string>({
  label,
  value,
  options,
  none,
  onChange,
  onClose,
}: PickProps<T> & { onClose: (isHere: boolean) => void }) {
  const field = useRef<HTMLInputElement>(null);
  const [, drawAgain] = useReducer((times: number) => times + 1, 0);
  useEffect(() => {
    field.current?.focus();
    // the list gets its name after it is drawn, and its field has to say that name
    const frame = requestAnimationFrame(drawAgain);
    return () => cancelAnimationFrame(frame);
  }, []);
  const list = options.map((one) => (typeof one === 'string' ? { value: one as string, label: one as string } : one));
  const data = none === undefined ? list : [{ value: NONE, label: none }, ...list];
  const shown = data.find((one) => one.value === (value ?? NONE))?.label ?? '';
  return (
    <Select
      ref={field}
      variant="unstyled"
      classNames={{ root: styles.root!, input: styles.input!, section: styles.section!, option: styles.option! }}
      aria-label={label}
      data={data}
      value={value ?? (none === undefined ? null : NONE)}
      allowDeselect={false}
      searchable={data.length > MOST_UNSEARCHED}
      selectFirstOptionOnChange
      nothingFoundMessage="nothing of that name"
      defaultDropdownOpened
      onDropdownClose={() => onClose(document.activeElement === field.current)}
      onChange={(next) => {
        const chosen = next === NONE || next === null ? null : (next as T);
        if (chosen !== value) onChange(chosen);
      }}
      // as wide as what it says, within reason
      inputSize={String(Math.min(28, Math.max(4, shown.length + 1)))}
      comboboxProps={{ width: 'max-content', position: 'bottom-start', shadow: 'md' }}
      maxDropdownHeight={300}
      rightSectionWidth={16}
      rightSection={<span aria-hidden>▾</span>}
    />
  );
}
