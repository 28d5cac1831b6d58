'use client';

import { notifications } from '@mantine/notifications';
import { Table } from '@mantine/core';
import { useLocalStorage } from '@mantine/hooks';
import { getCoreRowModel, getFilteredRowModel, getSortedRowModel, useReactTable, type SortingState } from '@tanstack/react-table';
import { useVirtualizer } from '@tanstack/react-virtual';
import {
  createContext,
  memo,
  useContext,
  useEffect,
  useMemo,
  useRef,
  useState,
  type ClipboardEvent,
  type HTMLAttributes,
  type ReactNode,
} from 'react';
import { createPortal } from 'react-dom';
import { toCount, type Command } from 'wattograph-core';
import { copyText } from './copyText';
import { compareValues, isFound, readPaste, toTsv, type Column } from './columns';
import styles from './DataTable.module.css';
import { TableTools } from './TableTools';
import { findPlace, walk } from './walkTable';

/** more rows than these are drawn only where they are seen */
const MOST_DRAWN = 30;
/** as high as a row of one line is drawn (DataTable.module.css): a guess that is off moves rows under the pointer */
const ROW_PX = 26;

/** Where the tools of a table go: into the line of tabs above it, where there is one; else they have a line of their own. */
export const ToolsSlot = createContext<HTMLElement | null>(null);

export interface DataTableProps<R> {
  /** under which the choice of columns is remembered */
  name: string;
  label: string;
  rows: readonly R[];
  columns: readonly Column<R>[];
  keyOf: (row: R) => string;
  /** heading that a row stands under, as long as nothing else is sorted by; rows of one heading follow each other */
  groupOf?: (row: R) => string;
  /** what is open below a row */
  detail?: (row: R) => ReactNode;
  isHere?: (row: R) => boolean;
  onPick?: (row: R) => void;
  rowProps?: (row: R) => HTMLAttributes<HTMLTableRowElement> & { [data: `data-${string}`]: unknown };
  /** a row to be brought into view */
  seek?: string | null;
  /** every row stands on one line, cut off rather than wrapped: none need be measured */
  isEven?: boolean;
  /** changes that were pasted together, to be one step of undo */
  onTake?: (commands: Command[]) => void;
  /** who looks for rows himself, in what he knows of them: the field asks him, and the table takes the rows it is given */
  search?: { words: string; onWords: (words: string) => void; label: string; placeholder: string; of: number };
  /** what stands in the line of the tools */
  children?: ReactNode;
  /** what is shown where there are no rows at all */
  empty?: ReactNode;
}

type Item<R> = { key: string } & (
  { kind: 'group'; words: string } | { kind: 'row'; row: R; at: number } | { kind: 'detail'; body: ReactNode }
);

/** A table of the trade: sorts, filters, hides columns, is walked with arrows, copied and pasted as a spreadsheet would. */
export function DataTable<R>(props: DataTableProps<R>) {
  const { name, label, rows, columns, keyOf, groupOf, detail, isHere, seek = null, isEven = false, empty } = props;
  const [sorting, setSorting] = useState<SortingState>([]);
  const [own, setOwn] = useState('');
  const { words, onWords, of } = props.search ?? { words: own, onWords: setOwn, of: rows.length };
  const [problem, setProblem] = useState<string | null>(null);
  const [hidden, setHidden] = useLocalStorage<string[]>({ key: `wattograph.columns.${name}`, defaultValue: [] });
  const scroll = useRef<HTMLDivElement>(null);
  const slot = useContext(ToolsSlot);
  const shown = useMemo(() => columns.filter(({ id, head }) => head === '' || !hidden.includes(id)), [columns, hidden]);
  // most of the time nothing is sorted or looked for: then the rows are what is shown, and the table need not go through them
  const isPlain = sorting.length === 0 && own.trim() === '';
  const data = useMemo(() => (isPlain ? [] : [...rows]), [isPlain, rows]);
  const table = useReactTable<R>({
    data,
    columns: useMemo(
      () =>
        columns.map(({ id, value }) => ({
          id,
          accessorFn: (row: R) => value?.(row) ?? null,
          enableSorting: value !== undefined,
          sortUndefined: false,
          sortDescFirst: false,
          sortingFn: (a, b, column) => compareValues(a.getValue(column), b.getValue(column)),
        })),
      [columns],
    ),
    state: { sorting, globalFilter: own.trim() },
    onSortingChange: setSorting,
    // there are no pages to go back to: else each change of the rows would draw the table once more
    autoResetAll: false,
    // a row is looked through as a whole, once
    getColumnCanGlobalFilter: ({ id }) => id === columns[0]!.id,
    globalFilterFn: (row, _column, looked: string) => isFound(columns, row.original, looked),
    getRowId: keyOf,
    getCoreRowModel: getCoreRowModel(),
    getFilteredRowModel: getFilteredRowModel(),
    getSortedRowModel: getSortedRowModel(),
  });
  const model = table.getRowModel().rows;
  const found = useMemo(() => (isPlain ? rows : model.map(({ original }) => original)), [isPlain, rows, model]);
  const isGrouped = groupOf !== undefined && sorting.length === 0;
  const items: Item<R>[] = [];
  for (const [at, row] of found.entries()) {
    const key = keyOf(row);
    const group = isGrouped ? groupOf(row) : null;
    if (group !== null && (at === 0 || groupOf!(found[at - 1]!) !== group))
      items.push({ key: `group ${group}`, kind: 'group', words: group });
    items.push({ key, kind: 'row', row, at });
    const body = detail?.(row);
    if (body) items.push({ key: `detail ${key}`, kind: 'detail', body });
  }
  const window = useWindow(items, scroll, seek, isEven);
  if (of === 0) return empty ?? null;

  const copy = (event: ClipboardEvent) => {
    const field = event.target instanceof HTMLInputElement || event.target instanceof HTMLTextAreaElement;
    if (field || getSelection()?.toString()) return;
    event.preventDefault();
    event.clipboardData.setData('text/plain', toTsv(shown, found));
  };
  const paste = (event: ClipboardEvent) => {
    const text = event.clipboardData.getData('text/plain');
    const place = findPlace(event.target, scroll.current);
    if (!props.onTake || !place || !/[\t\n]/.test(text.trim())) return;
    event.preventDefault();
    const column = shown.findIndex(({ id }) => id === place.column);
    const taken = readPaste(text, shown, found, { row: place.row, column });
    setProblem('problem' in taken ? taken.problem : null);
    if ('commands' in taken && taken.commands.length > 0) props.onTake(taken.commands);
  };
  const tools = (
    <TableTools
      columns={columns}
      hidden={hidden}
      onHide={setHidden}
      words={words}
      onWords={onWords}
      field={props.search}
      count={found.length === of ? null : `${found.length} of ${of}`}
      onCopy={() => {
        copyText(toTsv(shown, found));
        notifications.show({ message: `${toCount(found.length, 'row')} copied, as a spreadsheet takes them`, autoClose: 2500 });
      }}
    />
  );
  return (
    <div className={styles.frame}>
      {slot ? (
        <>
          {createPortal(tools, slot)}
          {props.children && (
            <div className={styles.bar}>
              <div className={styles.own}>{props.children}</div>
            </div>
          )}
        </>
      ) : (
        <div className={styles.bar}>
          <div className={styles.own}>{props.children}</div>
          {tools}
        </div>
      )}
      {problem && (
        <p role="alert" className={styles.problem}>
          {problem}
        </p>
      )}
      <div
        ref={scroll}
        className={styles.scroll}
        data-even={isEven || undefined}
        tabIndex={0}
        role="group"
        aria-label={label}
        onCopy={copy}
        onPaste={paste}
        onKeyDown={(event) => walk(event, scroll.current, window.bring)}
      >
        <Table className={styles.table} aria-label={label} aria-rowcount={found.length + 1} withRowBorders={false} unstyled>
          <Table.Thead>
            <Table.Tr>
              {shown.map((column) => (
                <Head
                  key={column.id}
                  column={column}
                  sorted={sorting[0]?.id === column.id ? (sorting[0].desc ? 'descending' : 'ascending') : 'none'}
                  onSort={() => table.getColumn(column.id)?.toggleSorting()}
                />
              ))}
            </Table.Tr>
          </Table.Thead>
          <Table.Tbody>
            <Gap px={window.before} />
            {window.seen.map(({ item, index }) =>
              item.kind === 'group' ? (
                <tr key={item.key} ref={window.measure} data-index={index}>
                  <th colSpan={shown.length} className={styles.group} scope="rowgroup">
                    {item.words}
                  </th>
                </tr>
              ) : item.kind === 'detail' ? (
                <tr key={item.key} ref={window.measure} data-index={index}>
                  <td colSpan={shown.length}>{item.body}</td>
                </tr>
              ) : (
                <DataRow
                  key={item.key}
                  row={item.row}
                  at={item.at}
                  index={index}
                  columns={shown as readonly Column<unknown>[]}
                  isHere={isHere?.(item.row) ?? false}
                  onPick={props.onPick as ((row: unknown) => void) | undefined}
                  rowProps={props.rowProps as ((row: unknown) => HTMLAttributes<HTMLTableRowElement>) | undefined}
                  measure={window.measure}
                />
              ),
            )}
            <Gap px={window.after} />
          </Table.Tbody>
        </Table>
        {found.length === 0 && (
          <p className={styles.none}>
            Nothing here has “{words.trim()}” in it.{' '}
            <button type="button" className={styles.head} onClick={() => onWords('')}>
              <span>Show all {of}</span>
            </button>
          </p>
        )}
      </div>
    </div>
  );
}

/** The items in view, with the room of those before and after; all of them where they are few. */
function useWindow<R>(items: readonly Item<R>[], scroll: React.RefObject<HTMLDivElement | null>, seek: string | null, isEven: boolean) {
  const isWindowed = items.length > MOST_DRAWN;
  const virtual = useVirtualizer({
    count: items.length,
    enabled: isWindowed,
    getScrollElement: () => scroll.current,
    getItemKey: (index) => items[index]!.key,
    estimateSize: () => ROW_PX,
    overscan: 6,
    scrollPaddingStart: ROW_PX,
  });
  const at = seek === null ? -1 : items.findIndex(({ key }) => key === seek);
  useEffect(() => {
    if (at < 0) return;
    if (isWindowed) virtual.scrollToIndex(at, { align: 'auto' });
    else scroll.current?.querySelector(`[data-index="${at}"]`)?.scrollIntoView({ block: 'nearest' });
    // the virtualizer is another with each drawing; only what is sought or its new place moves the table
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [at, seek]);
  const bring = (row: number) => {
    const index = items.findIndex((item) => item.kind === 'row' && item.at === row);
    if (index >= 0 && isWindowed) virtual.scrollToIndex(index, { align: 'auto' });
  };
  if (!isWindowed) return { seen: items.map((item, index) => ({ item, index })), before: 0, after: 0, measure: undefined, bring };
  const seen = virtual.getVirtualItems();
  return {
    seen: seen.map(({ index }) => ({ item: items[index]!, index })),
    before: seen[0]?.start ?? 0,
    after: seen.length ? virtual.getTotalSize() - seen.at(-1)!.end : 0,
    measure: isEven ? undefined : virtual.measureElement,
    bring,
  };
}

const Gap = ({ px }: { px: number }) =>
  px > 0 ? (
    <tr style={{ height: px }} aria-hidden>
      <td />
    </tr>
  ) : null;

function Head<R>({ column, sorted, onSort }: { column: Column<R>; sorted: 'ascending' | 'descending' | 'none'; onSort: () => void }) {
  const place = column.isNumber ? styles.num : undefined;
  if (!column.value || !column.head) return <th className={place}>{column.head}</th>;
  return (
    <th className={place} aria-sort={sorted}>
      <button
        type="button"
        className={styles.head}
        onClick={onSort}
        title={sorted === 'none' ? 'sort' : sorted === 'ascending' ? 'turn around' : 'as it was'}
      >
        {column.head}
        {sorted !== 'none' && <span aria-hidden> {sorted === 'ascending' ? '↑' : '↓'}</span>}
      </button>
    </th>
  );
}

/** Drawn anew only for another row, other columns, or when it is the one in question. */
const DataRow = memo(function DataRow({
  row,
  at,
  index,
  columns,
  isHere,
  onPick,
  rowProps,
  measure,
}: {
  row: unknown;
  at: number;
  index: number;
  columns: readonly Column<unknown>[];
  isHere: boolean;
  onPick: ((row: unknown) => void) | undefined;
  rowProps: ((row: unknown) => HTMLAttributes<HTMLTableRowElement>) | undefined;
  measure: ((element: Element | null) => void) | undefined;
}) {
  return (
    <tr
      ref={measure}
      tabIndex={-1}
      aria-rowindex={at + 2}
      data-row={at}
      data-index={index}
      data-here={isHere}
      onClick={onPick && (() => onPick(row))}
      {...rowProps?.(row)}
    >
      {columns.map(({ id, cell, value, isNumber, className }) => (
        <td key={id} data-column={id} className={[isNumber ? styles.num : '', className ?? ''].join(' ')}>
          {cell ? cell(row) : (value?.(row) ?? '')}
        </td>
      ))}
    </tr>
  );
});
