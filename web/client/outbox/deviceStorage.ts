/** What the browser says of the room that it gives this installation on this device. */
export interface DeviceStorage {
  usedMb: number;
  quotaMb: number;
  /** it will not clear what waits here by itself when the disk gets full */
  isKept: boolean;
}

const MB = 1e6;
let isAsked = false;

/** Ask the browser, once for each page, not to clear what waits here. */
export function keepStorage(): void {
  if (isAsked || typeof navigator === 'undefined' || !navigator.storage?.persist) return;
  isAsked = true;
  navigator.storage.persist().catch(() => (isAsked = false));
}

/** Ask once more, and say what has come of it. */
export async function askToKeep(): Promise<DeviceStorage | null> {
  await navigator.storage?.persist?.().catch(() => false);
  return readStorage();
}

/** null: this browser does not say, as on a page without TLS. */
export async function readStorage(): Promise<DeviceStorage | null> {
  const { storage } = navigator;
  if (!storage?.estimate || !storage.persisted) return null;
  const [{ usage = 0, quota = 0 }, isKept] = await Promise.all([storage.estimate(), storage.persisted()]);
  return { usedMb: usage / MB, quotaMb: quota / MB, isKept };
}

const MINUTE_MS = 60_000;
const DAY_MS = 24 * 60 * MINUTE_MS;

/** ", oldest since 08:12" of what has waited for more than a minute; of another day with its date. */
export function sayOldest(since: number | null, now = Date.now(), locale?: string): string {
  if (since === null || now - since < MINUTE_MS) return '';
  const style = now - since < DAY_MS ? ({ timeStyle: 'short' } as const) : ({ dateStyle: 'medium', timeStyle: 'short' } as const);
  return `, oldest since ${new Intl.DateTimeFormat(locale, style).format(since)}`;
}
