import { createTask, type Task } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

/** Write down what a loom waits for that is no work on it. */
export const addTask = (kind: Task['kind'], what: string, minutes: number, rest: Partial<Task> = {}): Command =>
  createCommand(`task: ${what}`, (draft) => {
    draft.tasks[createId(draft.tasks, 't')] = createTask(kind, what, minutes, rest);
  });

const WORDS = {
  what: 'what a task is',
  where: 'where a task is',
  places: 'what a task is for',
  before: 'what waits for a task',
  hazards: 'what can hurt at a task',
  owner: 'owner of a task',
  due: 'day of a task',
  minutes: 'minutes of a task',
} as const;

export const setTask = <Key extends keyof typeof WORDS>(id: string, key: Key, value: Task[Key]): Command =>
  createCommand(WORDS[key], (draft) => void (draft.tasks[id]![key] = value));

export const strikeTask = (id: string): Command => createCommand('strike a task off', (draft) => void delete draft.tasks[id]);
