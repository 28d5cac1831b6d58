'use client';

import { Popover } from '@mantine/core';
import { useEffect, useId, useRef, useState, type KeyboardEvent, type ReactNode } from 'react';
import styles from './Why.module.css';

/** a pointer that only passes opens nothing */
const OPEN_MS = 120;
const CLOSE_MS = 60;

/**
 * A computed figure that says why: on hover, focus or tap, with its formula, inputs and rule. Tables have hundreds of them, so what stands
 * behind one is made when it is opened.
 */
export function Why({ children, because }: { children: ReactNode; because: ReactNode }) {
  const [isOpen, setOpen] = useState(false);
  const id = useId();
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const turn = (open: boolean, ms = 0) => {
    clearTimeout(timer.current);
    if (ms === 0) setOpen(open);
    else timer.current = setTimeout(() => setOpen(open), ms);
  };
  useEffect(() => () => clearTimeout(timer.current), []);
  const press = (event: KeyboardEvent) => {
    if (event.key === 'Enter' || event.key === ' ') turn(true);
    else if (event.key === 'Escape' && isOpen) turn(false);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  return (
    <span
      className={styles.why}
      role="button"
      tabIndex={0}
      aria-expanded={isOpen}
      aria-describedby={isOpen ? id : undefined}
      onMouseEnter={() => turn(true, OPEN_MS)}
      onMouseLeave={() => turn(false, CLOSE_MS)}
      onFocus={({ currentTarget }) => currentTarget.matches(':focus-visible') && turn(true, OPEN_MS)}
      onBlur={() => turn(false, CLOSE_MS)}
      onClick={() => turn(true)}
      onKeyDown={press}
    >
      {children}
      {isOpen && (
        <Popover opened onChange={setOpen} shadow="none" position="bottom-start" width="max-content" withRoles={false}>
          <Popover.Target>
            <span className={styles.anchor} />
          </Popover.Target>
          <Popover.Dropdown id={id} role="tooltip" className={styles.card} onClick={(event) => event.stopPropagation()}>
            {because}
          </Popover.Dropdown>
        </Popover>
      )}
    </span>
  );
}
