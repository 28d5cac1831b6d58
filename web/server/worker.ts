import { constants, setPriority } from 'node:os';
import { and, eq, isNull } from 'drizzle-orm';
import { database } from './database';
import { countLine, enqueueStaleLines } from './jobSummaries';
import { hear } from './listener';
import { log } from './log';
import { becomeWorker, findQueue, QUEUES } from './queue';
import { toErrorAnswer } from './routeHandler';
import { tasks } from './schema';
import { doTask } from './taskHandlers';
import { Cancelled, toJsonAnswer, type Answer, type TaskContext } from './taskKinds';
import { forgetTasks } from './tasks';
import { tell } from './tell';

const POLL_S = 1;
const RETRY_MS = 1000;
const FORGET_MS = 600_000;
const KEPT_S = 3600;
const GONE = 503;

/** Do one task and store its answer. What the database's absence cut short is thrown: the queue gives it out again. */
async function work(id: string): Promise<void> {
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
  await db
    .update(tasks)
    .set(answer)
    .where(and(eq(tasks.id, id), isNull(tasks.status)));
  await tell(db, { topic: 'task', id });
  log.info({ task: task.kind, status: answer.status, ms: Math.round(performance.now() - started) }, 'task');
}

/** Take work from the queue until the process is told to end. Any number of these may run. */
async function start(): Promise<void> {
  for (;;) {
    try {
      await begin();
      return;
    } catch (error) {
      log.warn({ error: (error as Error).message }, 'worker waits for the database');
      await new Promise((resolve) => setTimeout(resolve, RETRY_MS));
    }
  }
}

async function begin(): Promise<void> {
  const queue = await findQueue();
  const options = { batchSize: 1, pollingIntervalSeconds: POLL_S };
  let [tasksWorker, linesWorker] = ['', ''];
  const wake = (which: string) => {
    if (which) queue.notifyWorker(which);
  };
  tasksWorker = await queue.work<{ id: string }>(QUEUES.task, options, async ([job]) => {
    await work(job!.data.id);
    wake(tasksWorker);
  });
  linesWorker = await queue.work<{ id: string }>(QUEUES.line, options, async ([job]) => {
    await countLine(job!.data.id);
    wake(linesWorker);
  });
  hear(({ topic }) => {
    if (topic === 'work' || topic === 'again') wake(tasksWorker);
  });
  await enqueueStaleLines();
  setInterval(() => {
    forgetTasks(KEPT_S).catch((error: unknown) => log.warn({ error: (error as Error).message }, 'tasks not forgotten'));
  }, FORGET_MS);
  log.info('worker ready');
  const stop = () => void queue.stop({ graceful: true, wait: true, timeout: 5000 }).finally(() => process.exit(0));
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

becomeWorker();
// what nobody waits for by the second must not slow down who ticks or edits
setPriority(constants.priority.PRIORITY_BELOW_NORMAL);
void start();
