import { promisify } from 'node:util';
import { gzip } from 'node:zlib';
import { and, eq, sql } from 'drizzle-orm';
import { ENGINE, type Finding, type JobPlan } from 'wattograph-core';
import { today } from '../client/today';
import { database } from './database';
import { jobPlans } from './schema';

const zip = promisify(gzip);

/** beyond this a page has planned the job itself before it has read the answer */
const MOST_BYTES = 1024 * 1024;

/** Keep the plan that a worker made of a version of a job, with what it found today. */
export async function storePlan(jobId: string, version: number, plan: JobPlan, findings: readonly Finding[]): Promise<void> {
  const planned = await zip(JSON.stringify({ ...plan, findings }));
  const db = database();
  if (planned.length > MOST_BYTES) {
    await db.delete(jobPlans).where(eq(jobPlans.jobId, jobId));
    return;
  }
  const row = { jobId, version, engine: ENGINE, day: today(), planned };
  await db
    .insert(jobPlans)
    .values(row)
    .onConflictDoUpdate({ target: jobPlans.jobId, set: row, setWhere: sql`${jobPlans.version} <= ${version}` });
}

/** The plan of this very version by this computation and for this day, gzipped JSON; null: none is kept. */
export async function readPlan(jobId: string, version: number): Promise<Buffer | null> {
  const [row] = await database()
    .select({ planned: jobPlans.planned })
    .from(jobPlans)
    .where(and(eq(jobPlans.jobId, jobId), eq(jobPlans.version, version), eq(jobPlans.engine, ENGINE), eq(jobPlans.day, today())));
  return row?.planned ?? null;
}
