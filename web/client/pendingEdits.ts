import type { EditOperation } from 'wattograph-core';

/** An edit made here that the server has not acknowledged yet. */
export interface PendingEdit {
  id: string;
  label: string;
  author: string;
  patch: EditOperation[];
}

const key = (jobId: string) => `wattograph.edits.${jobId}`;

/** Edits that a reload or a crash of the page found unsent; they are sent before anything new. */
export function readPending(jobId: string): PendingEdit[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(key(jobId)) ?? '[]');
    return Array.isArray(kept) ? (kept as PendingEdit[]) : [];
  } catch {
    return [];
  }
}

export function writePending(jobId: string, edits: readonly PendingEdit[]): void {
  if (edits.length) localStorage.setItem(key(jobId), JSON.stringify(edits));
  else localStorage.removeItem(key(jobId));
}
