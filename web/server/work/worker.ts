import { extname } from 'node:path';
import { fileURLToPath } from 'node:url';
import { emptyBin } from '../jobs/bin';
import { compactJobs } from '../jobs/compact';
import { readRest } from '../jobs/patience';
import { enqueueStaleLines, findPatience, storeProblem } from '../jobSummaries';
import type { Labour } from './labour';
import { Fallen, Labourer, OverBudget } from './labourer';
import { hear } from '../listener';
import { log } from '../log';
import { movePhotos } from '../photos';
import { becomeWorker, enqueue, findQueue, QUEUES } from './queue';
import { readSeconds } from '../seconds';
import { isWanted, storeAnswer } from './storedTask';
import { Cancelled, toJsonAnswer } from './taskKinds';
import { forgetTasks } from './tasks';

const POLL_S = 1;
const RETRY_MS = 1000;
const TIDY_MS = 600_000;
const KEPT_S = 3600;
const UNPROCESSABLE = 422;
/** less than the queue waits before it gives the work to another */
const MOST_BUDGET_S = 280;
/** after the start, when whoever opened a page first has it */
const WARM_MS = 15_000;

/** What is seen to now and then. */
const TIDY: [string, () => Promise<unknown>][] = [
  ['tasks forgotten', () => forgetTasks(KEPT_S)],
  ['bin emptied', emptyBin],
  ['histories compacted', compactJobs],
  ['photos moved', movePhotos],
];

const labourer = (kind: Labour['kind']) =>
  new Labourer(fileURLToPath(new URL(`./labour${extname(import.meta.url)}`, import.meta.url)), undefined, [kind]);
/** one for what somebody waits for, one for the wall: a job that takes long to plan holds up neither */
const [forTasks, forLines] = [labourer('task'), labourer('line')];

const TASK_S = readSeconds('WATTOGRAPH_TASK_SECONDS', 240, MOST_BUDGET_S);
const LINE_S = readSeconds('WATTOGRAPH_LINE_SECONDS', 60, MOST_BUDGET_S);
// said at the start, not when the first edit is counted
readRest();

/** Once more where the process only fell: it may have been ended from outside. */
const again = (doIt: () => Promise<void>) => (error: unknown) => {
  if (error instanceof Fallen) return doIt();
  throw error;
};

/** Have a task done. Ended where nobody waits for it any more, or where it takes too long; then that is its answer. */
async function work(id: string): Promise<void> {
  const left = new AbortController();
  const stop = hear((heard) => {
    if (heard.topic !== 'task' || heard.id !== id) return;
    isWanted(id).then(
      (isSo) => isSo || left.abort(new Cancelled()),
      () => {},
    );
  });
  try {
    const doIt = () => forTasks.run({ kind: 'task', id } satisfies Labour, TASK_S * 1000, left.signal);
    await doIt().catch(again(doIt));
  } catch (error) {
    if (error instanceof Cancelled) return;
    if (!(error instanceof OverBudget || error instanceof Fallen)) throw error;
    log.error({ task: id, error: error.message }, 'task ended');
    const message =
      error instanceof OverBudget
        ? `It was ended after ${TASK_S} s. Plan this in parts: fewer or smaller looms in one job.`
        : 'It needed more memory than there is, or was ended from outside. Plan this in parts, or try again.';
    await storeAnswer(id, toJsonAnswer({ problems: [{ path: '', message }] }, UNPROCESSABLE));
  } finally {
    stop();
  }
}

/** Count the line of a job whose edits rest; one that takes too long says so on the wall, until the job is edited. */
async function count(id: string): Promise<void> {
  const patienceS = await findPatience(id);
  if (patienceS > 0) return enqueue('line', [id], patienceS);
  try {
    const doIt = () => forLines.run({ kind: 'line', id } satisfies Labour, LINE_S * 1000);
    await doIt().catch(again(doIt));
  } catch (error) {
    if (!(error instanceof OverBudget || error instanceof Fallen)) throw error;
    log.error({ job: id, error: error.message }, 'line not counted');
    const problem =
      error instanceof OverBudget ? `planning it takes longer than ${LINE_S} s` : 'planning it needs more memory than there is';
    await storeProblem(id, problem);
  }
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
    await count(job!.data.id);
    wake(linesWorker);
  });
  hear(({ topic }) => {
    if (topic === 'work' || topic === 'again') wake(tasksWorker);
  });
  await enqueueStaleLines();
  setTimeout(() => forTasks.warm(), WARM_MS).unref();
  const tidy = async () => {
    for (const [what, act] of TIDY)
      await act().catch((error: unknown) =>
        log.warn({ error: error instanceof Error ? error.message : String(error) }, `${what}: not done`),
      );
  };
  setInterval(() => void tidy(), TIDY_MS);
  setTimeout(() => void tidy(), WARM_MS).unref();
  log.info('worker ready');
  const stop = () =>
    void queue.stop({ graceful: true, wait: true, timeout: 5000 }).finally(() => {
      forTasks.end();
      forLines.end();
      process.exit(0);
    });
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
}

becomeWorker();
void start();
