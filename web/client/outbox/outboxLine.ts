import { liveQuery, type Subscription } from 'dexie';
import { RequestError } from '../request';
import { keepStorage } from './deviceStorage';
import { outboxDatabase, type OutboxRow } from './outboxDatabase';

export interface Waiting<B> {
  id: string;
  body: B;
  /** when it was done, ms; null: by an older page */
  since: number | null;
}

export interface Refused<B> extends Waiting<B> {
  reason: string;
}

/** What is done at once, together with its leaving the line, so that nothing shows twice or not at all. */
type Apply = () => void;

interface Options<B> {
  /** kind, job and what else parts the lines */
  name: string;
  /** how many go in one request */
  most: number;
  /** who they are of: only those of one go in one request */
  ofWhom?: (body: B) => string | undefined;
  /** Send these. 'hold': the first of them waits for somebody to decide. Throws RequestError. */
  send: (batch: readonly Waiting<B>[]) => Promise<Apply | 'hold'>;
  /** Another tab has sent these, or taken them away. */
  onGone?: (ids: readonly string[]) => Promise<Apply>;
  onChange: () => void;
}

const FIRST_RETRY_MS = 300;
const LONGEST_RETRY_MS = 5000;
const OPEN_MS = 3000;
/** nobody is signed in, or not who made it */
const UNKNOWN = 401;
/** as often as the server may fail on one and the same entry before the others are let past */
const MOST_FAILURES = 6;

/**
 * What waits for the server, in the order it was done, in the device's own database until the server has it. The same for every kind: what is
 * answered is dropped; where there is no answer, or one that will pass (408, 425, 429, 5xx), it is sent again with the same id, ever more
 * slowly; what is refused is put aside with the reason and the rest goes on. All tabs see one line, and one tab sends at a time.
 */
export class OutboxLine<B> {
  waiting: Waiting<B>[] = [];
  refused: Refused<B>[] = [];
  online = true;
  /** the device could not write the last entry down: it is lost when the page closes before it is sent */
  isFull = false;
  /** what the device kept before is known */
  isOpen = false;
  /** some of it waits until who made it signs in here */
  isBarred = false;

  private readonly writing = new Map<string, Promise<void>>();
  private readonly gone = new Set<string>();
  /** ids that the device was seen to have */
  private readonly written = new Set<string>();
  /** put aside here, or (null) sent again, perhaps not yet so in the device's database */
  private readonly reasons = new Map<string, string | null>();
  /** who is not signed in here, as far as the last round of sending knows */
  private readonly barred = new Set<string | undefined>();
  private readonly failures = new Map<string, number>();
  private sending: Promise<void> | null = null;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private retryMs = FIRST_RETRY_MS;
  private isSingly = false;
  private isOver = false;
  private isWanted = false;
  private watching: Subscription | null = null;
  private taking: Promise<void> = Promise.resolve();
  private tellOpen: () => void = () => {};
  /** resolves when what the device kept before is known */
  readonly opened = new Promise<void>((resolve) => {
    this.tellOpen = resolve;
  });

  constructor(private readonly options: Options<B>) {}

  /** Take up what the device kept, then send. Ends with the function given back. */
  begin(): () => void {
    const { name } = this.options;
    this.isOver = false;
    this.watching = liveQuery(() => outboxDatabase.rows.where('line').equals(name).sortBy('seq')).subscribe({
      next: (rows) => {
        this.taking = this.taking.then(() => this.take(rows));
      },
      // a device that keeps nothing: what is done here is sent from this page, or lost with it
      error: () => this.open(),
    });
    return () => {
      this.isOver = true;
      this.stopTimer();
      this.watching?.unsubscribe();
    };
  }

  /** entries that the device is still writing down */
  get unwritten(): number {
    return this.waiting.filter(({ id }) => this.writing.has(id)).length;
  }

  /** when the first of what waits was done, ms; null: nothing waits */
  get oldestSince(): number | null {
    const times = this.waiting.flatMap(({ since }) => since ?? []);
    return times.length ? Math.min(...times) : null;
  }

  /** It counts at once; the device writes it down and the server is told behind that. */
  add(id: string, body: B): void {
    this.addMany([{ id, body }]);
  }

  /** The same for several that come at once, as from a file: they are shown and written down together. */
  addMany(entries: readonly { id: string; body: B }[]): void {
    keepStorage();
    const since = Date.now();
    this.waiting = [...this.waiting, ...entries.map(({ id, body }) => ({ id, body, since }))];
    this.write(entries, since);
    this.options.onChange();
    void this.flush();
  }

  /** Take entries out, sent or not. */
  async remove(ids: readonly string[]): Promise<void> {
    this.leave(ids);
    this.options.onChange();
    await this.erase(ids);
  }

  /** Send what was refused once more, after all that waits. */
  async retry(id: string): Promise<void> {
    const one = this.refused.find((entry) => entry.id === id);
    if (!one) return;
    const marked = this.mark(id, null);
    this.refused = this.refused.filter((entry) => entry.id !== id);
    this.waiting = [...this.waiting, { id, body: one.body, since: one.since }];
    this.options.onChange();
    await Promise.all([marked, this.flush()]);
  }

  /** Send what waits. Ends when it is sent, put aside, held or to be sent later. */
  flush(): Promise<void> {
    this.isWanted = true;
    this.sending ??= this.inTurn().finally(() => {
      this.sending = null;
      // something was added after the last look at what waits
      if (this.isWanted && this.waiting.length > 0 && this.timer === undefined) void this.flush();
    });
    return this.sending;
  }

  /** One tab at a time; where another one is at it this one looks again later. */
  private async inTurn(): Promise<void> {
    this.isWanted = false;
    this.stopTimer();
    // what was kept before goes first; a database that never opens must not hold what is done now for ever
    if (!this.isOpen) await Promise.race([this.opened, new Promise((resolve) => setTimeout(resolve, OPEN_MS))]);
    // on a page that is not a secure context there are no locks: then two tabs may send the same, and it counts once
    if (typeof navigator === 'undefined' || !('locks' in navigator)) return this.drain();
    await navigator.locks.request(`outbox/${this.options.name}`, { ifAvailable: true }, async (lock) => {
      if (lock) await this.drain();
      else if (this.waiting.length > 0) this.later();
    });
  }

  private async drain(): Promise<void> {
    this.barred.clear();
    while (!this.isOver && this.waiting.length > 0) {
      this.isWanted = false;
      const batch = this.listNext();
      if (batch.length === 0) return this.later();
      const ids = batch.map(({ id }) => id);
      try {
        const apply = await this.options.send(batch);
        if (apply === 'hold') return;
        this.retryMs = FIRST_RETRY_MS;
        this.online = true;
        this.isSingly = false;
        this.isBarred = this.barred.size > 0;
        this.leave(ids);
        apply();
        this.options.onChange();
        await this.erase(ids);
      } catch (error) {
        if (!(error instanceof RequestError)) throw error;
        if (await this.isToWait(error, batch)) return;
      }
    }
  }

  /** What goes in the next request: the first that wait, as far as they are of one and the same. */
  private listNext(): Waiting<B>[] {
    const { ofWhom = () => undefined } = this.options;
    const may = this.waiting.filter(({ body }) => !this.barred.has(ofWhom(body)));
    const next = may.slice(0, this.isSingly ? 1 : this.options.most);
    const other = next.findIndex(({ body }) => ofWhom(body) !== ofWhom(next[0]!.body));
    return other === -1 ? next : next.slice(0, other);
  }

  /** What becomes of entries that were not taken: true where they are sent again later. */
  private async isToWait(error: RequestError, batch: readonly Waiting<B>[]): Promise<boolean> {
    const [first] = batch;
    const failed = (this.failures.get(first!.id) ?? 0) + 1;
    if (error.status === 500) this.failures.set(first!.id, failed);
    if (error.status === UNKNOWN) {
      // what others made does not wait for them
      this.barred.add(this.options.ofWhom?.(first!.body));
      this.isBarred = true;
      this.online = true;
      this.options.onChange();
      return false;
    }
    const isPoison = error.status === 500 && failed >= MOST_FAILURES;
    if (error.isPassing && !isPoison) {
      // the server may fail on one of them only
      this.isSingly = error.status === 500;
      this.online = false;
      this.options.onChange();
      this.later();
      return true;
    }
    this.online = true;
    if (batch.length > 1) {
      this.isSingly = true;
      return false;
    }
    await this.putAside(first!, error.message);
    return false;
  }

  private async putAside({ id, body, since }: Waiting<B>, reason: string): Promise<void> {
    // it was let go here while the server had it
    if (this.gone.has(id)) return;
    this.waiting = this.waiting.filter((entry) => entry.id !== id);
    this.refused = [...this.refused.filter((entry) => entry.id !== id), { id, body, since, reason }];
    this.options.onChange();
    await this.mark(id, reason);
  }

  private async mark(id: string, reason: string | null): Promise<void> {
    this.failures.delete(id);
    this.reasons.set(id, reason);
    await this.writing.get(id);
    await outboxDatabase.rows
      .where('id')
      .equals(id)
      .modify({ refused: reason })
      // it is refused once more after the next start
      .catch(() => 0);
  }

  private stopTimer(): void {
    clearTimeout(this.timer);
    this.timer = undefined;
  }

  private later(): void {
    this.stopTimer();
    if (this.isOver) return;
    this.timer = setTimeout(() => void this.flush(), this.retryMs);
    this.retryMs = Math.min(LONGEST_RETRY_MS, this.retryMs * 2);
  }

  private write(entries: readonly { id: string; body: B }[], since: number): void {
    const rows = entries.map(({ id, body }) => ({ id, line: this.options.name, body, refused: null, since }) as OutboxRow);
    const written = outboxDatabase.rows.bulkAdd(rows).then(
      () => {
        this.isFull = false;
      },
      () => {
        this.isFull = true;
      },
    );
    const told = written.then(() => {
      for (const { id } of entries) this.writing.delete(id);
      this.options.onChange();
    });
    for (const { id } of entries) this.writing.set(id, told);
  }

  private leave(ids: readonly string[]): void {
    for (const id of ids) {
      this.gone.add(id);
      this.failures.delete(id);
    }
    this.waiting = this.waiting.filter(({ id }) => !this.gone.has(id));
    this.refused = this.refused.filter(({ id }) => !this.gone.has(id));
  }

  private async erase(ids: readonly string[]): Promise<void> {
    // a row that is still being written would come after its removal and stay for good
    await Promise.all(ids.map((id) => this.writing.get(id)));
    await outboxDatabase.rows
      .where('id')
      .anyOf([...ids])
      .delete()
      // it is sent once more after the next start, and counts once
      .catch(() => 0);
  }

  /** The line as the device has it: what other tabs added, sent or took away. */
  private async take(rows: readonly OutboxRow[]): Promise<void> {
    const known = new Set(rows.map(({ id }) => id));
    const lost = [...this.waiting, ...this.refused].map(({ id }) => id).filter((id) => !known.has(id) && this.written.has(id));
    for (const { id } of rows) this.written.add(id);
    const apply = lost.length > 0 ? await this.options.onGone?.(lost) : undefined;
    for (const id of lost) this.gone.add(id);
    const here = rows
      .filter(({ id }) => !this.gone.has(id))
      .map(({ id, body, refused, since = null }) => ({
        ...{ id, body: body as B, since: since as number | null },
        reason: this.reasons.has(id) ? this.reasons.get(id)! : refused,
      }));
    const there = here.flatMap(({ reason, ...one }) => (reason === null ? [one] : []));
    const ours = this.waiting.filter(({ id }) => !this.gone.has(id) && !this.reasons.get(id));
    // what was kept before this page opened comes first; from then on the order in which it was done here, also of what found no room
    const [first, then] = this.isOpen ? [ours, there] : [there, ours];
    const ids = new Set(first.map(({ id }) => id));
    this.waiting = [...first, ...then.filter(({ id }) => !ids.has(id))];
    const unwritten = this.refused.filter(({ id }) => !known.has(id) && !this.gone.has(id));
    this.refused = [...here.flatMap(({ reason, ...one }) => (reason === null ? [] : [{ ...one, reason }])), ...unwritten];
    apply?.();
    this.open();
    if (this.waiting.length > 0 && this.timer === undefined) void this.flush();
  }

  private open(): void {
    this.isOpen = true;
    this.tellOpen();
    this.options.onChange();
  }
}

/** Names of the lines that something waits in, of all whose name begins so. */
export async function listLines(prefix: string): Promise<string[]> {
  const rows = await outboxDatabase.rows.where('line').startsWith(prefix).toArray();
  return [...new Set(rows.flatMap(({ line, refused }) => (refused === null ? [line] : [])))];
}
