import isEqual from 'fast-deep-equal';
import { applyEdit, changeDocument, editDocument, isOverlap, type Command, type EditOperation, type Job, type Shop } from 'wattograph-core';
import { mayHere, readAuthor, readPerson, setPerson } from './person';
import type { Person } from '../server/accounts/rights';
import { hearNews, type News } from './live';
import { toPlanPath } from './planPath';
import { PlanRunner, type GivenPlan, type PlanResult } from './planner';
import { OutboxLine, type Refused, type Waiting } from './outbox/outboxLine';
import { DEAD_LINE_MS, request, requestZipped, RequestError } from './request';

/** An edit made here that the server has not acknowledged yet. */
interface Edit {
  label: string;
  patch: EditOperation[];
  /** id of who made it; undefined: kept by an older Wattograph */
  by?: string;
}

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
  /** edits that the server does not have yet */
  waiting: number;
  /** when the first of them was made, ms; null: none waits */
  oldestSince: number | null;
  undo: string | null;
  redo: string | null;
  result: PlanResult | null;
  /** the plan as it was before the last change, to show what changed */
  before: PlanResult | null;
  /** an edit of ours that meets one of somebody else's */
  conflict: { mine: { id: string; label: string }; theirs: Since[] } | null;
  /** edits that the server did not take, kept on this device */
  refused: { id: string; label: string; reason: string }[];
  /** what went wrong last */
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
  /** who opened it */
  person: Person;
  shop: Shop;
  shopVersion: number;
}

interface Taken {
  version: number;
  patch: EditOperation[];
  undo: string | null;
  redo: string | null;
}

/** so long is waited for a plan that is kept, before the job is planned here */
const GIVEN_MS = 700;

/** so long an edit is not sent yet where its plan is under way */
const PLAN_FIRST_MS = 100;

/** so long an edit of a length is not drawn yet where its plan is under way */
const DRAWN_WITH_PLAN_MS = 60;

/** What a length changes is drawn from its plan: before that there is nothing to see but that it is not saved yet. */
const isSeenByPlan = (patch: readonly EditOperation[]) =>
  patch.every(({ op, path }) => op === 'replace' && /^\/looms\/[^/]+\/segments\/[^/]+\/(lengthMm|fittedMm)$/.test(path));

const FULL = 'This device is full: what you change is lost when the page is closed before it is saved.';

/** One open job: the document, its plan, and the line of edits to the server. */
export class JobStore {
  private state: JobState;
  private confirmed: Job;
  private readonly line: OutboxLine<Edit>;
  readonly shop: Shop;
  readonly shopVersion: number;
  private readonly runner: PlanRunner;
  private dragged: Job | null = null;
  /** the plan as it was when a drag began */
  private beforeDrag: PlanResult | null = null;
  /** listeners hear of an edit of a length with its plan: drawing twice takes the machine from the plan */
  private isQuiet = false;
  private isAway = false;
  private wasFull = false;
  private listeners = new Set<() => void>();
  private readonly ends: (() => void)[];
  /** the newest version that the server told of */
  private told = 0;

  constructor({ shop, shopVersion, person, ...loaded }: Opened) {
    this.shop = shop;
    this.shopVersion = shopVersion;
    setPerson(person);
    this.runner = new PlanRunner(shop);
    this.confirmed = loaded.document;
    this.line = new OutboxLine<Edit>({
      name: `edit/${loaded.id}`,
      most: 1,
      send: ([edit]) => this.send(edit!),
      onGone: (ids) => this.lose(ids),
      onChange: () => this.refresh(),
    });
    this.runner.tell(
      (result) => {
        this.isQuiet = false;
        this.set({ result });
      },
      (message) => this.set({ problem: `The plan could not be computed: ${message}` }),
    );
    void this.runner.hold(this.findGiven(loaded));
    this.state = {
      ...loaded,
      saving: 'saving',
      waiting: 0,
      oldestSince: null,
      result: null,
      before: null,
      conflict: null,
      refused: [],
      problem: null,
    };
    this.refresh();
    this.ends = [this.line.begin(), hearNews((news) => this.heed(news))];
    // what may be undone depends on who works at this device, and the page may be older than the job
    void this.line.opened.then(() => this.line.flush()).then(() => this.reload());
  }

  /** The plan that the server keeps of this version; null where it has none, or takes longer than planning would. */
  private async findGiven({ id, version, document }: Loaded): Promise<GivenPlan | null> {
    const text = await requestZipped(toPlanPath(id, version), AbortSignal.timeout(GIVEN_MS)).catch(() => null);
    return text ? { job: document, text } : null;
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): JobState => this.state;

  end(): void {
    this.ends.forEach((end) => end());
    this.runner.end();
  }

  /** Change the job; it is stored at once, or as soon as the server answers. Throws what the command throws. */
  edit = ({ label, apply }: Command): void => {
    this.dragged = null;
    const { patch } = editDocument(this.current(), apply);
    if (patch.length === 0) {
      this.beforeDrag = null;
      this.refresh();
      return;
    }
    this.push(label, patch);
  };

  /** Take an edit that was computed elsewhere, such as the fix of a finding. */
  push = (label: string, patch: EditOperation[]): void => {
    if (!mayHere('plan')) {
      this.cancelPreview();
      this.set({ problem: `${readAuthor()} is signed in as ${readPerson().role}: planners change the job. Nothing was changed.` });
      return;
    }
    this.isQuiet = isSeenByPlan(patch) && this.state.result !== null;
    this.set({ before: this.beforeDrag ?? this.state.result });
    this.beforeDrag = null;
    this.line.add(crypto.randomUUID(), { label, patch, by: readPerson().id });
    if (this.isQuiet) void this.runner.calm(DRAWN_WITH_PLAN_MS).then(() => this.speak());
  };

  /** Show a change while it is being dragged; nothing is stored. */
  preview({ apply }: Command): void {
    if (this.dragged === null) {
      this.beforeDrag = this.state.result;
      this.set({ before: this.beforeDrag });
    }
    this.dragged = changeDocument(this.current(), apply);
    this.refresh();
  }

  cancelPreview(): void {
    this.dragged = null;
    this.beforeDrag = null;
    this.refresh();
  }

  forgetProblem = (): void => this.set({ problem: null });

  async history(direction: 'undo' | 'redo'): Promise<void> {
    await this.line.flush();
    if (this.line.waiting.length > 0) return;
    try {
      const taken = await request<Taken>(`/api/jobs/${this.state.id}/history`, {
        id: crypto.randomUUID(),
        direction,
      });
      const apply = await this.toTaken(taken);
      this.set({ before: this.state.result });
      apply();
      this.refresh();
    } catch (error) {
      this.fail(error);
    }
  }

  /** Settle a conflict: keep ours on top of theirs, or let theirs stand. */
  settle(keep: 'mine' | 'theirs'): void {
    const { conflict } = this.state;
    if (!conflict) return;
    this.set({ conflict: null });
    if (keep === 'theirs') void this.line.remove([conflict.mine.id]).then(() => this.line.flush());
    else void this.line.flush();
  }

  /** Send an edit that was refused once more, on the job as it is now. */
  retry = (id: string): void => void this.line.retry(id);

  /** Let an edit go that was refused. */
  letGo = (id: string): void => void this.line.remove([id]);

  private current(): Job {
    let document = this.confirmed;
    for (const { body } of this.line.waiting) {
      // one that does not fit what this tab has may fit what the server has: that decides
      const applied = applyEdit(document, body.patch);
      if (applied.ok) document = applied.value;
    }
    return document;
  }

  private refresh(): void {
    const next = this.dragged ?? this.current();
    // what the server took is what is shown already, most of the time: then nothing is new, and nothing is planned or drawn again
    const document = isEqual(next, this.state.document) ? this.state.document : next;
    if (document !== this.state.document || this.state.result === null) this.runner.plan(document);
    const { waiting, isOpen, online, isFull } = this.line;
    const refused = this.listRefused();
    this.set({
      document,
      refused,
      waiting: waiting.length,
      oldestSince: this.line.oldestSince,
      saving: this.isAway || !online ? 'offline' : isOpen && waiting.length === 0 ? 'saved' : 'saving',
      ...(isFull && !this.wasFull ? { problem: FULL } : {}),
    });
    this.wasFull = isFull;
  }

  /** The same list where it says the same, so that nothing is drawn again. */
  private listRefused(): JobState['refused'] {
    const refused = this.line.refused.map(({ id, body, reason }: Refused<Edit>) => ({ id, label: body.label, reason }));
    return isEqual(refused, this.state.refused) ? this.state.refused : refused;
  }

  /** Send one edit; an edit of somebody else that was first is put under it. */
  private async send(edit: Waiting<Edit>): Promise<(() => void) | 'hold'> {
    // this device has it already, and the server that stores it may be on the same machine as the planner
    await this.runner.calm(PLAN_FIRST_MS);
    for (;;) {
      if (this.state.conflict) return 'hold';
      try {
        const base = this.state.version;
        const { label, patch, by } = edit.body;
        const path = `/api/jobs/${this.state.id}/edits`;
        return await this.toTaken(await request<Taken>(path, { id: edit.id, label, patch, base }, { by, withinMs: DEAD_LINE_MS }));
      } catch (error) {
        if (!(error instanceof RequestError) || error.status !== 409 || !Array.isArray(error.body.since)) throw error;
        if ((await this.rebase(edit, error.body.since as Since[])) === 'hold') return 'hold';
      }
    }
  }

  /** Somebody else was first: put theirs under ours; where both touch the same place, ask. */
  private async rebase({ id, body }: Waiting<Edit>, since: Since[]): Promise<'again' | 'hold'> {
    let document = this.confirmed;
    for (const { patch } of since) {
      const applied = applyEdit(document, patch);
      // none: it is kept without what it did, for it is long ago
      if (!applied.ok || patch.length === 0) {
        this.accept(await this.load());
        return 'again';
      }
      document = applied.value;
    }
    this.confirmed = document;
    this.set({ version: since.at(-1)!.version });
    const theirs = since.filter(({ patch }) => isOverlap(patch, body.patch));
    if (theirs.length > 0) this.set({ conflict: { mine: { id, label: body.label }, theirs } });
    this.refresh();
    return theirs.length > 0 ? 'hold' : 'again';
  }

  /** What an edit came to, to be put in place when it leaves the line. */
  private async toTaken(taken: Taken): Promise<() => void> {
    const fresh = taken.version > this.state.version + 1 ? await this.load() : null;
    return () => {
      if (fresh) this.accept(fresh);
      else if (taken.version > this.state.version) {
        const applied = applyEdit(this.confirmed, taken.patch);
        if (!applied.ok) return void this.reload();
        this.confirmed = applied.value;
        this.isAway = false;
        this.set({ version: taken.version, undo: taken.undo, redo: taken.redo });
      }
    };
  }

  /** Another tab of this browser sent these, or let them go. */
  private async lose(ids: readonly string[]): Promise<() => void> {
    const fresh = await this.load().catch(() => null);
    return () => {
      if (fresh) this.accept(fresh);
      if (this.state.conflict && ids.includes(this.state.conflict.mine.id)) this.set({ conflict: null });
    };
  }

  private load = (): Promise<Loaded> => request<Loaded>(`/api/jobs/${this.state.id}`);

  private accept({ version, document, undo, redo }: Loaded): void {
    if (version < this.state.version) return;
    // the same version is the same document: keeping ours spares a plan
    if (version > this.state.version) this.confirmed = document;
    this.isAway = false;
    this.set({ version, undo, redo });
  }

  private async reload(): Promise<void> {
    try {
      this.accept(await this.load());
      this.refresh();
    } catch (error) {
      this.fail(error);
    }
  }

  private heed(news: News): void {
    if (news.topic === 'job' && news.id === this.state.id) {
      this.told = Math.max(this.told, news.version);
      void this.catchUp();
    } else if (news.topic === 'again') void this.lookBack();
    else if (news.topic === 'away') {
      this.isAway = true;
      this.refresh();
    }
  }

  /** Take what others did; while edits of ours are under way, their answers bring it. */
  private async catchUp(): Promise<void> {
    await this.line.flush();
    if (this.told > this.state.version && this.line.waiting.length === 0) await this.reload();
  }

  /** The stream was away: was there anything meanwhile? */
  private async lookBack(): Promise<void> {
    await this.line.flush();
    try {
      const since = await request<Since[]>(`/api/jobs/${this.state.id}/edits?since=${this.state.version}`);
      this.isAway = false;
      this.told = Math.max(this.told, since.at(-1)?.version ?? 0);
      this.refresh();
      await this.catchUp();
    } catch (error) {
      this.fail(error);
    }
  }

  private fail(error: unknown): void {
    if (!(error instanceof RequestError)) throw error;
    if (error.isPassing) this.isAway = true;
    else this.set({ problem: error.message });
    this.refresh();
  }

  private set(part: Partial<JobState>): void {
    this.state = { ...this.state, ...part };
    if (!this.isQuiet) this.listeners.forEach((listener) => listener());
  }

  /** What was not told yet. */
  private speak(): void {
    if (!this.isQuiet) return;
    this.isQuiet = false;
    this.set({});
  }
}
