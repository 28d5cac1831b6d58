import { today } from '../client/today';
import { and, asc, eq, lt } from 'drizzle-orm';
import { carryOver, listFindings, plan, type CarriedWork } from 'wattograph-core';
import { toPresent } from './present';
import { database } from './database';
import { freeze, listFrozenBuilds, storeFrozen } from './frozen';
import { Refusal } from './refusal';
import { readShopOf } from './shop';
import { floorEvents, jobs, releases, type FloorEventRow, type ReleaseRow } from './schema';
import type { TaskContext } from './taskKinds';
import { tell } from './tell';

const LINE = { number: releases.number, version: releases.version, author: releases.author, note: releases.note, at: releases.at };
export type ReleaseLine = Pick<ReleaseRow, 'number' | 'version' | 'author' | 'note' | 'at'>;

/** as often as a release is planned anew because the job was edited meanwhile */
const MOST_TRIES = 5;

/**
 * Make a numbered revision of a job as it stands, with all that was planned, built and drawn of it. Refused while a stop finding is neither
 * mended nor accepted with a reason.
 */
export async function createRelease(
  jobId: string,
  request: { id: string; author: string; note: string },
  context: TaskContext,
): Promise<ReleaseLine> {
  for (let tries = 1; ; tries += 1) {
    const made = await tryRelease(jobId, request, context);
    if (made) return made;
    if (tries === MOST_TRIES) throw Refusal.at(503, '', 'The job is being edited all the time; nothing was released. Try again.');
  }
}

/** null: the job or its revisions changed while this one was planned. */
async function tryRelease(
  jobId: string,
  { id, author, note }: { id: string; author: string; note: string },
  { report }: TaskContext,
): Promise<ReleaseLine | null> {
  const [known] = await database().select({ line: LINE, of: releases.jobId }).from(releases).where(eq(releases.id, id));
  if (known && known.of !== jobId) throw Refusal.at(409, 'id', 'expected an id of its own, got that of a revision of another job');
  if (known) return known.line;
  const [job] = await database().select().from(jobs).where(eq(jobs.id, jobId));
  if (!job) throw Refusal.at(404, '', 'There is no such job.');
  const document = toPresent(job.document);
  const present = await readShopOf(document);
  const planned = plan(document, present.shop);
  const findings = listFindings(document, planned, present.shop, today());
  const open = findings.filter(({ grade, key }) => grade === 'stop' && !Object.hasOwn(document.accepted, key));
  if (open.length)
    throw new Refusal(
      422,
      open.map(({ sentence, code }) => ({ path: code, message: sentence })),
    );
  const number = ((await listReleases(jobId)).at(-1)?.number ?? 0) + 1;
  const rows = await freeze(document, planned, findings, present, { jobId, number, date: today() }, report);
  return database().transaction(async (tx) => {
    const [now] = await tx.select({ version: jobs.version }).from(jobs).where(eq(jobs.id, jobId)).for('update');
    if (now?.version !== job.version) return null;
    const [made] = await tx
      .insert(releases)
      .values({ jobId, number, id, version: job.version, document, author, note })
      .onConflictDoNothing()
      .returning(LINE);
    // another release got the number
    if (!made) return null;
    await storeFrozen(tx, rows);
    await tell(tx, { topic: 'release', id: jobId, number });
    return made;
  });
}

export async function listReleases(jobId: string): Promise<ReleaseLine[]> {
  return database().select(LINE).from(releases).where(eq(releases.jobId, jobId)).orderBy(asc(releases.number));
}

export async function readRelease(jobId: string, number: number): Promise<ReleaseRow> {
  const [row] = await database()
    .select()
    .from(releases)
    .where(and(eq(releases.jobId, jobId), eq(releases.number, number)));
  if (!row) throw Refusal.at(404, '', `There is no revision ${number} of this job.`);
  return { ...row, document: toPresent(row.document) };
}

type Told = Pick<FloorEventRow, 'id' | 'loomId' | 'stepId' | 'itemId' | 'kind' | 'words' | 'author'>;
/** Of a reading: which, what was read, in what, with what; null, or left out by an older page: it is none. */
type Read = Pick<FloorEventRow, 'readId' | 'value' | 'unit' | 'instrument'>;
export type FloorEvent = Told & Partial<Read> & { happenedAt: string };

/** Add what happened on the floor. An id that is there already is passed over, so a repeat counts once. */
export async function addFloorEvents(jobId: string, release: number, events: readonly FloorEvent[]): Promise<{ stored: string[] }> {
  await readRelease(jobId, release);
  await database()
    .insert(floorEvents)
    .values(events.map((event) => ({ ...event, jobId, release, happenedAt: new Date(event.happenedAt) })))
    .onConflictDoNothing();
  await tell(database(), { topic: 'floor', id: jobId, number: release });
  return { stored: events.map(({ id }) => id) };
}

export async function listFloorEvents(jobId: string, release: number): Promise<FloorEvent[]> {
  const rows = await database()
    .select()
    .from(floorEvents)
    .where(and(eq(floorEvents.jobId, jobId), eq(floorEvents.release, release)))
    .orderBy(asc(floorEvents.serial));
  return rows.map(({ id, loomId, stepId, itemId, kind, words, author, readId, value, unit, instrument, happenedAt }) => ({
    ...{ id, loomId, stepId, itemId, kind, words, author, happenedAt: happenedAt.toISOString() },
    ...(kind === 'reading' ? { readId, value, unit, instrument } : {}),
  }));
}

/** What was ticked in earlier revisions, and what that comes to in this one. */
export async function readCarried(jobId: string, release: number, loomId: string): Promise<CarriedWork> {
  const [builds, rows] = await Promise.all([
    listFrozenBuilds(jobId, release, loomId),
    database()
      .select({ release: floorEvents.release, stepId: floorEvents.stepId, itemId: floorEvents.itemId, kind: floorEvents.kind })
      .from(floorEvents)
      .where(and(eq(floorEvents.jobId, jobId), lt(floorEvents.release, release), eq(floorEvents.loomId, loomId)))
      .orderBy(asc(floorEvents.serial)),
  ]);
  return carryOver(
    builds.map(({ number, build }) => ({ number, steps: build.steps, ticks: rows.filter((row) => row.release === number) })),
  );
}
