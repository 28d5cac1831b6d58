import type { Operation, Step } from '../step';
import type { Taken } from './measureTaken';

/** What the shop's figures say of work that is done, and what it took. */
export interface TimesOf {
  operation: Operation;
  /** things ticked, of steps that were timed */
  items: number;
  plannedMin: number;
  takenMin: number;
}

/** A loom with what is done of it, and how long that took. */
export interface TimedLoom {
  steps: readonly Step[];
  minutes: ReadonlyMap<string, number>;
  taken: ReadonlyMap<string, Taken>;
  isDone: (stepId: string, itemId: string) => boolean;
}

/**
 * By kind of work, of all looms and everybody together: never of one person (craft D6, H6). A step that nobody's time is known of counts on
 * neither side, nor does what an earlier revision left done of it.
 */
export function compareTimes(looms: readonly TimedLoom[]): TimesOf[] {
  const byOperation = new Map<Operation, TimesOf>();
  for (const { steps, minutes, taken, isDone } of looms)
    for (const { id, operation, items } of steps) {
      const took = taken.get(id);
      const done = items.filter((item) => isDone(id, item.id));
      if (!took || took.minutes === 0 || done.length === 0) continue;
      const sum = byOperation.get(operation) ?? { operation, items: 0, plannedMin: 0, takenMin: 0 };
      byOperation.set(operation, sum);
      sum.items += done.length;
      sum.plannedMin += done.reduce((all, item) => all + minutes.get(`${id} ${item.id}`)!, 0);
      sum.takenMin += took.minutes;
    }
  return [...byOperation.values()];
}
