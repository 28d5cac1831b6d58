import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { and, desc, eq, gt, lte, sql } from 'drizzle-orm';
import { applyEdit, type Job } from 'wattograph-core';
import { database } from '../database';
import { log } from '../log';
import { toPresent } from '../present';
import { edits, jobs, jobSnapshots } from '../schema';

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];

/** What is kept whole: the newest edits of a job, and all that are younger. A device away for longer gets the job anew instead of the edits. */
export interface Kept {
  edits: number;
  days: number;
  /** fewer before those are not worth a snapshot */
  least: number;
}
export const KEPT: Kept = { edits: 2000, days: 90, least: 500 };
/** edits that are read at a time, and taken back before others have their turn */
const PAGE = 200;

/**
 * Keep the job as it was some time ago in a snapshot, and drop the patches of the edits before it: who made which edit when stays.
 * Gives the version of the snapshot; null: nothing to do, or a history that cannot be walked back to there.
 */
export async function compactJob(id: string, kept: Kept = KEPT): Promise<number | null> {
  const boundary = await findBoundary(id, kept);
  if (boundary === null) return null;
  const document = await walkBack(id, boundary);
  if (!document) {
    log.warn({ job: id, version: boundary }, 'history cannot be walked back: it is kept whole');
    return null;
  }
  await database().transaction(async (tx) => {
    await tx
      .insert(jobSnapshots)
      .values({ jobId: id, version: boundary, document: await zip(JSON.stringify(document)) })
      .onConflictDoNothing();
    await tx
      .update(edits)
      .set({ patch: [], inverse: [] })
      .where(and(eq(edits.jobId, id), lte(edits.version, boundary)));
    await tx.update(jobs).set({ compacted: boundary }).where(eq(jobs.id, id));
  });
  log.info({ job: id, version: boundary }, 'history compacted');
  return boundary;
}

async function findBoundary(id: string, { edits: most, days, least }: Kept): Promise<number | null> {
  const [job] = await database().select({ version: jobs.version, compacted: jobs.compacted }).from(jobs).where(eq(jobs.id, id));
  if (!job || job.version - most - job.compacted < least) return null;
  const [old] = await database()
    .select({ version: edits.version })
    .from(edits)
    .where(and(eq(edits.jobId, id), lte(edits.version, job.version - most), sql`${edits.at} <= now() - make_interval(days => ${days})`))
    .orderBy(desc(edits.version))
    .limit(1);
  return old && old.version - job.compacted >= least ? old.version : null;
}

/** The job as it was at a version: as it is now, with every edit after that taken back. Null where one does not fit. */
async function walkBack(id: string, version: number): Promise<Job | null> {
  const [job] = await database().select({ version: jobs.version, document: jobs.document }).from(jobs).where(eq(jobs.id, id));
  if (!job) return null;
  let document = toPresent(job.document);
  for (let before = job.version; before > version; before -= PAGE) {
    const rows = await database()
      .select({ inverse: edits.inverse })
      .from(edits)
      .where(and(eq(edits.jobId, id), gt(edits.version, Math.max(version, before - PAGE)), lte(edits.version, before)))
      .orderBy(desc(edits.version));
    for (const { inverse } of rows) {
      if (inverse.length === 0) continue;
      const applied = applyEdit(document, inverse);
      if (!applied.ok) return null;
      document = applied.value;
    }
    await new Promise(setImmediate);
  }
  return document;
}

/** The job as it was at the version of its last snapshot; null: it has none. */
export async function readSnapshot(id: string): Promise<{ version: number; document: Job } | null> {
  const [row] = await database().select().from(jobSnapshots).where(eq(jobSnapshots.jobId, id)).orderBy(desc(jobSnapshots.version)).limit(1);
  return row ? { version: row.version, document: JSON.parse((await unzip(row.document)).toString()) as Job } : null;
}

/** Compact the history of every job that has much of it. */
export async function compactJobs(): Promise<void> {
  const rows = await database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(sql`${jobs.version} - ${jobs.compacted} >= ${KEPT.edits + KEPT.least}`);
  for (const { id } of rows) await compactJob(id);
}
