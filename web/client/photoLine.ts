import { OutboxLine } from './outbox/outboxLine';
import { requestStore } from './request';

/** A photo taken here and not yet on the server. */
export interface WaitingPhoto {
  id: string;
  loom: string;
  node: string;
  caption: string;
  author: string;
  takenAt: string;
  blob: Blob;
  /** id of who took it; undefined: kept by an older Wattograph */
  by?: string;
}

export const MOST_PHOTO_BYTES = 20 * 1024 * 1024;

/** What a photo is refused with before it is kept; null: it is not. */
export function refusePhoto({ size }: Blob): string | null {
  if (size <= MOST_PHOTO_BYTES) return null;
  const got = (size / 1024 / 1024).toFixed(0);
  return `A photo was not kept: expected at most ${MOST_PHOTO_BYTES / 1024 / 1024} MB, got ${got} MB.`;
}

/** Photos of a job on their way: one line for every page of this device, whichever is open sends. onSent: what then shows. */
export const createPhotoLine = (
  jobId: string,
  { onSent, onChange }: { onSent: () => Promise<() => void>; onChange: () => void },
): OutboxLine<WaitingPhoto> =>
  new OutboxLine<WaitingPhoto>({
    name: `photo/${jobId}`,
    most: 1,
    send: async ([photo]) => {
      const { blob, by, ...about } = photo!.body;
      await requestStore(`/api/jobs/${jobId}/photos?${new URLSearchParams(about).toString()}`, blob, by);
      return onSent();
    },
    onGone: onSent,
    onChange,
  });
