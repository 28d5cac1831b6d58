import { HOLD_OPERATIONS, HOLD_WORDS, type HoldOperation } from '../../model';
import type { Hold, PlannedWire } from '../../plan';
import { compareIds } from '../../units';
import type { Grade } from '../register';

/** What one doubt holds. */
export interface Held {
  /** of what is in doubt */
  id: string;
  /** the first work that it stops */
  stops: HoldOperation;
  /** of the wires that wait, each once */
  numbers: string[];
  /** a wire that is not cut stops a release; what waits later is told */
  grade: Grade;
}

/** What is held by doubts of a kind, one for each, by the first work that it stops. */
export function listHeld(wires: readonly PlannedWire[], kind: Hold['kind']): Held[] {
  const held = new Map<string, Held>();
  // one wire after the other: a number is known where it is the last of the list
  for (const { number, heldBy } of wires)
    for (const one of heldBy) {
      if (one.kind !== kind) continue;
      const known = held.get(one.id) ?? { id: one.id, stops: one.stops, numbers: [], grade: 'check' };
      held.set(one.id, known);
      if (known.numbers.at(-1) !== number) known.numbers.push(number);
      if (HOLD_OPERATIONS.indexOf(one.stops) < HOLD_OPERATIONS.indexOf(known.stops)) known.stops = one.stops;
      if (known.stops === 'cut') known.grade = 'stop';
    }
  return [...held.values()].sort((a, b) => compareIds(a.id, b.id));
}

/** "N-226 is held from seating" */
export const toHeldWords = (what: string, count: number, stops: HoldOperation): string =>
  `${what} ${count === 1 ? 'is' : 'are'} held from ${HOLD_WORDS[stops]}`;
