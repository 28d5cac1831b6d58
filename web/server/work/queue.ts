import PgBoss from 'pg-boss';
import { findPool } from '../database';
import { log } from '../log';

/** tasks that somebody waits for, and lines of the jobs wall that are counted anew */
export const QUEUES = { task: 'tasks', line: 'lines' } as const;

/** after so long a task of a worker that died is another one's */
const EXPIRE_S = 300;
const KEPT_S = 3600;
const MAINTENANCE_S = 30;

/** The queue on this process's own connections. Only workers look after it; only the start makes its tables. */
function createQueue(): PgBoss {
  const queue = new PgBoss({
    db: { executeSql: (text, values) => findPool().query(text, values) },
    supervise: isWorker(),
    schedule: false,
    migrate: false,
    maintenanceIntervalSeconds: MAINTENANCE_S,
    archiveCompletedAfterSeconds: KEPT_S,
    deleteAfterSeconds: KEPT_S,
  });
  queue.on('error', (error) => log.warn({ error: error.message }, 'queue'));
  return queue;
}

/** Make the tables of the queue; called once at the start, by one process at a time. */
export async function prepareQueue(connectionString: string): Promise<void> {
  const queue = new PgBoss({ connectionString, supervise: false, schedule: false, max: 2 });
  await queue.start();
  for (const name of Object.values(QUEUES)) {
    const options = { name, policy: 'short' as const, expireInSeconds: EXPIRE_S, retryLimit: 2 };
    if (await queue.getQueue(name)) await queue.updateQueue(name, options);
    else await queue.createQueue(name, options);
  }
  await queue.stop({ graceful: false });
}

const holder = globalThis as typeof globalThis & { wattographQueue?: Promise<PgBoss>; wattographRole?: 'worker' };

/** From here on this process does the work rather than wait for it. */
export function becomeWorker(): void {
  holder.wattographRole = 'worker';
}

export const isWorker = (): boolean => holder.wattographRole === 'worker';

/** The queue of this process. A start that failed, for the database was away, is tried again by the next who asks. */
export function findQueue(): Promise<PgBoss> {
  holder.wattographQueue ??= createQueue()
    .start()
    .catch((error: unknown) => {
      delete holder.wattographQueue;
      throw error;
    });
  return holder.wattographQueue;
}

/** Put work in line, once however often it is asked for while it waits there. */
export async function enqueue(name: keyof typeof QUEUES, ids: readonly string[], delayS = 0): Promise<void> {
  if (ids.length === 0) return;
  const queue = await findQueue();
  const startAfter = new Date(Date.now() + delayS * 1000);
  await queue.insert(ids.map((id) => ({ name: QUEUES[name], data: { id }, singletonKey: id, ...(delayS > 0 ? { startAfter } : {}) })));
}
