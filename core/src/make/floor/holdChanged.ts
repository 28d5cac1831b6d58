import type { Step } from '../step';
import type { StepProgress } from './measureProgress';

/**
 * Steps that whoever plans has said to change: what is left of them waits for the revision that has it (craft D4). What is done stays done, and
 * what is in somebody's hand is finished. The same steps where none is.
 *
 * @param inHand by step and item
 */
export function holdChanged(
  steps: readonly Step[],
  progress: ReadonlyMap<string, Pick<StepProgress, 'answer' | 'ticked' | 'failed'>>,
  inHand: ReadonlyMap<string, unknown>,
): readonly Step[] {
  const isChanged = ({ id }: Step) => progress.get(id)?.answer?.itemId === 'change';
  if (!steps.some(isChanged)) return steps;
  return steps.map((step) => {
    if (!isChanged(step)) return step;
    const { answer, ticked, failed } = progress.get(step.id)!;
    const heldBecause = `done otherwise in the next revision: ${answer!.words}`;
    const isLeft = ({ id }: Step['items'][number]) => (!ticked.has(id) || failed.has(id)) && !inHand.has(`${step.id} ${id}`);
    return { ...step, items: step.items.map((item) => (item.heldBecause === null && isLeft(item) ? { ...item, heldBecause } : item)) };
  });
}
