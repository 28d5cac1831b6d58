import { toCount } from 'wattograph-core';
import { sayOldest } from '../../client/outbox/deviceStorage';
import type { FloorState } from '../../client/floor/floorStore';

/** What of the readings is not stored yet, and why. */
export function sayKept({ waiting, online, isFull, isBarred, oldestSince }: FloorState): string {
  if (isFull) return 'This device is full: what is read is lost when the page is closed before it is sent.';
  const why = isBarred ? ' until who made it signs in' : online ? ', sending' : ', server away';
  if (waiting.length > 0) return `${toCount(waiting.length, 'reading')} kept here${why}${sayOldest(oldestSince)}`;
  return online ? 'all stored' : 'server away';
}
