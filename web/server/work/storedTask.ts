import { and, eq, isNull } from 'drizzle-orm';
import { database } from '../database';
import { log } from '../log';
import { toErrorAnswer } from '../routeHandler';
import { tasks } from '../schema';
import { doTask } from './taskHandlers';
import { Cancelled, toJsonAnswer, type Answer, type TaskContext } from './taskKinds';
import { tell } from '../tell';

const GONE = 503;

/** Do one task and store its answer. What the database's absence cut short is thrown: the queue gives it out again. */
export async function doStoredTask(id: string): Promise<void> {
  const db = database();
  const [task] = await db.select({ kind: tasks.kind, input: tasks.input, status: tasks.status }).from(tasks).where(eq(tasks.id, id));
  if (!task || task.status !== null) return;
  const context: TaskContext = {
    report: async (done, of) => {
      const [still] = await db.update(tasks).set({ done, of }).where(eq(tasks.id, id)).returning({ id: tasks.id });
      if (!still) throw new Cancelled();
      await tell(db, { topic: 'task', id });
    },
  };
  const started = performance.now();
  let answer: Answer;
  try {
    answer = await doTask(task.kind, task.input, context);
  } catch (error) {
    if (error instanceof Cancelled) return;
    const { status, ...body } = toErrorAnswer(error);
    if (status === GONE) throw error;
    answer = toJsonAnswer(body, status);
  }
  await storeAnswer(id, answer);
  log.info({ task: task.kind, status: answer.status, ms: Math.round(performance.now() - started) }, 'task');
}

/** The answer to a task, for who waits for it. */
export async function storeAnswer(id: string, answer: Answer): Promise<void> {
  await database()
    .update(tasks)
    .set(answer)
    .where(and(eq(tasks.id, id), isNull(tasks.status)));
  await tell(database(), { topic: 'task', id });
}

/** Does anybody still wait for it? */
export async function isWanted(id: string): Promise<boolean> {
  const [row] = await database().select({ id: tasks.id }).from(tasks).where(eq(tasks.id, id));
  return row !== undefined;
}
