import { CURE, dropOvertaken, POURED, type Step } from 'wattograph-core';
import type { FloorEvent } from '../server/floorEvent';

/** What cures in a step: since when, and when it is ready. */
export interface Cure {
  pouredAt: Date;
  readyAt: Date;
  author: string;
}

/** The cure that a step waits for, by the pouring that counts last; null: the step is no wait, or nothing is poured yet. */
export function findCure(step: Pick<Step, 'operation' | 'items' | 'needs'>, events: readonly FloorEvent[]): Cure | null {
  if (step.operation !== 'wait') return null;
  const hours = step.items.flatMap(({ asks }) => asks).find(({ what }) => what === CURE)?.value;
  const potId = step.needs.find(({ stepId }) => stepId.startsWith('pot.'))?.stepId;
  if (typeof hours !== 'number') return null;
  const told = dropOvertaken(events).filter(
    ({ stepId, itemId, kind }) => stepId === potId && itemId === POURED && (kind === 'tick' || kind === 'untick'),
  );
  const last = told.at(-1);
  if (!last || last.kind !== 'tick') return null;
  const pouredAt = new Date(last.happenedAt);
  return { pouredAt, readyAt: new Date(pouredAt.getTime() + hours * 3_600_000), author: last.author };
}
