import type { FloorEvent } from '../server/releases';
import { request, RequestError } from './request';

export interface FloorState {
  events: FloorEvent[];
  /** made here, not yet acknowledged */
  waiting: FloorEvent[];
  online: boolean;
  problem: string | null;
}

const RETRY_MS = 1500;
const POLL_MS = 5000;

/** Ticks of one revision on this tablet: kept here until the server has them, each counted once. */
export class FloorStore {
  private state: FloorState;
  private listeners = new Set<() => void>();
  private sending = false;
  private retry: ReturnType<typeof setTimeout> | undefined;
  private readonly key: string;
  private readonly path: string;

  constructor(jobId: string, release: number, events: FloorEvent[]) {
    this.key = `wattograph.floor.${jobId}.${release}`;
    this.path = `/api/jobs/${jobId}/releases/${release}/events`;
    this.state = { events, waiting: this.readWaiting(), online: true, problem: null };
  }

  /** Send what waits and watch what others tick, until the function given back is called. */
  begin(): () => void {
    void this.send();
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
    this.keep([...this.state.waiting, { ...event, id: crypto.randomUUID(), happenedAt: new Date().toISOString() }]);
    void this.send();
  }

  private async send(): Promise<void> {
    if (this.sending || this.state.waiting.length === 0) return;
    this.sending = true;
    clearTimeout(this.retry);
    const batch = this.state.waiting.slice(0, 200);
    try {
      await request(this.path, { events: batch });
      const sent = new Set(batch.map(({ id }) => id));
      this.set({ events: [...this.state.events, ...batch], online: true });
      this.keep(this.state.waiting.filter(({ id }) => !sent.has(id)));
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
    } catch {
      this.set({ online: false });
    }
  }

  private keep(waiting: FloorEvent[]): void {
    if (waiting.length) localStorage.setItem(this.key, JSON.stringify(waiting));
    else localStorage.removeItem(this.key);
    this.set({ waiting });
  }

  private readWaiting(): FloorEvent[] {
    try {
      return JSON.parse(localStorage.getItem(this.key) ?? '[]') as FloorEvent[];
    } catch {
      return [];
    }
  }

  private set(part: Partial<FloorState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
