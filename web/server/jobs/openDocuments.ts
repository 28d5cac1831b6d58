import { LRUCache } from 'lru-cache';
import type { Job } from 'wattograph-core';

/** letters of JSON that are held at most, over all jobs */
const MOST_TEXT = 24 * 1024 * 1024;

const held = new LRUCache<string, { stamp: string; document: Job; size: number }>({
  maxSize: MOST_TEXT,
  sizeCalculation: ({ size }) => size,
});

/**
 * The document of a job as this process had it in hand last, so that an edit need not read, parse and freeze it anew. Undefined: its row was
 * written since, by whomever.
 * @param stamp of the row: the transaction that wrote it (xmin)
 */
export function findOpen(id: string, stamp: string): Job | undefined {
  const open = held.get(id);
  return open?.stamp === stamp ? open.document : undefined;
}

/** Hold a document, in the present format, of a row as it is stored. size: letters of its JSON. */
export const holdOpen = (id: string, stamp: string, document: Job, size: number): void =>
  void held.set(id, { stamp, document, size: Math.max(1, size) });
