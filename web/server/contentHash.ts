import { createHash } from 'node:crypto';
import { stringify } from 'safe-stable-stringify';
import { Refusal } from './refusal';

/** SHA-256 of what was sent under an id, whatever the order of its names: the same again is the same, other content is refused. */
export function toContentHash(value: unknown): string {
  return createHash('sha256')
    .update(stringify(value) ?? '')
    .digest('hex');
}

/** Is it the very thing that is stored under this id? null: stored by a Wattograph that kept no hash. Throws 409 where it is another. */
export function expectSame(stored: string | null, sent: string, what: string): void {
  if (stored === null || stored === sent) return;
  throw Refusal.at(409, 'id', `expected an id of its own, got that of another ${what}: this one was not stored`);
}
