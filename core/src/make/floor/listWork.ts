import type { Step, StepItem } from '../step';
import { toLane } from './lanes';

export type WorkState = 'done' | 'ready' | 'waiting' | 'held';

/** Where a step stands: what can be done of it now, and what it waits for. */
export interface Work {
  step: Step;
  lane: string | null;
  state: WorkState;
  /** of its items */
  done: number;
  /** steps that come first and are not done, with the reason */
  waitsFor: { step: Step; because: string }[];
}

/**
 * The steps of a loom with where each stands (craft D1). One is ready when all that it needs is done, held where all that is left of it is
 * held. What is left of a need and held stands in the way only where it is of the same wires: beyond an open length all waits, beside it
 * work goes on (craft G2).
 */
export function listWork(steps: readonly Step[], isItemDone: (stepId: string, itemId: string) => boolean): Work[] {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const left = new Map(steps.map((step) => [step.id, step.items.filter(({ id }) => !isItemDone(step.id, id))]));
  return steps.map((step) => {
    const open = left.get(step.id)!;
    const doable = open.filter(({ heldBecause }) => heldBecause === null);
    const waitsFor = step.needs.flatMap(({ stepId, because }) => {
      const need = byId.get(stepId);
      return need && isInTheWay(left.get(stepId)!, doable) ? [{ step: need, because }] : [];
    });
    const state = open.length === 0 ? 'done' : doable.length === 0 ? 'held' : waitsFor.length > 0 ? 'waiting' : 'ready';
    return { step, lane: toLane(step), state, done: step.items.length - open.length, waitsFor };
  });
}

function isInTheWay(needed: readonly StepItem[], doable: readonly StepItem[]): boolean {
  if (needed.some(({ heldBecause }) => heldBecause === null)) return true;
  const missing = new Set(needed.flatMap(({ wireIds }) => wireIds));
  return doable.some(({ wireIds }) => wireIds.some((id) => missing.has(id)));
}
