import { today } from '../client/today';
import { and, asc, desc, eq } from 'drizzle-orm';
import { CATALOGUE, listFindings, plan } from 'wattograph-core';
import { toPresent } from './documents';
import { database } from './database';
import { Refusal } from './refusal';
import { floorEvents, jobs, releases, type FloorEventRow, type ReleaseRow } from './schema';

export type ReleaseLine = Pick<ReleaseRow, 'number' | 'version' | 'author' | 'note' | 'at'>;

/** Make a numbered revision of a job as it stands. Refused while a stop finding is neither mended nor accepted with a reason. */
export async function createRelease(jobId: string, request: { id: string; author: string; note: string }): Promise<ReleaseLine> {
  return database().transaction(async (tx) => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, jobId)).for('update');
    if (!job) throw Refusal.at(404, '', 'There is no such job.');
    const [known] = await tx
      .select()
      .from(releases)
      .where(and(eq(releases.id, request.id), eq(releases.jobId, jobId)));
    if (known) return known;
    const document = toPresent(job.document);
    const open = listFindings(document, plan(document, CATALOGUE), CATALOGUE, today()).filter(
      ({ grade, key }) => grade === 'stop' && !Object.hasOwn(document.accepted, key),
    );
    if (open.length)
      throw new Refusal(
        422,
        open.map(({ sentence, code }) => ({ path: code, message: sentence })),
      );
    const [last] = await tx
      .select({ number: releases.number })
      .from(releases)
      .where(eq(releases.jobId, jobId))
      .orderBy(desc(releases.number))
      .limit(1);
    const [made] = await tx
      .insert(releases)
      .values({
        jobId,
        number: (last?.number ?? 0) + 1,
        id: request.id,
        version: job.version,
        document,
        author: request.author,
        note: request.note,
      })
      .returning();
    return made!;
  });
}

export async function listReleases(jobId: string): Promise<ReleaseLine[]> {
  return database()
    .select({ number: releases.number, version: releases.version, author: releases.author, note: releases.note, at: releases.at })
    .from(releases)
    .where(eq(releases.jobId, jobId))
    .orderBy(asc(releases.number));
}

export async function readRelease(jobId: string, number: number): Promise<ReleaseRow> {
  const [row] = await database()
    .select()
    .from(releases)
    .where(and(eq(releases.jobId, jobId), eq(releases.number, number)));
  if (!row) throw Refusal.at(404, '', `There is no revision ${number} of this job.`);
  return { ...row, document: toPresent(row.document) };
}

export type FloorEvent = Pick<FloorEventRow, 'id' | 'loomId' | 'stepId' | 'itemId' | 'kind' | 'words' | 'author'> & { happenedAt: string };

/** Add what happened on the floor. An id that is there already is passed over, so a repeat counts once. */
export async function addFloorEvents(jobId: string, release: number, events: readonly FloorEvent[]): Promise<{ stored: string[] }> {
  await readRelease(jobId, release);
  await database()
    .insert(floorEvents)
    .values(events.map((event) => ({ ...event, jobId, release, happenedAt: new Date(event.happenedAt) })))
    .onConflictDoNothing();
  return { stored: events.map(({ id }) => id) };
}

export async function listFloorEvents(jobId: string, release: number): Promise<FloorEvent[]> {
  const rows = await database()
    .select()
    .from(floorEvents)
    .where(and(eq(floorEvents.jobId, jobId), eq(floorEvents.release, release)))
    .orderBy(asc(floorEvents.serial));
  return rows.map(({ id, loomId, stepId, itemId, kind, words, author, happenedAt }) => ({
    id,
    loomId,
    stepId,
    itemId,
    kind,
    words,
    author,
    happenedAt: happenedAt.toISOString(),
  }));
}
