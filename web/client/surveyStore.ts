import { createStore, delMany, entries as listAll, set, type UseStore } from 'idb-keyval';
import { addEntry, applyEdit, findStandard, listOperations, settleConflict, takeEntry, type Job, type SurveyEntry } from 'wattograph-core';
import type { PhotoLine } from '../server/photos';
import { readAuthor, setPeople } from './author';
import type { Loaded, Opened } from './jobStore';
import { PlanRunner, type PlanResult } from './planner';
import { request, RequestError } from './request';

/** A photo taken here and not yet on the server. */
export interface WaitingPhoto {
  id: string;
  loom: string;
  node: string;
  caption: string;
  author: string;
  takenAt: string;
  blob: Blob;
}

export interface SurveyState {
  /** the job with everything entered here on top */
  job: Job;
  result: PlanResult | null;
  /** entries that this device is still writing down */
  writing: number;
  /** entries kept on this device that the server does not have yet */
  waiting: number;
  online: boolean;
  problem: string | null;
  photos: PhotoLine[];
  waitingPhotos: WaitingPhoto[];
}

/** An entry without what the store adds: its id, author and time. */
export type NewEntry = SurveyEntry extends infer E ? (E extends SurveyEntry ? Omit<E, 'id' | 'author' | 'at'> : never) : never;

interface Kept {
  version: number;
  document: Job;
}

const RETRY_MS = 2000;
const POLL_MS = 5000;
const MOST_AT_ONCE = 100;
const MOST_PHOTO_BYTES = 20 * 1024 * 1024;

/**
 * A job at the vehicle, with or without a network. Every entry shows at once, is in the device's own database before it counts
 * as kept or is sent, and stays there until the server has it. The server takes each once by its id.
 */
export class SurveyStore {
  private state: SurveyState;
  private confirmed: Kept;
  private queue: SurveyEntry[] = [];
  /** ids of entries that are shown and not yet in the device's own database */
  private readonly unwritten = new Set<string>();
  /** ends when all that was to be written has been */
  private writing: Promise<void> = Promise.resolve();
  /** ends when what is being sent has been answered */
  private sent: Promise<void> = Promise.resolve();
  private readonly runner: PlanRunner;
  private readonly kept: UseStore;
  private listeners = new Set<() => void>();
  private timers: ReturnType<typeof setInterval>[] = [];
  private sending = false;
  private order = 0;

  constructor(private readonly loaded: Opened) {
    setPeople(loaded.shop.people);
    this.runner = new PlanRunner(loaded.shop);
    this.confirmed = { version: loaded.version, document: loaded.document };
    this.kept = createStore(`wattograph-survey-${loaded.id}`, 'kept');
    this.state = { job: loaded.document, result: null, writing: 0, waiting: 0, online: true, problem: null, photos: [], waitingPhotos: [] };
    this.runner.tell(
      (result) => this.set({ result }),
      (message) => this.set({ problem: `The plan could not be computed: ${message}` }),
    );
  }

  /** Take up what this device kept, then send and watch. Ends with the function given back. */
  begin(): () => void {
    let isOver = false;
    this.writing = this.open();
    void this.writing.then(() => {
      if (isOver) return;
      void this.send();
      void this.readPhotos();
    });
    this.timers = [setInterval(() => void this.send(), RETRY_MS), setInterval(() => void this.poll(), POLL_MS)];
    const back = () => void this.send();
    window.addEventListener('online', back);
    return () => {
      isOver = true;
      this.timers.forEach(clearInterval);
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
    const taken = takeEntry(this.state.job, whole, this.loaded.shop, findStandard(this.state.job, this.loaded.shop));
    if (taken.kind === 'conflict') return taken.theirs;
    this.order += 1;
    const key = `entry/${String(Date.now()).padStart(15, '0')}/${String(this.order).padStart(6, '0')}/${whole.id}`;
    this.unwritten.add(whole.id);
    this.queue = [...this.queue, whole];
    this.refresh();
    this.writing = this.writing.then(() => this.write(key, whole));
    return null;
  }

  /** Take the last entry back: from this device while it waits here, else from the job, which needs a network. */
  async undo(): Promise<void> {
    // what is under way is answered first: else the server would take back the entry before it
    await this.writing;
    await this.sent;
    const last = this.queue.at(-1);
    if (last) {
      this.queue = this.queue.filter(({ id }) => id !== last.id);
      this.refresh();
      await this.forget([last.id]);
      return;
    }
    try {
      await request(`/api/jobs/${this.loaded.id}/history`, { id: crypto.randomUUID(), author: readAuthor(), direction: 'undo' });
      await this.reload();
    } catch (error) {
      if (error instanceof RequestError && error.isPassing)
        this.set({ problem: 'What the server has already is taken back with a network only.' });
      else this.fail(error);
    }
  }

  async addPhoto(photo: Omit<WaitingPhoto, 'id' | 'author' | 'takenAt'>): Promise<void> {
    if (photo.blob.size > MOST_PHOTO_BYTES) {
      const got = (photo.blob.size / 1024 / 1024).toFixed(0);
      this.set({ problem: `A photo was not kept: expected at most ${MOST_PHOTO_BYTES / 1024 / 1024} MB, got ${got} MB.` });
      return;
    }
    const whole = { ...photo, id: crypto.randomUUID(), author: readAuthor(), takenAt: new Date().toISOString() };
    await set(`photo/${whole.id}`, whole, this.kept);
    this.set({ waitingPhotos: [...this.state.waitingPhotos, whole] });
    void this.send();
  }

  async removePhoto(id: string): Promise<void> {
    const response = await fetch(`/api/photos/${id}`, { method: 'DELETE' }).catch(() => null);
    if (response?.ok) await this.readPhotos();
    else this.set({ problem: 'The photo is removed with a network only; it stays for now.' });
  }

  /** Settle a conflict on the server, with a network: mine goes on top, or theirs stands. */
  async settle(conflictId: string, keep: 'mine' | 'theirs'): Promise<void> {
    await this.send();
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
        author: readAuthor(),
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

  private async open(): Promise<void> {
    const all = await listAll<string, unknown>(this.kept);
    const sorted = all.sort(([a], [b]) => (a < b ? -1 : 1));
    const before = sorted.filter(([key]) => key.startsWith('entry/')).map(([, value]) => value as SurveyEntry);
    this.queue = [...before, ...this.queue];
    const waitingPhotos = sorted.filter(([key]) => key.startsWith('photo/')).map(([, value]) => value as WaitingPhoto);
    const job = sorted.find(([key]) => key === 'job')?.[1] as Kept | undefined;
    // a page from the cache is older than what this device last had from the server
    if (job && job.version > this.confirmed.version) this.confirmed = job;
    else await set('job', this.confirmed, this.kept);
    this.set({ waitingPhotos });
    this.refresh();
  }

  private async write(key: string, entry: SurveyEntry): Promise<void> {
    try {
      await set(key, entry, this.kept);
    } catch (error) {
      this.queue = this.queue.filter(({ id }) => id !== entry.id);
      this.set({ problem: `The last entry could not be kept on this device; enter it again. ${(error as Error).message}` });
    }
    this.unwritten.delete(entry.id);
    this.refresh();
    void this.send();
  }

  private send(): Promise<void> {
    if (!this.sending && (this.state.waiting || this.state.waitingPhotos.length)) this.sent = this.sendAll();
    return this.sent;
  }

  private async sendAll(): Promise<void> {
    this.sending = true;
    try {
      for (;;) {
        const batch = this.queue.filter(({ id }) => !this.unwritten.has(id)).slice(0, MOST_AT_ONCE);
        if (batch.length === 0) break;
        const taken = await request<Kept & { conflicts: string[] }>(`/api/jobs/${this.loaded.id}/survey`, { entries: batch });
        await this.forget(batch.map(({ id }) => id));
        await this.keep(taken);
        this.set({ online: true });
        if (taken.conflicts.length)
          this.set({
            problem: `${taken.conflicts.length} entered here ${taken.conflicts.length === 1 ? 'meets' : 'meet'} what somebody else entered: see Settle.`,
          });
      }
      for (const photo of this.state.waitingPhotos) await this.sendPhoto(photo);
    } catch (error) {
      this.fail(error);
    } finally {
      this.sending = false;
    }
  }

  private async sendPhoto({ blob, ...about }: WaitingPhoto): Promise<void> {
    const response = await fetch(`/api/jobs/${this.loaded.id}/photos?${new URLSearchParams(about).toString()}`, {
      method: 'POST',
      body: blob,
    }).catch(() => null);
    if (!response) throw new RequestError(0, [], {});
    // one that is refused is no better the next time: it is told and let go
    if (!response.ok && response.status !== 503) {
      const answer = (await response.json().catch(() => null)) as { problems?: { message: string }[] } | null;
      this.set({ problem: `A photo was not stored: ${answer?.problems?.[0]?.message ?? response.status}` });
    } else if (!response.ok) throw new RequestError(503, [], {});
    await this.forget([about.id]);
    this.set({ waitingPhotos: this.state.waitingPhotos.filter(({ id }) => id !== about.id), online: true });
    await this.readPhotos();
  }

  private async forget(ids: readonly string[]): Promise<void> {
    const gone = new Set(ids);
    const keys = (await listAll<string, { id?: string }>(this.kept))
      .filter(([key, value]) => key !== 'job' && value.id && gone.has(value.id))
      .map(([key]) => key);
    await delMany(keys, this.kept);
    this.queue = this.queue.filter(({ id }) => !gone.has(id));
  }

  private async keep({ version, document }: Kept): Promise<void> {
    this.confirmed = { version, document };
    await set('job', this.confirmed, this.kept);
    this.refresh();
  }

  private async readPhotos(): Promise<void> {
    try {
      this.set({ photos: await request<PhotoLine[]>(`/api/jobs/${this.loaded.id}/photos`) });
    } catch {
      // without a network the photos of others are not shown
    }
  }

  private async poll(): Promise<void> {
    if (document.hidden || this.sending || this.queue.length) return;
    try {
      const since = await request<unknown[]>(`/api/jobs/${this.loaded.id}/edits?since=${this.confirmed.version}`);
      this.set({ online: true });
      if (since.length) await this.reload();
    } catch {
      this.set({ online: false });
    }
  }

  private async reload(): Promise<void> {
    try {
      const { version, document } = await request<Loaded>(`/api/jobs/${this.loaded.id}`);
      if (version >= this.confirmed.version) await this.keep({ version, document });
    } catch (error) {
      this.fail(error);
    }
  }

  private fail(error: unknown): void {
    if (!(error instanceof RequestError)) throw error;
    if (error.isPassing) this.set({ online: false });
    else this.set({ problem: error.message });
  }

  private refresh(): void {
    const standard = findStandard(this.confirmed.document, this.loaded.shop);
    const job = this.queue.reduce((now, entry) => addEntry(now, entry, this.loaded.shop, standard).job, this.confirmed.document);
    if (job !== this.state.job || this.state.result === null) this.runner.plan(job);
    this.set({ job, writing: this.unwritten.size, waiting: this.queue.length - this.unwritten.size });
  }

  private set(part: Partial<SurveyState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
