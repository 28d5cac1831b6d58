/** What the history of a job says about one edit. */
export interface HistoryRow {
  id: string;
  version: number;
  kind: 'edit' | 'undo' | 'redo';
  ofEdit: string | null;
}

/** Ids of the edits that one person may undo and redo next; null: none. */
export interface HistoryTops {
  undo: string | null;
  redo: string | null;
}

/**
 * What a person may undo and redo next, read from the newest of their rows backwards and no further than needed: a history of thousands of
 * edits costs as much as one of ten. A new edit forgets what could be redone.
 */
export class HistoryWalk {
  undo: string | null = null;
  redo: string | null = null;
  private isUndoKnown = false;
  private isRedoKnown = false;
  /** edits that a later row was about */
  private readonly decided = new Set<string>();

  /** Take the next older row of the person; true: nothing older matters. */
  take({ id, kind, ofEdit }: HistoryRow): boolean {
    const about = kind === 'edit' ? id : ofEdit!;
    if (!this.decided.has(about)) {
      this.decided.add(about);
      if (kind !== 'undo') this.setUndo(about);
      else if (!this.isRedoKnown) this.setRedo(about);
    }
    if (kind === 'edit' && !this.isRedoKnown) this.setRedo(null);
    return this.isUndoKnown && this.isRedoKnown;
  }

  private setUndo(id: string): void {
    if (!this.isUndoKnown) this.undo = id;
    this.isUndoKnown = true;
  }

  private setRedo(id: string | null): void {
    this.redo = id;
    this.isRedoKnown = true;
  }
}
