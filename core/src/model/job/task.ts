import { Type, type Static } from '@sinclair/typebox';
import { DateSchema, IdSchema, literals } from '../ids';

/** What a loom waits for that is no work on it (craft D5, I7): something to be made, a visit, the customer's yes. */
export const TASK_KINDS = ['fabricate', 'visit', 'yes'] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

/** Work that can wait for a task; of these the whole loom is cut, fitted, led in, clipped and signed in one go, whatever the task is for. */
export const TASK_BEFORE = ['cut', 'seat', 'splice', 'cover', 'fit', 'route', 'clip', 'torque', 'sign'] as const;
export type TaskBefore = (typeof TASK_BEFORE)[number];

/** "before cutting" */
export const TASK_BEFORE_WORDS: Readonly<Record<TaskBefore, string>> = {
  cut: 'cutting',
  seat: 'seating',
  splice: 'splicing',
  cover: 'covering',
  fit: 'the trial fit',
  route: 'leading it in',
  clip: 'clipping',
  torque: 'bolting',
  sign: 'the signature',
};

/** What can hurt while it is made. */
export const TASK_HAZARDS = ['weld', 'drill', 'grind', 'glue'] as const;
export type TaskHazard = (typeof TASK_HAZARDS)[number];

/** What a task is for: a loom, a run or an end of it. */
export const TaskPlaceSchema = Type.Object(
  { loomId: IdSchema, kind: literals(['loom', 'segment', 'end']), id: IdSchema },
  { additionalProperties: false },
);
export type TaskPlace = Static<typeof TaskPlaceSchema>;

/**
 * Something that has to be made or agreed before work on a loom goes on: a bracket, a boss, a hole; somebody who comes, or is gone to; a yes.
 * It is a step of every loom that it is for, ticked on the floor like any other.
 */
export const TaskSchema = Type.Object(
  {
    kind: literals(TASK_KINDS),
    what: Type.String({ minLength: 1, maxLength: 300, pattern: '\\S' }),
    where: Type.String({ maxLength: 200, description: 'where on the vehicle, in words' }),
    places: Type.Array(TaskPlaceSchema, {
      maxItems: 40,
      description: 'looms, runs and ends that wait for it; empty: it is for no loom yet',
    }),
    before: literals(TASK_BEFORE, { description: 'the first work on them that waits' }),
    hazards: Type.Array(literals(TASK_HAZARDS), { maxItems: TASK_HAZARDS.length, uniqueItems: true }),
    owner: Type.String({ maxLength: 80, description: 'who sees to it; empty: nobody yet' }),
    due: Type.Union([DateSchema, Type.Null()], { description: 'needed by; null: no day set' }),
    minutes: Type.Integer({ minimum: 0, maximum: 6000, description: 'what it takes, min' }),
  },
  { additionalProperties: false },
);
export type Task = Static<typeof TaskSchema>;

/** Places of a task on one loom. */
export const listTaskPlaces = ({ places }: Pick<Task, 'places'>, loomId: string): TaskPlace[] =>
  places.filter((one) => one.loomId === loomId);

/** A task that is for no loom yet. minutes: what it takes, min. */
export const createTask = (kind: TaskKind, what: string, minutes: number, rest: Partial<Task> = {}): Task => ({
  ...{ kind, what, minutes, where: '', places: [], hazards: [], owner: '', due: null },
  before: BEFORE[kind],
  ...rest,
});

/** What usually waits: a bracket is there when the loom is fitted, a visit is for the fit, a yes comes before anything is covered for good. */
const BEFORE: Readonly<Record<TaskKind, TaskBefore>> = { fabricate: 'fit', visit: 'fit', yes: 'cover' };
