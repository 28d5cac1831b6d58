import { Refusal } from './refusal';

/** more that wait for one thing are told to come again: their devices keep what they sent */
const MOST_WAITING = 60;

const lines = new Map<string, { last: Promise<unknown>; waiting: number }>();

/**
 * Do what is about one thing one after another, so that a backlog of one job waits here and not on a connection that others need. Other
 * processes are kept apart by the database. Throws 503 where too many wait already.
 */
export async function inTurn<T>(name: string, work: () => Promise<T>): Promise<T> {
  const line = lines.get(name) ?? { last: Promise.resolve(), waiting: 0 };
  if (line.waiting >= MOST_WAITING) throw Refusal.at(503, '', 'Too much is being stored of this job at once; it is tried again.');
  lines.set(name, line);
  line.waiting += 1;
  const mine = line.last.then(work, work);
  line.last = mine.catch(() => undefined);
  try {
    return await mine;
  } finally {
    line.waiting -= 1;
    if (line.waiting === 0) lines.delete(name);
  }
}
