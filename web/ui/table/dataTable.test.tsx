import { MantineProvider } from '@mantine/core';
import { act, createEvent, fireEvent, render, screen, within } from '@testing-library/react';
import { useState } from 'react';
import { createCommand, type Command } from 'wattograph-core';
import { press } from '../../testing/act';
import { NumberField } from '../fields/NumberField';
import { compareValues, readPaste, toTsv, type Column } from './columns';
import { DataTable } from './DataTable';

interface Row {
  id: string;
  name: string;
  mm: number | null;
  kind: string;
}
const ROWS: Row[] = [
  { id: 'a', name: 'leg 10', mm: 200, kind: 'leg' },
  { id: 'b', name: 'leg 2', mm: null, kind: 'leg' },
  { id: 'c', name: 'trunk', mm: 90, kind: 'run' },
];
const toMm = (row: Row, mm: number) => createCommand(`${row.id} ${mm}`, () => undefined);
const COLUMNS: Column<Row>[] = [
  { id: 'name', head: 'run', value: ({ name }) => name },
  {
    id: 'mm',
    head: 'length',
    isNumber: true,
    value: ({ mm }) => mm,
    cell: ({ id, mm }) => (
      <NumberField label={`length of ${id}`} value={mm} unit="mm" least={1} most={500} canBeEmpty onChange={() => undefined} />
    ),
    take: (row, text) => (Number(text) > 0 ? toMm(row, Number(text)) : 'a length'),
  },
  { id: 'kind', head: 'kind', value: ({ kind }) => kind },
  { id: 'do', head: '', cell: () => <button>strike</button> },
];

function Show({ onTake, ...rest }: { onTake?: (commands: Command[]) => void; groupOf?: (row: Row) => string; rows?: Row[] }) {
  const [picked, setPicked] = useState('');
  return (
    <MantineProvider env="test">
      <DataTable
        name="test"
        label="Runs"
        rows={rest.rows ?? ROWS}
        columns={COLUMNS}
        keyOf={({ id }) => id}
        onPick={({ id }) => setPicked(id)}
        empty={<p>none yet</p>}
        {...(onTake ? { onTake } : {})}
        {...rest}
      />
      <output>{picked}</output>
    </MantineProvider>
  );
}
const names = () =>
  screen
    .getAllByRole('row')
    .slice(1)
    .map((row) => within(row).queryAllByRole('cell')[0]?.textContent ?? within(row).getByRole('rowheader').textContent);
const heads = () => screen.getAllByRole('columnheader').map(({ textContent }) => textContent);
beforeEach(() => localStorage.clear());

describe('a table', () => {
  test('sorts by figure or as people count, what is not known last, and back', () => {
    render(<Show />);
    press('length');
    expect(names()).toEqual(['trunk', 'leg 10', 'leg 2']);
    press(/^length/);
    expect(screen.getByRole('columnheader', { name: /length/ }).getAttribute('aria-sort')).toBe('descending');
    press(/^length/);
    expect(names()).toEqual(['leg 10', 'leg 2', 'trunk']);
    press('run');
    expect(names()).toEqual(['leg 2', 'leg 10', 'trunk']);
  });
  test('finds rows by any of its words, says how many, and shows all again', () => {
    render(<Show />);
    fireEvent.change(screen.getByLabelText('Filter the table'), { target: { value: 'LEG 10' } });
    expect([names(), screen.getByText('1 of 3')]).toEqual([['leg 10'], expect.anything()]);
    fireEvent.change(screen.getByLabelText('Filter the table'), { target: { value: 'zebra' } });
    expect(screen.getByText(/Nothing here has “zebra” in it/)).toBeTruthy();
    press('Show all 3');
    expect(names()).toHaveLength(3);
  });
  test('hides a column, and remembers that', () => {
    const { unmount } = render(<Show />);
    press('Choose columns');
    fireEvent.click(screen.getByRole('menuitemcheckbox', { name: /kind/ }));
    expect(heads()).toEqual(['run', 'length', '']);
    unmount();
    render(<Show />);
    expect(heads()).toEqual(['run', 'length', '']);
  });
  test('stands under headings until something else is sorted by', () => {
    render(<Show groupOf={({ kind }) => kind} />);
    expect(names()).toEqual(['leg', 'leg 10', 'leg 2', 'run', 'trunk']);
    press('run');
    expect(names()).toEqual(['leg 2', 'leg 10', 'trunk']);
  });
  test('is walked with the arrows in one column; Enter on a row picks it', () => {
    render(<Show />);
    const field = (id: string) => screen.getByLabelText(`length of ${id}`);
    field('a').focus();
    fireEvent.keyDown(field('a'), { key: 'ArrowDown' });
    expect(document.activeElement).toBe(field('b'));
    fireEvent.keyDown(field('b'), { key: 'ArrowUp' });
    expect(document.activeElement).toBe(field('a'));
    fireEvent.keyDown(field('a'), { key: 'ArrowUp' });
    expect(document.activeElement).toBe(field('a'));
    const row = screen.getAllByRole('row')[3]!;
    row.focus();
    fireEvent.keyDown(row, { key: 'Enter' });
    expect(screen.getByRole('status').textContent).toBe('c');
  });
  test('without rows says what it is for', () => {
    render(<Show rows={[]} />);
    expect(screen.getByText('none yet')).toBeTruthy();
  });
  test('of many rows draws those in view only', () => {
    render(<Show rows={Array.from({ length: 300 }, (_, index) => ({ id: `r${index}`, name: `run ${index}`, mm: index, kind: 'leg' }))} />);
    expect(screen.getAllByRole('row').length).toBeLessThan(60);
  });
});

describe('copy and paste', () => {
  const clip = (text = '') => {
    const held = { text };
    return { held, data: { getData: () => held.text, setData: (_: string, next: string) => void (held.text = next) } };
  };
  const give = (target: Element, kind: 'copy' | 'paste', data: object) => {
    const event = createEvent[kind](target);
    Object.defineProperty(event, 'clipboardData', { value: data });
    act(() => void fireEvent(target, event));
    return event;
  };
  test('what is shown is copied as it stands: filtered, sorted, without what is hidden', () => {
    render(<Show />);
    press('run');
    fireEvent.change(screen.getByLabelText('Filter the table'), { target: { value: 'leg' } });
    const { held, data } = clip();
    give(screen.getByRole('group', { name: 'Runs' }), 'copy', data);
    expect(held.text).toBe('run\tlength\tkind\nleg 2\t\tleg\nleg 10\t200\tleg');
  });
  test('a block from a spreadsheet is taken whole, from the cell on', () => {
    const onTake = jest.fn((_commands: Command[]) => undefined);
    render(<Show onTake={onTake} />);
    give(screen.getByLabelText('length of b'), 'paste', clip('120\n130\r\n').data);
    expect(onTake.mock.calls[0]![0].map(({ label }) => label)).toEqual(['b 120', 'c 130']);
  });
  test.each([
    ['more lines than rows', 'c', '1\n2', 'Expected at most 1 line from this row on, got 2. Nothing was taken.'],
    ['a column that is not typed', 'a', '1\tleg', 'Line 1, kind: nothing can be typed there. Nothing was taken.'],
    ['what is no length', 'a', '1\nfar', 'Line 2, length: expected a length, got “far”. Nothing was taken.'],
  ])('%s: nothing is taken, and the place is named', (_, id, text, words) => {
    const onTake = jest.fn();
    render(<Show onTake={onTake} />);
    give(screen.getByLabelText(`length of ${id}`), 'paste', clip(text).data);
    expect([screen.getByRole('alert').textContent, onTake.mock.calls]).toEqual([words, []]);
  });
  test('one word goes into its field as ever', () => {
    const onTake = jest.fn();
    render(<Show onTake={onTake} />);
    const event = give(screen.getByLabelText('length of a'), 'paste', clip('120').data);
    expect([event.defaultPrevented, onTake.mock.calls]).toEqual([false, []]);
  });
  test('tabs and breaks inside a value do not break the table that is copied', () => {
    const rows = [{ ...ROWS[0]!, name: 'a\tb\nc' }];
    expect(toTsv(COLUMNS, rows).split('\n')).toEqual(['run\tlength\tkind', 'a b c\t200\tleg']);
  });
  test('what is copied can be pasted where it came from', () => {
    const typed = COLUMNS.filter(({ id }) => id === 'mm');
    const known = ROWS.filter(({ mm }) => mm !== null);
    const [, ...lines] = toTsv(typed, known).split('\n');
    const taken = readPaste(lines.join('\n'), typed, known, { row: 0, column: 0 });
    expect('commands' in taken && taken.commands.map(({ label }) => label)).toEqual(['a 200', 'c 90']);
  });
});

test('values keep one order whatever they come in', () => {
  const values = ['10', null, 'b', '2', 'a', 7, 3];
  const sorted = (list: readonly (string | number | null)[]) => [...list].sort(compareValues);
  expect(sorted(values)).toEqual(sorted([...values].reverse()));
  expect(sorted([3, 20, null, 7])).toEqual([3, 7, 20, null]);
});
