import fc from 'fast-check';
import { listHistory, type HistoryRow } from './history';

const row = (version: number, kind: HistoryRow['kind'], ofEdit: string | null = null, author = 'A'): HistoryRow => ({
  id: `e${version}`,
  version,
  author,
  label: `edit ${version}`,
  kind,
  ofEdit,
});
const ids = (rows: readonly HistoryRow[]) => rows.map(({ id }) => id);

test('edits may be undone last first; an undone one may be redone', () => {
  const rows = [row(1, 'edit'), row(2, 'edit'), row(3, 'undo', 'e2')];
  expect(ids(listHistory(rows, 'A').undo)).toEqual(['e1']);
  expect(ids(listHistory(rows, 'A').redo)).toEqual(['e2']);
});

test('a redone edit may be undone again, and stays itself', () => {
  const { undo, redo } = listHistory([row(1, 'edit'), row(2, 'undo', 'e1'), row(3, 'redo', 'e1')], 'A');
  expect([ids(undo), ids(redo)]).toEqual([['e1'], []]);
});

test('a new edit forgets what could be redone', () => {
  const { undo, redo } = listHistory([row(1, 'edit'), row(2, 'undo', 'e1'), row(3, 'edit')], 'A');
  expect([ids(undo), ids(redo)]).toEqual([['e3'], []]);
});

test('everyone undoes their own', () => {
  const rows = [row(1, 'edit'), row(2, 'edit', null, 'B'), row(3, 'edit')];
  expect(ids(listHistory(rows, 'A').undo)).toEqual(['e1', 'e3']);
  expect(ids(listHistory(rows, 'B').undo)).toEqual(['e2']);
  expect(listHistory(rows, 'C')).toEqual({ undo: [], redo: [] });
});

test('any run of edits, undos and redos agrees with a plain model of two stacks', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('edit', 'undo', 'redo'), { maxLength: 40 }), (kinds) => {
      const rows: HistoryRow[] = [];
      const done: string[] = [];
      let undone: string[] = [];
      for (const kind of kinds as HistoryRow['kind'][]) {
        const version = rows.length + 1;
        if (kind === 'edit') {
          rows.push(row(version, 'edit'));
          done.push(`e${version}`);
          undone = [];
          continue;
        }
        const [from, to] = kind === 'undo' ? [done, undone] : [undone, done];
        const id = from.pop();
        if (id === undefined) continue;
        to.push(id);
        rows.push(row(version, kind, id));
      }
      const { undo, redo } = listHistory(rows, 'A');
      expect(ids(undo)).toEqual(done);
      expect(ids(redo)).toEqual(undone);
    }),
  );
});
