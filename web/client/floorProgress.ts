import type { Step } from 'wattograph-core';
import type { FloorEvent } from '../server/releases';

export interface StepProgress {
  ticked: Set<string>;
  /** the last trouble told and not solved */
  trouble: FloorEvent | null;
  done: boolean;
}

/** What the events say of each step: later ones count over earlier ones, and each id once. */
export function measureProgress(steps: readonly Step[], events: readonly FloorEvent[]): Map<string, StepProgress> {
  const seen = new Set<string>();
  const ticks = new Map<string, Set<string>>();
  const troubles = new Map<string, FloorEvent | null>();
  for (const event of events) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    const ticked = ticks.get(event.stepId) ?? new Set<string>();
    ticks.set(event.stepId, ticked);
    if (event.kind === 'tick') ticked.add(event.itemId);
    else if (event.kind === 'untick') ticked.delete(event.itemId);
    else troubles.set(event.stepId, event.kind === 'problem' ? event : null);
  }
  return new Map(
    steps.map((step) => {
      const ticked = ticks.get(step.id) ?? new Set<string>();
      return [step.id, { ticked, trouble: troubles.get(step.id) ?? null, done: step.items.every(({ id }) => ticked.has(id)) }];
    }),
  );
}

/** Where to go on: the first step with something left that can be done now; the last where nothing is left. */
export function findResume(steps: readonly Step[], progress: ReadonlyMap<string, StepProgress>): number {
  const at = steps.findIndex((step) => step.items.some((item) => item.heldBecause === null && !progress.get(step.id)!.ticked.has(item.id)));
  return at < 0 ? Math.max(0, steps.length - 1) : at;
}
