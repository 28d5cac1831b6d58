import type { CarriedWork } from 'wattograph-core';
import type { FloorEvent } from '../../server/floorEvent';
import { readDevice } from '../device';
import { readPerson } from '../person';
import { hearNews, type News } from '../live';
import { listLines, OutboxLine, type Refused } from '../outbox/outboxLine';
import { createPhotoLine, type WaitingPhoto } from '../photoLine';
import { DEAD_LINE_MS, request } from '../request';

export interface FloorState {
  events: FloorEvent[];
  /** made here, not yet acknowledged */
  waiting: FloorEvent[];
  /** when the first of them was made, ms; null: none waits */
  oldestSince: number | null;
  /** made here, not taken by the server, kept on this tablet */
  refused: Refused<Made>[];
  /** what earlier revisions left done */
  carried: CarriedWork;
  online: boolean;
  /** some of it waits until who made it signs in here */
  isBarred: boolean;
  /** the tablet has no room: what is ticked is lost when the page is closed before it is sent */
  isFull: boolean;
  /** photos taken here, not yet on the server */
  waitingPhotos: WaitingPhoto[];
  /** and those that it does not take */
  refusedPhotos: Refused<WaitingPhoto>[];
  /** what this tablet kept before is known */
  isOpen: boolean;
}

/** What a page tells of something that happened; when, where and by whom is put to it. */
export type Happened = Omit<FloorEvent, 'id' | 'happenedAt' | 'device' | 'after'>;

const MOST_SENT = 200;
const MOST_CAPTION = 200;

const lineOf = (jobId: string) => `event/${jobId}/`;
const pathOf = (jobId: string, release: number) => `/api/jobs/${jobId}/releases/${release}/events`;

/** by: id of who made it, who may not be who is signed in when it is sent; undefined: kept by an older Wattograph */
type Made = FloorEvent & { by?: string };

/** Send events that one and the same person made; the server signs them with the name that it knows. */
async function sendEvents(path: string, batch: readonly { body: Made }[]): Promise<FloorEvent[]> {
  const events = batch.map(({ body: { by: _, ...event } }) => event);
  await request(path, { events }, { by: batch[0]?.body.by, withinMs: DEAD_LINE_MS });
  return events;
}

/** Ticks of one revision on this tablet: kept here until the server has them, each counted once. */
export class FloorStore {
  private state: FloorState;
  private listeners = new Set<() => void>();
  private readonly line: OutboxLine<Made>;
  private readonly photos: OutboxLine<WaitingPhoto>;
  private readonly path: string;

  constructor(
    private readonly jobId: string,
    private readonly release: number,
    private readonly loomId: string,
    events: FloorEvent[],
    carried: CarriedWork,
  ) {
    this.path = pathOf(jobId, release);
    this.line = new OutboxLine<Made>({
      name: `${lineOf(jobId)}${release}`,
      most: MOST_SENT,
      ofWhom: ({ by }) => by,
      send: async (batch) => {
        const sent = await sendEvents(this.path, batch);
        return () => this.addEvents(sent);
      },
      onGone: async () => {
        const fresh = await this.listNew().catch(() => null);
        return () => {
          if (fresh) this.set({ events: fresh });
        };
      },
      onChange: () => this.refresh(),
    });
    this.photos = createPhotoLine(jobId, { onSent: () => Promise.resolve(() => undefined), onChange: () => this.refresh() });
    this.state = {
      ...{ waitingPhotos: [], refusedPhotos: [] },
      events,
      waiting: [],
      oldestSince: null,
      refused: [],
      carried,
      online: true,
      isFull: false,
      isOpen: false,
      isBarred: false,
    };
  }

  /** Send what waits and hear what others tick, until the function given back is called. */
  begin(): () => void {
    const ends = [this.line.begin(), this.photos.begin(), hearNews((news) => this.heed(news))];
    void this.line.opened.then(() => this.sendEarlier());
    return () => ends.forEach((end) => end());
  }

  subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  get = (): FloorState => this.state;

  add(event: Happened): void {
    this.addMany([event]);
  }

  /** Several that happened at once, as the readings of a file. */
  addMany(events: readonly Happened[]): void {
    this.line.addMany(events.map((event) => this.stamp(event)));
  }

  /** Something with a picture of it, as a problem or what is covered next: its photo is found by the id of what was told. */
  addWithPhoto(event: Happened, photo: Pick<WaitingPhoto, 'blob' | 'node' | 'caption'> | null): void {
    const told = this.stamp(event);
    this.line.addMany([told]);
    if (!photo) return;
    const { id, happenedAt: takenAt, loomId: loom, author, by } = told.body;
    const caption = photo.caption.slice(0, MOST_CAPTION);
    // on the device each has a row of its own; at the server the one is found by the id of the other
    this.photos.add(`photo ${id}`, { ...photo, id, caption, loom, author, takenAt, by });
  }

  /** When, where and by whom it happened. */
  private stamp(event: Happened): { id: string; body: Made } {
    const id = crypto.randomUUID();
    const seen = { happenedAt: new Date().toISOString(), device: readDevice(), after: this.lastSerial() };
    return { id, body: { ...event, ...seen, id, by: readPerson().id } };
  }

  /** The last event that this device has heard of. */
  private lastSerial = (): number => this.state.events.reduce((last, { serial }) => Math.max(last, serial ?? 0), 0);

  /** Send what was refused once more. */
  retry = (id: string): void => {
    void this.line.retry(id);
    void this.photos.retry(id);
  };

  /** Let go what was refused. */
  letGo = (id: string): void => {
    void this.line.remove([id]);
    void this.photos.remove([id]);
  };

  private heed(news: News): void {
    if (news.topic === 'away') this.set({ online: false });
    else if (news.topic === 'again') void this.catchUp();
    else if (news.topic === 'floor' && news.id === this.jobId) {
      if (news.number === this.release) void this.fetch();
      // a tablet that was away sent ticks of a revision before
      else if (news.number < this.release) void this.sendEarlier();
    }
  }

  private async catchUp(): Promise<void> {
    await Promise.all([this.line.flush(), this.photos.flush()]);
    await this.fetch();
    await this.sendEarlier();
  }

  /** What this tablet sent, beside what is here: the server may have told of some of it before it answered. */
  private addEvents(sent: readonly FloorEvent[]): void {
    const known = new Set(this.state.events.map(({ id }) => id));
    this.set({ events: [...this.state.events, ...sent.filter(({ id }) => !known.has(id))] });
  }

  /** What the server has that this tablet has not heard of; what it sent itself gets its place among it. */
  private async listNew(): Promise<FloorEvent[]> {
    const fresh = await request<FloorEvent[]>(`${this.path}?after=${this.lastSerial()}`);
    const ids = new Set(fresh.map(({ id }) => id));
    const { events } = this.state;
    const placed = events.filter(({ id, serial }) => serial !== undefined && !ids.has(id));
    return [...placed, ...fresh, ...events.filter(({ id, serial }) => serial === undefined && !ids.has(id))];
  }

  private async fetch(): Promise<void> {
    try {
      this.set({ events: await this.listNew(), online: true });
    } catch {
      this.set({ online: false });
    }
  }

  /** Ticks of other revisions that wait on this tablet go where they belong; then what they come to here is asked for. */
  private async sendEarlier(): Promise<void> {
    try {
      const prefix = lineOf(this.jobId);
      for (const name of await listLines(prefix)) {
        const release = Number(name.slice(prefix.length));
        if (release === this.release) continue;
        const send = async (batch: readonly { body: Made }[]) => {
          await sendEvents(pathOf(this.jobId, release), batch);
          return () => {};
        };
        const line = new OutboxLine<Made>({ name, most: MOST_SENT, ofWhom: ({ by }) => by, send, onChange: () => {} });
        const end = line.begin();
        await line.opened;
        await line.flush();
        end();
      }
      const loom = encodeURIComponent(this.loomId);
      this.set({ carried: await request<CarriedWork>(`${this.path.replace(/events$/, 'carried')}?loom=${loom}`) });
    } catch {
      // they stay where they are: the next time round
    }
  }

  private refresh(): void {
    const { waiting, oldestSince, refused, online, isFull, isOpen, isBarred } = this.line;
    this.set({
      ...{ waiting: waiting.map(({ body }) => body), oldestSince, refused, online, isOpen },
      ...{ isFull: isFull || this.photos.isFull, isBarred: isBarred || this.photos.isBarred },
      ...{ waitingPhotos: this.photos.waiting.map(({ body }) => body), refusedPhotos: this.photos.refused },
    });
  }

  private set(part: Partial<FloorState>): void {
    this.state = { ...this.state, ...part };
    this.listeners.forEach((listener) => listener());
  }
}
