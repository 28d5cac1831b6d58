import type { KeyboardEvent } from 'react';

/** Row and column that an element lies in. */
export function findPlace(target: EventTarget | null, frame: HTMLElement | null): { row: number; column: string | null } | null {
  if (!(target instanceof Element) || !frame?.contains(target)) return null;
  const row = target.closest<HTMLElement>('tr[data-row]');
  return row && { row: Number(row.dataset.row), column: target.closest<HTMLElement>('td[data-column]')?.dataset.column ?? null };
}

const FIELD = 'input:not([disabled]), button:not([disabled]), select, [tabindex="0"]';

/** Up and down go to the same column of the next row, Enter on a row picks it; lists that are open keep their arrows. */
export function walk(event: KeyboardEvent, frame: HTMLElement | null, bring: (row: number) => void) {
  const { target, key } = event;
  if (!frame || event.defaultPrevented || event.altKey || event.ctrlKey || event.metaKey) return;
  if (target instanceof HTMLElement && target.matches('[aria-haspopup="listbox"], [role="combobox"], textarea')) return;
  const place = findPlace(target, frame);
  if (key === 'Enter' && target instanceof HTMLTableRowElement) return target.click();
  if (key !== 'ArrowDown' && key !== 'ArrowUp') return;
  if (!place && target !== frame) return;
  const to = place ? place.row + (key === 'ArrowDown' ? 1 : -1) : 0;
  const go = () => {
    const row = frame.querySelector<HTMLElement>(`tr[data-row="${to}"]`);
    const cell = place?.column ? row?.querySelector<HTMLElement>(`td[data-column="${place.column}"]`) : null;
    const next = cell?.querySelector<HTMLElement>(FIELD) ?? row;
    next?.focus();
    if (next instanceof HTMLInputElement) next.select();
    return next !== null && next !== undefined;
  };
  if (to < 0) return;
  event.preventDefault();
  bring(to);
  if (!go()) requestAnimationFrame(go);
}
