import { and, desc, isNull, lt, sql } from 'drizzle-orm';
import { database } from './database';
import { log } from './log';
import { Refusal } from './refusal';
import { jobs } from './schema';
import { doTask } from './taskHandlers';

/** bytes of a stored job: the first print of a larger one is worth no second one in advance */
const LARGE = 400_000;

/** Of whom the pack is made in advance: the job that was changed last, where it is open and not large; null: there is none. */
export async function findWarmJob(): Promise<string | null> {
  const isSmall = lt(sql<number>`pg_column_size(${jobs.document})`, LARGE);
  const [job] = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(and(isNull(jobs.deletedAt), isNull(jobs.archivedAt), isSmall))
    .orderBy(desc(jobs.changedAt))
    .limit(1);
  return job?.id ?? null;
}

/** Make one pack that nobody has asked for, so that the first one that is asked for is made by code that has run before. */
export async function warmUp(): Promise<void> {
  const jobId = await findWarmJob();
  if (jobId === null) return;
  const started = performance.now();
  try {
    const all = { release: null, loom: null, paper: null, what: null, since: null, post: null, address: null };
    await doTask('pdf', { jobId, ...all }, { report: async () => {} });
  } catch (error) {
    // nothing in it to print: then it has done its work as well
    if (!(error instanceof Refusal)) throw error;
  }
  log.info({ ms: Math.round(performance.now() - started) }, 'warm');
}
