import { toUrl } from './base';
import {
  recordSurveyEntry,
  applyEdit,
  findStandard,
  listOperations,
  settleConflict,
  applySurveyEntry,
  type Job,
  type SurveyEntry,
} from 'wattograph-core';
import type { PhotoLine } from '../server/photos';
import { readAuthor, readPerson, setPerson } from './person';
import type { Loaded, Opened } from './jobStore';
import { hearNews, type News } from './live';
import { outboxDatabase } from './outbox/outboxDatabase';
import { OutboxLine } from './outbox/outboxLine';
import { PlanRunner, type PlanResult } from './planner';
import { createPhotoLine, refusePhoto, type WaitingPhoto } from './photoLine';
import { DEAD_LINE_MS, request, RequestError } from './request';

export interface SurveyState {
  /** the job with everything entered here on top */
  job: Job;
  result: PlanResult | null;
  /** entries that this device is still writing down */
  writing: number;
  /** entries kept on this device that the server does not have yet */
  waiting: number;
  /** when the first of what waits was entered, ms; null: nothing waits */
  oldestSince: number | null;
  online: boolean;
  problem: string | null;
  photos: PhotoLine[];
  waitingPhotos: WaitingPhoto[];
  /** entries and photos that the server did not take, kept on this device */
  refused: { id: string; what: string; reason: string }[];
}

/** An entry without what the store adds: its id, author and time. */
export type NewEntry = SurveyEntry extends infer E ? (E extends SurveyEntry ? Omit<E, 'id' | 'author' | 'at'> : never) : never;

interface Kept {
  version: number;
  document: Job;
}

const findOldest = (...times: (number | null)[]): number | null => {
  const known = times.filter((time) => time !== null);
  return known.length ? Math.min(...known) : null;
};

const MOST_AT_ONCE = 100;

const FULL = 'This device is full: what was entered last is lost when the page is closed before it is sent.';

/** by: id of who entered it, who may not be who is signed in when it is sent; undefined: kept by an older Wattograph */
type Made = SurveyEntry & { by?: string };

/**
 * A job at the vehicle, with or without a network. Every entry shows at once and stays in the device's own database until the server has it.
 * The server takes each once by its id.
 */
export class SurveyStore {
  private state: SurveyState;
  private confirmed: Kept;
  private readonly entries: OutboxLine<Made>;
  private readonly pictures: OutboxLine<WaitingPhoto>;
  private readonly runner: PlanRunner;
  private listeners = new Set<() => void>();
  private isAway = false;
  private wasFull = false;
  /** what the job with everything on top was made of */
  private shown: { document: Job; waiting: readonly unknown[]; job: Job } | null = null;

  constructor(private readonly loaded: Opened) {
    setPerson(loaded.person);
    this.runner = new PlanRunner(loaded.shop);
    this.confirmed = { version: loaded.version, document: loaded.document };
    this.entries = new OutboxLine<Made>({
      name: `survey/${loaded.id}`,
      most: MOST_AT_ONCE,
      ofWhom: ({ by }) => by,
      send: (batch) => this.send(batch.map(({ body }) => body)),
      onGone: () => this.readAnew(),
      onChange: () => this.refresh(),
    });
    this.pictures = createPhotoLine(loaded.id, { onSent: () => this.listAnew(), onChange: () => this.refresh() });
    this.state = {
      ...{ job: loaded.document, result: null, writing: 0, waiting: 0, oldestSince: null, online: true, problem: null },
      ...{ photos: [], waitingPhotos: [], refused: [] },
    };
    this.runner.tell(
      (result) => this.set({ result }),
      (message) => this.set({ problem: `The plan could not be computed: ${message}` }),
    );
  }

  /** Take up what this device kept, then send and listen. Ends with the function given back. */
  begin(): () => void {
    const ends = [this.entries.begin(), this.pictures.begin(), hearNews((news) => this.heed(news))];
    void this.takeUp();
    void this.readPhotos();
    const back = () => void this.catchUp();
    window.addEventListener('online', back);
    return () => {
      ends.forEach((end) => end());
      window.removeEventListener('online', back);
      this.runner.end();
    };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): SurveyState => this.state;

  forgetProblem = (): void => this.set({ problem: null });

  /**
   * Enter something. Gives what stands against it, or null when it is taken: it shows at once, so that what is read next goes on
   * from it however fast it comes. What then cannot be written down on this device is taken away again and told as a problem.
   */
  add(entry: NewEntry): string | null {
    const whole = { ...entry, id: crypto.randomUUID(), author: readAuthor(), at: new Date().toISOString() } as SurveyEntry;
    const taken = applySurveyEntry(this.state.job, whole, this.loaded.shop, findStandard(this.state.job, this.loaded.shop));
    if (taken.kind === 'conflict') return taken.theirs;
    this.entries.add(whole.id, { ...whole, by: readPerson().id });
    return null;
  }

  /** Take the last entry back: from this device while it waits here, else from the job, which needs a network. */
  async undo(): Promise<void> {
    // what is under way is answered first: else the server would take back the entry before it
    await this.entries.flush();
    const last = this.entries.waiting.at(-1);
    if (last) {
      await this.entries.remove([last.id]);
      return;
    }
    try {
      await request(`/api/jobs/${this.loaded.id}/history`, { id: crypto.randomUUID(), direction: 'undo' });
      await this.reload();
    } catch (error) {
      if (error instanceof RequestError && error.isPassing)
        this.set({ problem: 'What the server has already is taken back with a network only.' });
      else this.fail(error);
    }
  }

  addPhoto(photo: Omit<WaitingPhoto, 'id' | 'author' | 'takenAt' | 'by'>): void {
    const problem = refusePhoto(photo.blob);
    if (problem !== null) {
      this.set({ problem });
      return;
    }
    const id = crypto.randomUUID();
    this.pictures.add(id, { ...photo, id, author: readAuthor(), takenAt: new Date().toISOString(), by: readPerson().id });
  }

  /** Send what was refused once more. */
  retry = (id: string): void => {
    void this.entries.retry(id);
    void this.pictures.retry(id);
  };

  /** Let go what was refused. */
  letGo = (id: string): void => {
    void this.entries.remove([id]);
    void this.pictures.remove([id]);
  };

  async removePhoto(id: string): Promise<void> {
    const response = await fetch(toUrl(`/api/photos/${id}`), { method: 'DELETE' }).catch(() => null);
    if (response?.ok) await this.readPhotos();
    else this.set({ problem: 'The photo is removed with a network only; it stays for now.' });
  }

  /** Settle a conflict on the server, with a network: mine goes on top, or theirs stands. */
  async settle(conflictId: string, keep: 'mine' | 'theirs'): Promise<void> {
    await this.entries.flush();
    const { document, version } = this.confirmed;
    const next = settleConflict(document, conflictId, keep, this.loaded.shop, findStandard(document, this.loaded.shop));
    const patch = listOperations(document, next);
    if (patch.length === 0) {
      this.set({ problem: 'It cannot be put on top as it is: set it aside, and enter it again where it belongs.' });
      return;
    }
    const mine = document.surveyConflicts[conflictId]?.mine ?? '';
    try {
      await request(`/api/jobs/${this.loaded.id}/edits`, {
        id: crypto.randomUUID(),
        base: version,
        label: `settled, ${keep === 'mine' ? 'taken' : 'set aside'}: ${mine}`.slice(0, 200),
        patch,
      });
      const applied = applyEdit(document, patch);
      if (applied.ok) await this.keep({ version: version + 1, document: applied.value });
    } catch (error) {
      this.fail(error);
      await this.reload();
    }
  }

  /** The job as this device last had it: a page from the cache is older. */
  private async takeUp(): Promise<void> {
    const kept = await outboxDatabase.kept.get(this.loaded.id).catch(() => undefined);
    if (kept && kept.version > this.confirmed.version) this.confirmed = { version: kept.version, document: kept.document as Job };
    else await this.keep(this.confirmed);
    this.refresh();
  }

  private async send(made: readonly Made[]): Promise<() => void> {
    const entries = made.map(({ by: _, ...entry }) => entry);
    const path = `/api/jobs/${this.loaded.id}/survey`;
    const taken = await request<Kept & { conflicts: string[] }>(path, { entries }, { by: made[0]?.by, withinMs: DEAD_LINE_MS });
    return () => {
      this.accept(taken);
      if (taken.conflicts.length === 0) return;
      const meet = taken.conflicts.length === 1 ? 'meets' : 'meet';
      this.set({ problem: `${taken.conflicts.length} entered here ${meet} what somebody else entered: see Settle.` });
    };
  }

  private async listAnew(): Promise<() => void> {
    const photos = await request<PhotoLine[]>(`/api/jobs/${this.loaded.id}/photos`).catch(() => null);
    return () => {
      if (photos) this.set({ photos });
    };
  }

  private async readAnew(): Promise<() => void> {
    const fresh = await request<Loaded>(`/api/jobs/${this.loaded.id}`).catch(() => null);
    return () => {
      if (fresh) this.accept(fresh);
    };
  }

  /** What the server has now, also for the next time without a network. */
  private accept({ version, document }: Kept): void {
    this.isAway = false;
    if (version <= this.confirmed.version) return;
    this.confirmed = { version, document };
    void this.keep(this.confirmed);
  }

  private async keep({ version, document }: Kept): Promise<void> {
    try {
      await outboxDatabase.kept.put({ jobId: this.loaded.id, version, document });
    } catch {
      // with no room the page opens from the network only
    }
  }

  private async readPhotos(): Promise<void> {
    // without a network the photos of others are not shown
    (await this.listAnew())();
  }

  private heed(news: News): void {
    if (news.topic === 'away') {
      this.isAway = true;
      this.refresh();
    } else if (news.topic === 'again') void this.catchUp();
    else if (news.topic === 'photos' && news.id === this.loaded.id) void this.readPhotos();
    else if (news.topic === 'job' && news.id === this.loaded.id) void this.entries.flush().then(() => this.reload(news.version));
  }

  private async catchUp(): Promise<void> {
    await Promise.all([this.entries.flush(), this.pictures.flush()]);
    await Promise.all([this.reload(), this.readPhotos()]);
  }

  /** @param version what is there at least; nothing is asked for where that is here already */
  private async reload(version = Infinity): Promise<void> {
    if (version <= this.confirmed.version) return;
    try {
      this.accept(await request<Loaded>(`/api/jobs/${this.loaded.id}`));
      this.refresh();
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

  private refresh(): void {
    const { shop } = this.loaded;
    const standard = findStandard(this.confirmed.document, shop);
    const { entries, pictures } = this;
    if (this.shown?.document !== this.confirmed.document || this.shown.waiting !== entries.waiting) {
      const job = entries.waiting.reduce((now, { body }) => recordSurveyEntry(now, body, shop, standard).job, this.confirmed.document);
      this.shown = { document: this.confirmed.document, waiting: entries.waiting, job };
    }
    const { job } = this.shown;
    const isFull = entries.isFull || pictures.isFull;
    if (job !== this.state.job || this.state.result === null) this.runner.plan(job);
    this.set({
      job,
      writing: entries.unwritten,
      waiting: entries.waiting.length - entries.unwritten,
      waitingPhotos: pictures.waiting.map(({ body }) => body),
      oldestSince: findOldest(entries.oldestSince, pictures.oldestSince),
      refused: [
        ...entries.refused.map(({ id, body, reason }) => ({
          id,
          what: recordSurveyEntry(this.confirmed.document, body, shop, standard).label,
          reason,
        })),
        ...pictures.refused.map(({ id, body, reason }) => ({ id, what: `photo ${body.caption}`.trim(), reason })),
      ],
      online: !this.isAway && entries.online && pictures.online,
      ...(isFull && !this.wasFull ? { problem: FULL } : {}),
    });
    this.wasFull = isFull;
  }

  private set(part: Partial<SurveyState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
