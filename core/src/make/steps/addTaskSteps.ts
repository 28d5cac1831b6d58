import { HAZARD_CAUTIONS, CAUTIONS } from '../cautions';
import { createItem, createStep, type Need, type StepContext } from '../createStep';
import type { Operation, Step } from '../step';
import { listTaskPlaces, type Task, type TaskBefore, type TaskKind, type TaskPlace } from '../../model';
import { compareIds } from '../../units';

/** "Make: bracket for the power box" */
const TITLES: Readonly<Record<TaskKind, string>> = { fabricate: 'Make', visit: 'Visit', yes: 'Yes of the customer' };
const ITEMS: Readonly<Record<TaskKind, string>> = { fabricate: 'made, in its place', visit: 'been there', yes: 'said yes' };

/** Kinds of steps that wait for a task, and whether all of them do, wherever on the loom it is. */
const WAITING: Readonly<Record<TaskBefore, { operations: readonly Operation[]; isWhole: boolean }>> = {
  cut: { operations: ['cut'], isWhole: true },
  seat: { operations: ['seat'], isWhole: false },
  splice: { operations: ['splice'], isWhole: false },
  // what is slid on and shrunk over the run itself, and what closes a breakout or an end
  cover: { operations: ['cover', 'boot', 'shrink', 'close'], isWhole: false },
  fit: { operations: ['fit'], isWhole: true },
  route: { operations: ['route'], isWhole: true },
  clip: { operations: ['clip'], isWhole: true },
  torque: { operations: ['torque'], isWhole: false },
  sign: { operations: ['sign'], isWhole: true },
};

/**
 * The steps of a loom with those of its tasks (craft D5, I7): each is ticked before the work that it names, where it is for, and all of them
 * before the loom is signed. A task needs nothing itself.
 */
export function addTaskSteps({ job, loom, plan: { loomId } }: StepContext, steps: readonly Step[]): Step[] {
  const tasks = Object.keys(job.tasks)
    .sort(compareIds)
    .map((id) => ({ id: `task.${id}`, task: job.tasks[id]!, places: listTaskPlaces(job.tasks[id]!, loomId) }))
    .filter(({ places }) => places.length > 0);
  if (tasks.length === 0) return [...steps];
  const wait = (step: Step): Step => {
    const needs = tasks
      .filter(({ task, places }) => isWaiting(step, task.before, places))
      .map(({ id, task }): Need => ({ stepId: id, because: `waits for: ${task.what}` }));
    return needs.length === 0 ? step : { ...step, needs: [...step.needs, ...needs] };
  };
  return [
    ...tasks.map(({ id, task, places }) =>
      createTaskStep(
        id,
        task,
        places.map((place) => toPlaceWords(loom, place)),
      ),
    ),
    ...steps.map(wait),
  ];
}

function isWaiting({ operation, endId, segmentId }: Step, before: TaskBefore, places: readonly TaskPlace[]): boolean {
  if (operation === 'sign') return true;
  const { operations, isWhole } = WAITING[before];
  if (!operations.includes(operation)) return false;
  return (
    isWhole || places.some(({ kind, id }) => kind === 'loom' || (kind === 'end' ? endId : kind === 'segment' ? segmentId : null) === id)
  );
}

function createTaskStep(id: string, { kind, what, where, before, hazards, owner, due, minutes }: Task, places: readonly string[]): Step {
  const words = [where, places.join(', '), owner && `${owner} sees to it`, due && `by ${due}`].filter(Boolean).join('; ');
  return createStep(id, kind, `${TITLES[kind]}: ${what}`, {
    minutes,
    caution: [CAUTIONS[kind], ...hazards.map((one) => HAZARD_CAUTIONS[one])].filter(Boolean).join(' ') || null,
    items: [
      createItem('done', `${ITEMS[kind]}${words && ` (${words})`}`, [], null, [
        { what: kind, value: what },
        { what: 'where', value: where },
        { what: 'before', value: before },
      ]),
    ],
  });
}

/** Where on a loom something is, in its own names. */
export function toPlaceWords({ nodes, segments, ends, name }: StepContext['loom'], { kind, id }: TaskPlace): string {
  if (kind === 'end') return ends[id]?.name ?? id;
  const run = kind === 'segment' ? segments[id] : undefined;
  if (run) return `${nodes[run.fromNodeId]!.name} to ${nodes[run.toNodeId]!.name}`;
  return kind === 'loom' ? `all of ${name}` : id;
}
