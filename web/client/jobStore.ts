import isEqual from 'fast-deep-equal';
import { applyEdit, changeDocument, editDocument, isOverlap, type EditOperation, type Job, type Shop } from 'wattograph-core';
import { readAuthor, setPeople } from './author';
import { PlanRunner, type PlanResult } from './planner';
import { readPending, writePending, type PendingEdit } from './pendingEdits';
import { request, RequestError } from './request';

export interface Since {
  version: number;
  author: string;
  label: string;
  patch: EditOperation[];
}

export interface JobState {
  id: string;
  /** as shown: what the server has, edits not yet acknowledged, and what is being dragged */
  document: Job;
  version: number;
  saving: 'saved' | 'saving' | 'offline';
  undo: string | null;
  redo: string | null;
  result: PlanResult | null;
  /** the plan as it was before the last change, to show what changed */
  before: PlanResult | null;
  /** an edit of ours that meets one of somebody else's */
  conflict: { mine: PendingEdit; theirs: Since[] } | null;
  /** the last thing that was refused */
  problem: string | null;
}

/** A job as the server gives it. */
export interface Loaded {
  id: string;
  version: number;
  document: Job;
  undo: string | null;
  redo: string | null;
}

/** A job as a page opens it: with the shop that it is planned with. */
export interface Opened extends Loaded {
  shop: Shop;
  shopVersion: number;
}

interface Taken {
  version: number;
  patch: EditOperation[];
  undo: string | null;
  redo: string | null;
}

const RETRY_MS = 1500;
const POLL_MS = 4000;

/** One open job: the document, its plan, and the line of edits to the server. */
export class JobStore {
  private state: JobState;
  private confirmed: Job;
  private pending: PendingEdit[];
  readonly shop: Shop;
  readonly shopVersion: number;
  private readonly runner: PlanRunner;
  private dragged: Job | null = null;
  /** the plan as it was when a drag began */
  private beforeDrag: PlanResult | null = null;
  private sending = false;
  private listeners = new Set<() => void>();
  private timers: ReturnType<typeof setTimeout>[] = [];

  constructor({ shop, shopVersion, ...loaded }: Opened) {
    this.shop = shop;
    this.shopVersion = shopVersion;
    setPeople(shop.people);
    this.runner = new PlanRunner(shop);
    this.confirmed = loaded.document;
    this.pending = readPending(loaded.id);
    this.runner.tell(
      (result) => this.set({ result }),
      (message) => this.set({ problem: `The plan could not be computed: ${message}` }),
    );
    this.state = { ...loaded, saving: 'saved', result: null, before: null, conflict: null, problem: null };
    this.refresh();
    // what may be undone depends on who works at this device, and the page may be older than the job
    void this.flush().then(() => this.reload());
    this.timers.push(setInterval(() => void this.poll(), POLL_MS));
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): JobState => this.state;

  end(): void {
    this.timers.forEach(clearInterval);
    this.runner.end();
  }

  /** Change the job; it is stored at once, or as soon as the server answers. Throws what the recipe throws. */
  edit(label: string, recipe: (draft: Job) => void): void {
    this.dragged = null;
    const { patch } = editDocument(this.current(), recipe);
    if (patch.length === 0) {
      this.beforeDrag = null;
      this.refresh();
      return;
    }
    this.push(label, patch);
  }

  /** Take an edit that was computed elsewhere, such as the fix of a finding. */
  push(label: string, patch: EditOperation[]): void {
    this.pending = [...this.pending, { id: crypto.randomUUID(), label, author: readAuthor(), patch }];
    this.set({ before: this.beforeDrag ?? this.state.result });
    this.beforeDrag = null;
    this.refresh();
    void this.flush();
  }

  /** Show a change while it is being dragged; nothing is stored. */
  preview(recipe: (draft: Job) => void): void {
    if (this.dragged === null) {
      this.beforeDrag = this.state.result;
      this.set({ before: this.beforeDrag });
    }
    this.dragged = changeDocument(this.current(), recipe);
    this.refresh();
  }

  cancelPreview(): void {
    this.dragged = null;
    this.beforeDrag = null;
    this.refresh();
  }

  forgetProblem = (): void => this.set({ problem: null });

  async history(direction: 'undo' | 'redo'): Promise<void> {
    await this.flush();
    if (this.pending.length) return;
    try {
      const taken = await request<Taken>(`/api/jobs/${this.state.id}/history`, {
        id: crypto.randomUUID(),
        author: readAuthor(),
        direction,
      });
      this.set({ before: this.state.result });
      this.take(taken);
    } catch (error) {
      this.fail(error);
    }
  }

  /** Settle a conflict: keep ours on top of theirs, or let theirs stand. */
  settle(keep: 'mine' | 'theirs'): void {
    if (!this.state.conflict) return;
    if (keep === 'theirs') this.pending = this.pending.filter(({ id }) => id !== this.state.conflict!.mine.id);
    this.set({ conflict: null });
    this.refresh();
    void this.flush();
  }

  private current(): Job {
    let document = this.confirmed;
    const kept: PendingEdit[] = [];
    for (const edit of this.pending) {
      const applied = applyEdit(document, edit.patch);
      if (!applied.ok) {
        this.set({ problem: `"${edit.label}" no longer fits the job and was dropped.` });
        continue;
      }
      document = applied.value;
      kept.push(edit);
    }
    this.pending = kept;
    return document;
  }

  private refresh(): void {
    writePending(this.state.id, this.pending);
    const next = this.dragged ?? this.current();
    // what the server took is what is shown already, most of the time: then nothing is new, and nothing is planned or drawn again
    const document = isEqual(next, this.state.document) ? this.state.document : next;
    if (document !== this.state.document || this.state.result === null) this.runner.plan(document);
    this.set({ document, saving: this.pending.length === 0 ? 'saved' : this.state.saving === 'offline' ? 'offline' : 'saving' });
  }

  private async flush(): Promise<void> {
    if (this.sending) return;
    this.sending = true;
    try {
      while (this.pending.length && !this.state.conflict) {
        const edit = this.pending[0]!;
        const taken = await request<Taken>(`/api/jobs/${this.state.id}/edits`, { ...edit, base: this.state.version });
        this.pending = this.pending.slice(1);
        this.take(taken);
      }
    } catch (error) {
      this.fail(error);
    } finally {
      this.sending = false;
    }
  }

  private take(taken: Taken): void {
    if (taken.version <= this.state.version) return;
    if (taken.version > this.state.version + 1) {
      void this.reload();
      return;
    }
    const applied = applyEdit(this.confirmed, taken.patch);
    if (!applied.ok) {
      void this.reload();
      return;
    }
    this.confirmed = applied.value;
    this.set({ version: taken.version, undo: taken.undo, redo: taken.redo, saving: this.pending.length ? 'saving' : 'saved' });
    this.refresh();
  }

  private async reload(): Promise<void> {
    try {
      const loaded = await request<Loaded>(`/api/jobs/${this.state.id}?author=${encodeURIComponent(readAuthor())}`);
      if (loaded.version < this.state.version) return;
      // the same version is the same document: keeping ours spares a plan
      if (loaded.version > this.state.version) this.confirmed = loaded.document;
      this.set({ version: loaded.version, undo: loaded.undo, redo: loaded.redo });
      this.refresh();
    } catch (error) {
      this.fail(error);
    }
  }

  private async poll(): Promise<void> {
    if (document.hidden || this.sending || this.pending.length) return;
    try {
      const since = await request<Since[]>(`/api/jobs/${this.state.id}/edits?since=${this.state.version}`);
      if (since.length && !this.pending.length && !this.sending) await this.reload();
    } catch {
      // a poll that fails is tried again; edits say when the server is away
    }
  }

  private fail(error: unknown): void {
    if (!(error instanceof RequestError)) throw error;
    if (error.isPassing) {
      this.set({ saving: 'offline' });
      this.timers.push(setTimeout(() => void this.flush(), RETRY_MS));
      return;
    }
    const mine = this.pending[0];
    if (error.status === 409 && Array.isArray(error.body.since) && mine) {
      this.rebase(mine, error.body.since as Since[]);
      return;
    }
    if (mine && (error.status === 422 || error.status === 400)) this.pending = this.pending.slice(1);
    this.set({ problem: error.message });
    this.refresh();
  }

  /** Somebody else was first: put theirs under ours; where both touch the same place, ask. */
  private rebase(mine: PendingEdit, since: Since[]): void {
    for (const { patch } of since) {
      const applied = applyEdit(this.confirmed, patch);
      if (!applied.ok) {
        void this.reload();
        return;
      }
      this.confirmed = applied.value;
    }
    this.set({ version: since.at(-1)!.version });
    const theirs = since.filter(({ patch }) => isOverlap(patch, mine.patch));
    if (theirs.length) this.set({ conflict: { mine, theirs } });
    this.refresh();
    if (!theirs.length) this.timers.push(setTimeout(() => void this.flush(), 0));
  }

  private set(part: Partial<JobState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
