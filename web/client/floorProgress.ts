import type { CarriedWork, ReopenedItem, Step } from 'wattograph-core';
import type { FloorEvent } from '../server/releases';

export interface StepProgress {
  ticked: Set<string>;
  /** ticked in an earlier revision, by item: in which */
  carried: ReadonlyMap<string, number>;
  /** done in an earlier revision and not as it is asked for now, by item */
  reopened: ReadonlyMap<string, ReopenedItem>;
  /** the last trouble told and not solved */
  trouble: FloorEvent | null;
  done: boolean;
}

/** No revision before this one. */
export const NOTHING_CARRIED: CarriedWork = { carried: [], reopened: [], undo: [] };

/** What the events say of each step: later ones count over earlier ones, and each id once; what earlier revisions left done counts first. */
export function measureProgress(
  steps: readonly Step[],
  events: readonly FloorEvent[],
  before: CarriedWork = NOTHING_CARRIED,
): Map<string, StepProgress> {
  const seen = new Set<string>();
  const ticks = new Map<string, Set<string>>();
  const troubles = new Map<string, FloorEvent | null>();
  const carried = new Map<string, Map<string, number>>();
  for (const { stepId, itemId, revision } of before.carried) {
    ticks.set(stepId, (ticks.get(stepId) ?? new Set()).add(itemId));
    carried.set(stepId, (carried.get(stepId) ?? new Map<string, number>()).set(itemId, revision));
  }
  const reopened = new Map<string, Map<string, ReopenedItem>>();
  for (const one of before.reopened)
    reopened.set(one.stepId, (reopened.get(one.stepId) ?? new Map<string, ReopenedItem>()).set(one.itemId, one));
  for (const event of events) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    const ticked = ticks.get(event.stepId) ?? new Set<string>();
    ticks.set(event.stepId, ticked);
    // said anew in this revision: what an earlier one said counts no more
    carried.get(event.stepId)?.delete(event.itemId);
    if (event.kind === 'tick') ticked.add(event.itemId);
    else if (event.kind === 'untick') ticked.delete(event.itemId);
    else troubles.set(event.stepId, event.kind === 'problem' ? event : null);
  }
  return new Map(
    steps.map((step) => {
      const ticked = ticks.get(step.id) ?? new Set<string>();
      const of = {
        carried: carried.get(step.id) ?? new Map<string, number>(),
        reopened: reopened.get(step.id) ?? new Map<string, ReopenedItem>(),
      };
      return [step.id, { ...of, ticked, trouble: troubles.get(step.id) ?? null, done: step.items.every(({ id }) => ticked.has(id)) }];
    }),
  );
}

/** Where to go on: the first step with something left that can be done now; the last where nothing is left. */
export function findResume(steps: readonly Step[], progress: ReadonlyMap<string, StepProgress>): number {
  const at = steps.findIndex((step) => step.items.some((item) => item.heldBecause === null && !progress.get(step.id)!.ticked.has(item.id)));
  return at < 0 ? Math.max(0, steps.length - 1) : at;
}
