import { and, desc, eq, inArray, isNull, sql } from 'drizzle-orm';
import { UNDO_STEP } from 'wattograph-core';
import { database } from '../database';
import { log } from '../log';
import { readBuild } from '../releases';
import { floorEvents, jobs, photos, releaseLooms, releases } from '../schema';

/** What somebody on the floor told to be wrong, and nobody has answered or solved yet. */
export interface OpenProblem {
  id: string;
  jobId: string;
  job: string;
  release: number;
  loomId: string;
  loom: string;
  stepId: string;
  step: string;
  words: string;
  author: string;
  /** by the clock of the tablet, ISO 8601 */
  at: string;
  /** is there a picture of it: one of the same id */
  hasPhoto: boolean;
  /** who is asked first: whoever released the revision; anybody who plans may answer */
  owner: string;
}

/** A wall has no room for more. */
const MOST = 40;

/** What loom and step are called. The wall waits for no worker, and one revision that cannot be read does not take it away: then by their ids. */
async function readNames({ jobId, release, loomId, stepId }: Pick<OpenProblem, 'jobId' | 'release' | 'loomId' | 'stepId'>) {
  const byId = { loom: loomId, step: stepId === UNDO_STEP ? 'what is to be undone' : stepId };
  const of = and(eq(releaseLooms.jobId, jobId), eq(releaseLooms.number, release), eq(releaseLooms.loomId, loomId));
  const [frozen] = await database()
    .select({ name: sql<string | null>`${releases.document} -> 'looms' -> ${loomId} ->> 'name'` })
    .from(releaseLooms)
    .innerJoin(releases, and(eq(releases.jobId, releaseLooms.jobId), eq(releases.number, releaseLooms.number)))
    .where(of);
  if (!frozen) return byId;
  try {
    const { titles } = await readBuild(jobId, release, loomId);
    return { loom: frozen.name ?? loomId, step: titles.get(stepId) ?? byId.step };
  } catch (error) {
    log.warn({ jobId, release, loomId, error }, 'a problem of a revision that cannot be read');
    return byId;
  }
}

/** Problems of all jobs in work that wait for an answer, the newest first. */
export async function listOpenProblems(): Promise<OpenProblem[]> {
  const db = database();
  const latest = db
    .selectDistinctOn([floorEvents.jobId, floorEvents.release, floorEvents.loomId, floorEvents.stepId], {
      ...{ id: floorEvents.id, jobId: floorEvents.jobId, release: floorEvents.release, loomId: floorEvents.loomId },
      ...{ stepId: floorEvents.stepId, kind: floorEvents.kind, words: floorEvents.words, author: floorEvents.author },
      ...{ happenedAt: floorEvents.happenedAt, serial: floorEvents.serial },
    })
    .from(floorEvents)
    .where(inArray(floorEvents.kind, ['problem', 'solved', 'answer']))
    .orderBy(floorEvents.jobId, floorEvents.release, floorEvents.loomId, floorEvents.stepId, desc(floorEvents.serial))
    .as('latest');
  const rows = await db
    .select({
      ...{ id: latest.id, jobId: latest.jobId, release: latest.release, loomId: latest.loomId, stepId: latest.stepId },
      ...{ words: latest.words, author: latest.author, happenedAt: latest.happenedAt, job: jobs.name, photo: photos.id },
      owner: releases.author,
    })
    .from(latest)
    .innerJoin(jobs, eq(jobs.id, latest.jobId))
    .innerJoin(releases, and(eq(releases.jobId, latest.jobId), eq(releases.number, latest.release)))
    .leftJoin(photos, and(eq(photos.id, latest.id), eq(photos.jobId, latest.jobId)))
    .where(and(eq(latest.kind, 'problem'), isNull(jobs.archivedAt), isNull(jobs.deletedAt)))
    .orderBy(desc(latest.serial))
    .limit(MOST);
  return Promise.all(
    rows.map(async ({ happenedAt, job, photo, ...row }) => {
      return { ...row, ...(await readNames(row)), job: job ?? '', at: happenedAt.toISOString(), hasPhoto: photo !== null };
    }),
  );
}
