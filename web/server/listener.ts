import { Client } from 'pg';
import { log } from './log';

/** What the database tells its processes: that something is new, never what. */
export type Heard =
  | { topic: 'job'; id: string; version: number }
  | { topic: 'lines'; id: string }
  | { topic: 'release'; id: string; number: number }
  | { topic: 'floor'; id: string; number: number }
  /** one was told, answered or solved */
  | { topic: 'problem'; id: string }
  | { topic: 'photos'; id: string }
  | { topic: 'shop'; version: number }
  | { topic: 'people' }
  | { topic: 'bin' }
  | { topic: 'work' }
  | { topic: 'task'; id: string }
  /** the connection was away: anything may be new */
  | { topic: 'again' };

export const CHANNEL = 'wattograph';
const RETRY_MS = 1000;

class Listener {
  private client: Client | null = null;
  private readonly hearers = new Set<(heard: Heard) => void>();

  hear(hearer: (heard: Heard) => void): () => void {
    this.hearers.add(hearer);
    if (this.client === null) void this.connect();
    return () => this.hearers.delete(hearer);
  }

  private tell(heard: Heard): void {
    for (const hearer of this.hearers) hearer(heard);
  }

  private async connect(): Promise<void> {
    const client = new Client({ connectionString: process.env.DATABASE_URL, connectionTimeoutMillis: 5000, keepAlive: true });
    this.client = client;
    let isOver = false;
    const again = (error?: Error) => {
      if (isOver) return;
      isOver = true;
      if (error) log.warn({ error: error.message }, 'listening connection lost');
      client.removeAllListeners('notification');
      void client.end().catch(() => {});
      setTimeout(() => void this.connect(), RETRY_MS).unref();
    };
    client.on('error', again);
    client.on('end', () => again());
    client.on('notification', ({ payload }) => {
      if (payload) this.tell(JSON.parse(payload) as Heard);
    });
    try {
      await client.connect();
      await client.query(`listen ${CHANNEL}`);
      this.tell({ topic: 'again' });
    } catch (error) {
      again(error as Error);
    }
  }
}

const holder = globalThis as typeof globalThis & { wattographListener?: Listener };

/** Hear what the database tells, over one connection of this process that comes back when it is lost. Ends with the function given back. */
export function hear(hearer: (heard: Heard) => void): () => void {
  holder.wattographListener ??= new Listener();
  return holder.wattographListener.hear(hearer);
}
