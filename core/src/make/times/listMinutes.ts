import { TASK_KINDS, type MinuteKey, type ShopStandard, type TaskKind } from '../../model';
import type { LoomPlan } from '../../plan';
import { findLaidLayer } from '../steps/listLayupSteps';
import { ISOLATION, PAIRS, WIGGLE, type Operation, type Step, type StepItem } from '../step';

/** A test is timed by its readings; a cure takes nobody's time; a task says itself what it takes. */
type Untimed = 'test' | 'wait' | TaskKind;
const keyOf = (operation: Exclude<Operation, Untimed>): MinuteKey => operation;

const isTask = (operation: Operation): operation is TaskKind => (TASK_KINDS as readonly string[]).includes(operation);

/** of the whole step, however many things it ticks */
const WHOLE: ReadonlySet<Operation> = new Set<Operation>(['fit', 'sign']);

const READ_BY: Readonly<Record<string, MinuteKey>> = { [PAIRS]: 'pair', [ISOLATION]: 'isolation' };

/** What a step says that it takes. Throws where it says nothing: no time at all would be a wrong one. */
function toOwnMinutes({ id, minutes }: Step): number {
  if (minutes === undefined) throw new RangeError(`minutes of step ${id}: expected what it takes, got nothing`);
  return minutes;
}

/** What the items of one step take, min. A step that lays up is timed by its length. */
function toItemMinutes(step: Step, plan: Pick<LoomPlan, 'layups'>, minutes: ShopStandard['minutes']): (item: StepItem) => number {
  const { operation, items } = step;
  if (operation === 'wait') return () => 0;
  if (operation === 'test')
    return ({ id, reads }) => (id === WIGGLE ? toOwnMinutes(step) : reads.length * (READ_BY[id] ? minutes[READ_BY[id]] : 0));
  if (isTask(operation)) return () => toOwnMinutes(step) / items.length;
  const each = minutes[keyOf(operation)];
  if (WHOLE.has(operation)) return () => each / items.length;
  const laid = operation === 'layup' ? findLaidLayer(plan, step.id) : null;
  if (!laid) return () => each;
  const { fromMark, toMark } = laid.layup.stretches[laid.stretch]!;
  const metres = (laid.layup.marks[toMark]!.mm - laid.layup.marks[fromMark]!.mm) / 1000;
  return () => each * metres;
}

/** What each thing to tick of a loom takes by the figures of the shop, min, by step and item (calculations H1). */
export function listMinutes(steps: readonly Step[], plan: Pick<LoomPlan, 'layups'>, minutes: ShopStandard['minutes']): Map<string, number> {
  return new Map(
    steps.flatMap((step) => {
      const take = toItemMinutes(step, plan, minutes);
      return step.items.map((item) => [`${step.id} ${item.id}`, take(item)] as const);
    }),
  );
}
