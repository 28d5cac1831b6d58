/** What the history of a job says about one edit. */
export interface HistoryRow {
  id: string;
  version: number;
  author: string;
  label: string;
  kind: 'edit' | 'undo' | 'redo';
  ofEdit: string | null;
}

/** Edits of one author that may be undone and redone, the next one last. A new edit forgets what could be redone. */
export function listHistory(rows: readonly HistoryRow[], author: string): { undo: HistoryRow[]; redo: HistoryRow[] } {
  const edits = new Map(rows.map((row) => [row.id, row]));
  let undo: HistoryRow[] = [];
  let redo: HistoryRow[] = [];
  for (const row of rows) {
    if (row.author !== author) continue;
    if (row.kind === 'edit') {
      undo.push(row);
      redo = [];
      continue;
    }
    const edit = edits.get(row.ofEdit!)!;
    if (row.kind === 'undo') {
      undo = undo.filter(({ id }) => id !== edit.id);
      redo.push(edit);
    } else {
      redo = redo.filter(({ id }) => id !== edit.id);
      undo.push(edit);
    }
  }
  return { undo, redo };
}
