import Dexie, { type EntityTable } from 'dexie';

/** Something done on this device that the server does not have yet. */
export interface OutboxRow {
  /** order in which it was done, over all tabs of this device */
  seq: number;
  /** made here, so that the server counts a repeat once */
  id: string;
  /** the line that it stands in: kind, job and what else parts them */
  line: string;
  body: unknown;
  /** why the server did not take it; null: it waits */
  refused: string | null;
  /** when it was done, ms; undefined: by an older page */
  since?: number;
}

/** What a device keeps to go on with no network: a job as the server last gave it. */
export interface KeptRow {
  jobId: string;
  version: number;
  document: unknown;
}

class OutboxDatabase extends Dexie {
  readonly rows!: EntityTable<OutboxRow, 'seq'>;
  readonly kept!: EntityTable<KeptRow, 'jobId'>;

  constructor() {
    super('wattograph-outbox');
    this.version(1).stores({ rows: '++seq, &id, line', kept: 'jobId' });
  }
}

/** One database of this browser for all that waits, whatever tab it was done in. */
export const outboxDatabase = new OutboxDatabase();
