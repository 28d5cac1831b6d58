import type { CarriedWork } from 'wattograph-core';
import type { FloorEvent } from '../server/releases';
import { request, RequestError } from './request';

export interface FloorState {
  events: FloorEvent[];
  /** made here, not yet acknowledged */
  waiting: FloorEvent[];
  /** what earlier revisions left done */
  carried: CarriedWork;
  online: boolean;
  problem: string | null;
}

const RETRY_MS = 1500;
const MOST_SENT = 200;
const POLL_MS = 5000;
/** every so many polls what earlier revisions left done is asked for: a tablet that was away may have sent more of it */
const CARRIED_POLLS = 12;

/** Ticks of one revision on this tablet: kept here until the server has them, each counted once. */
export class FloorStore {
  private state: FloorState;
  private listeners = new Set<() => void>();
  private sending = false;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private readonly key: string;
  private readonly path: string;

  private polls = 0;

  constructor(
    private readonly jobId: string,
    release: number,
    private readonly loomId: string,
    events: FloorEvent[],
    carried: CarriedWork,
  ) {
    this.key = `wattograph.floor.${jobId}.${release}`;
    this.path = `/api/jobs/${jobId}/releases/${release}/events`;
    this.state = { events, waiting: readEvents(this.key), carried, online: true, problem: null };
  }

  /** Send what waits and watch what others tick, until the function given back is called. */
  begin(): () => void {
    void this.send();
    void this.sendEarlier();
    const poll = setInterval(() => void this.fetch(), POLL_MS);
    return () => {
      clearTimeout(this.retry);
      clearInterval(poll);
    };
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): FloorState => this.state;

  add(event: Omit<FloorEvent, 'id' | 'happenedAt'>): void {
    const made = { ...event, id: crypto.randomUUID(), happenedAt: new Date().toISOString() };
    this.set({ waiting: [...this.state.waiting, made] });
    try {
      // beside what another tab keeps there
      writeEvents(this.key, [...readEvents(this.key), made]);
    } catch {
      this.set({ problem: 'This tablet is full: what is ticked is lost when the page is closed before it is sent.' });
    }
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending || this.state.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.retry);
    const batch = this.state.waiting.slice(0, MOST_SENT);
    try {
      await request(this.path, { events: batch });
      const sent = new Set(batch.map(({ id }) => id));
      this.set({ events: [...this.state.events, ...batch], online: true, problem: null });
      this.set({ waiting: this.state.waiting.filter(({ id }) => !sent.has(id)) });
      dropSent(this.key, batch);
    } catch (error) {
      if (error instanceof RequestError && !error.isPassing) this.set({ problem: error.message });
      else this.set({ online: false });
      this.retry = setTimeout(() => void this.send(), RETRY_MS);
    } finally {
      this.sending = false;
    }
    if (this.state.online && this.state.problem === null && this.state.waiting.length) void this.send();
  }

  private async fetch(): Promise<void> {
    if (document.hidden || this.sending) return;
    try {
      this.set({ events: await request<FloorEvent[]>(this.path), online: true });
      this.polls += 1;
      if (this.polls % CARRIED_POLLS === 0) await this.sendEarlier();
    } catch {
      this.set({ online: false });
    }
  }

  /** Ticks of other revisions that wait on this tablet go where they belong; then what they come to here is asked for. */
  private async sendEarlier(): Promise<void> {
    try {
      const prefix = `wattograph.floor.${this.jobId}.`;
      for (const key of Object.keys(localStorage).filter((one) => one.startsWith(prefix) && one !== this.key)) {
        const release = Number(key.slice(prefix.length));
        const events = readEvents(key);
        for (let from = 0; from < events.length; from += MOST_SENT)
          await request(`/api/jobs/${this.jobId}/releases/${release}/events`, { events: events.slice(from, from + MOST_SENT) });
        dropSent(key, events);
      }
      const loom = encodeURIComponent(this.loomId);
      this.set({ carried: await request<CarriedWork>(`${this.path.replace(/events$/, 'carried')}?loom=${loom}`) });
    } catch {
      // they stay where they are: the next time round
    }
  }

  private set(part: Partial<FloorState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}

function readEvents(key: string): FloorEvent[] {
  try {
    return JSON.parse(localStorage.getItem(key) ?? '[]') as FloorEvent[];
  } catch {
    return [];
  }
}

/** Take what the server has from what waits under a key; another tab may have added to it meanwhile. */
function dropSent(key: string, sent: readonly FloorEvent[]): void {
  const ids = new Set(sent.map(({ id }) => id));
  writeEvents(
    key,
    readEvents(key).filter(({ id }) => !ids.has(id)),
  );
}

function writeEvents(key: string, events: readonly FloorEvent[]): void {
  if (events.length) localStorage.setItem(key, JSON.stringify(events));
  else localStorage.removeItem(key);
}
