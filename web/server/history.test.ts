import fc from 'fast-check';
import { HistoryWalk, type HistoryRow, type HistoryTops } from './history';

const row = (version: number, kind: HistoryRow['kind'], ofEdit: string | null = null): HistoryRow => ({
  id: `e${version}`,
  version,
  kind,
  ofEdit,
});

/** What may be undone and redone after these rows, the oldest first. */
function findTops(rows: readonly HistoryRow[]): HistoryTops {
  const walk = new HistoryWalk();
  [...rows].reverse().some((one) => walk.take(one));
  return { undo: walk.undo, redo: walk.redo };
}

test('edits may be undone last first; an undone one may be redone', () => {
  expect(findTops([row(1, 'edit'), row(2, 'edit'), row(3, 'undo', 'e2')])).toEqual({ undo: 'e1', redo: 'e2' });
});

test('a redone edit may be undone again, and stays itself', () => {
  expect(findTops([row(1, 'edit'), row(2, 'undo', 'e1'), row(3, 'redo', 'e1')])).toEqual({ undo: 'e1', redo: null });
});

test('a new edit forgets what could be redone', () => {
  expect(findTops([row(1, 'edit'), row(2, 'undo', 'e1'), row(3, 'edit')])).toEqual({ undo: 'e3', redo: null });
});

test('who did nothing may undo nothing', () => {
  expect(findTops([])).toEqual({ undo: null, redo: null });
});

test('any run of edits, undos and redos agrees with a plain model of two stacks', () => {
  fc.assert(
    fc.property(fc.array(fc.constantFrom('edit', 'undo', 'redo'), { maxLength: 60 }), (kinds) => {
      const rows: HistoryRow[] = [];
      const done: string[] = [];
      let undone: string[] = [];
      for (const kind of kinds as HistoryRow['kind'][]) {
        const version = rows.length + 1;
        if (kind === 'edit') {
          rows.push(row(version, 'edit'));
          done.push(`e${version}`);
          undone = [];
        } else {
          const [from, to] = kind === 'undo' ? [done, undone] : [undone, done];
          const id = from.pop();
          if (id === undefined) continue;
          to.push(id);
          rows.push(row(version, kind, id));
        }
        expect(findTops(rows)).toEqual({ undo: done.at(-1) ?? null, redo: undone.at(-1) ?? null });
      }
    }),
  );
});

test('of five thousand edits two rows are read', () => {
  const rows = Array.from({ length: 5000 }, (_, index) => row(index + 1, 'edit'));
  const walk = new HistoryWalk();
  const read = [...rows].reverse().findIndex((one) => walk.take(one)) + 1;
  expect(read).toBe(1);
});
