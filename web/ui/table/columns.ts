import type { ReactNode } from 'react';
import { toCount, type Command } from 'wattograph-core';
import { checkQuantity, type Quantity } from '../fields/useQuantity';

/** One column of a table of rows R. */
export interface Column<R> {
  id: string;
  /** empty for what is done with a row: it has no name and cannot be hidden */
  head: string;
  /** what is sorted by, searched in and copied; a column without it is only shown */
  value?: (row: R) => string | number | null;
  /** what is shown; left out, the value is */
  cell?: (row: R) => ReactNode;
  isNumber?: boolean;
  className?: string | undefined;
  /** what text pasted here does: a change, words on what was expected, or null where nothing changes */
  take?: (row: R, text: string) => Command | string | null;
}

const toText = (value: string | number | null): string => (value === null ? '' : String(value).replace(/[\t\r\n]+/g, ' '));

/** Rows as tab-separated text with their head, as spreadsheets take it. */
export function toTsv<R>(columns: readonly Column<R>[], rows: readonly R[]): string {
  const told = columns.filter(({ value }) => value);
  return [told.map(({ head }) => head), ...rows.map((row) => told.map(({ value }) => toText(value!(row))))]
    .map((cells) => cells.join('\t'))
    .join('\n');
}

/** Order of two values: figures by size, words as people count (2 before 10), what is not known last. */
export function compareValues(a: string | number | null, b: string | number | null): number {
  if (a === null || a === '') return b === null || b === '' ? 0 : 1;
  if (b === null || b === '') return -1;
  if (typeof a === 'number' && typeof b === 'number') return a - b;
  return String(a).localeCompare(String(b), undefined, { numeric: true });
}

/** Does a row hold every word that is looked for, wherever? */
export function isFound<R>(columns: readonly Column<R>[], row: R, words: string): boolean {
  const text = columns
    .map(({ value }) => (value ? toText(value(row)) : ''))
    .join('\n')
    .toLowerCase();
  return words
    .toLowerCase()
    .split(/\s+/)
    .every((word) => text.includes(word));
}

/** What a block of pasted text does from a cell on: all of its changes, or the first thing that is wrong with it. */
export function readPaste<R>(
  text: string,
  columns: readonly Column<R>[],
  rows: readonly R[],
  from: { row: number; column: number },
): { commands: Command[] } | { problem: string } {
  const lines = text.replace(/\r\n?/g, '\n').replace(/\n$/, '').split('\n');
  if (from.row + lines.length > rows.length)
    return {
      problem: `Expected at most ${toCount(rows.length - from.row, 'line')} from this row on, got ${lines.length}. Nothing was taken.`,
    };
  const commands: Command[] = [];
  for (const [down, line] of lines.entries())
    for (const [right, cell] of line.split('\t').entries()) {
      const column = columns[from.column + right];
      const place = `Line ${down + 1}, ${column?.head || `column ${right + 1}`}`;
      if (!column?.take) return { problem: `${place}: nothing can be typed there. Nothing was taken.` };
      const taken = column.take(rows[from.row + down]!, cell.trim());
      if (typeof taken === 'string') return { problem: `${place}: expected ${taken}, got “${cell.trim()}”. Nothing was taken.` };
      if (taken) commands.push(taken);
    }
  return { commands };
}

/** What pasted text does where a figure stands: nothing if it is the same, words on what was expected if it is none. */
export function takeFigure(
  text: string,
  now: number | null,
  bounds: Pick<Quantity, 'unit' | 'least' | 'most' | 'canBeEmpty'>,
  set: (value: number | null) => Command | null,
): Command | string | null {
  const checked = checkQuantity(text, bounds);
  if ('expected' in checked) return checked.expected;
  return checked.value === now ? null : set(checked.value);
}
