import { and, asc, eq, gt, sql } from 'drizzle-orm';
import {
  recordSurveyEntry,
  applyEdit,
  checkJob,
  findStandard,
  fromJobFile,
  isOverlap,
  keepBeside,
  listOperations,
  type EditOperation,
  type Job,
  type SurveyEntry,
} from 'wattograph-core';
import { database, type Database } from './database';
import { listHistory, type HistoryRow } from './history';
import { toPresent } from './present';
import { Refusal } from './refusal';
import { edits, jobs, type EditRow } from './schema';
import { enqueueLine } from './jobSummaries';
import { readShop, readShopOf, takeCarried, type PresentShop } from './shop';
import { tell } from './tell';

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** A job with its version and what its author may undo. */
export interface StoredJob {
  id: string;
  version: number;
  document: Job;
  undo: string | null;
  redo: string | null;
}

/** What an edit came to: the version it made, and the patch that was applied. */
export interface Taken {
  version: number;
  patch: EditOperation[];
  undo: string | null;
  redo: string | null;
}

/**
 * Store a new job after the one gate; the same id again is the same job. A file may carry shop records: where they are those of this shop the
 * job is planned with its newest version, else with a version of its own beside it.
 */
export async function createStoredJob(id: string, value: unknown): Promise<{ id: string }> {
  return database().transaction(async (tx) => {
    // a shop that is being changed is waited for, so that no job is stored with a part that it lost
    await tx.execute(sql`lock table jobs in row exclusive mode`);
    const { document: written, shop: carried } = fromJobFile(value);
    const present = carried === null ? await readShop(tx) : await takeCarried(tx, id, carried);
    const checked = checkJob(written, present.lookup);
    if (!checked.ok) throw new Refusal(422, checked.problems);
    // versions of another installation's shop say nothing here
    const document: Job = { ...checked.value, shopVersion: present.version };
    await tx.insert(jobs).values({ id, version: 0, document }).onConflictDoNothing();
    await tell(tx, { topic: 'lines', id });
    return { id };
  });
}

export async function readJob(id: string, author: string): Promise<StoredJob> {
  const db = database();
  const [row] = await db.select().from(jobs).where(eq(jobs.id, id));
  if (!row) throw Refusal.at(404, '', 'There is no such job.');
  return { id, version: row.version, document: toPresent(row.document), ...(await readHistory(db, id, author)) };
}

async function listRows(db: Database | Transaction, id: string): Promise<HistoryRow[]> {
  return db
    .select({ id: edits.id, version: edits.version, author: edits.author, label: edits.label, kind: edits.kind, ofEdit: edits.ofEdit })
    .from(edits)
    .where(eq(edits.jobId, id))
    .orderBy(asc(edits.version));
}

async function readHistory(db: Database | Transaction, id: string, author: string): Promise<{ undo: string | null; redo: string | null }> {
  const { undo, redo } = listHistory(await listRows(db, id), author);
  return { undo: undo.at(-1)?.label ?? null, redo: redo.at(-1)?.label ?? null };
}

/** The edits after a version, oldest first. */
export async function listEditsSince(id: string, version: number): Promise<Pick<EditRow, 'version' | 'author' | 'label' | 'patch'>[]> {
  return database()
    .select({ version: edits.version, author: edits.author, label: edits.label, patch: edits.patch })
    .from(edits)
    .where(and(eq(edits.jobId, id), gt(edits.version, version)))
    .orderBy(asc(edits.version));
}

/**
 * Take one edit: apply, check shape and integrity, append and raise the version in one transaction. The same id again gives
 * what it came to the first time. An edit made against an older version is refused with what happened since.
 */
export async function takeEdit(
  jobId: string,
  edit: { id: string; base: number; author: string; label: string; patch: EditOperation[] },
): Promise<Taken> {
  return inJob(jobId, async (tx, job, shop) => {
    const known = await findEdit(tx, jobId, edit.id);
    if (known) return toTaken(tx, known);
    if (edit.base !== job.version) {
      const since = await tx
        .select({ version: edits.version, author: edits.author, label: edits.label, patch: edits.patch })
        .from(edits)
        .where(and(eq(edits.jobId, jobId), gt(edits.version, edit.base)))
        .orderBy(asc(edits.version));
      throw new Refusal(409, [{ path: '', message: `expected an edit of version ${job.version}, got one of version ${edit.base}` }], {
        version: job.version,
        since,
      });
    }
    return withHistory(tx, job.id, edit.author, await append(tx, job, shop, { ...edit, kind: 'edit', ofEdit: null }));
  });
}

/** Undo or redo the author's own last edit; refused where somebody changed the same place since. */
export async function takeHistory(jobId: string, request: { id: string; author: string; direction: 'undo' | 'redo' }): Promise<Taken> {
  return inJob(jobId, async (tx, job, shop) => {
    const known = await findEdit(tx, jobId, request.id);
    if (known) return toTaken(tx, known);
    const rows = await listRows(tx, jobId);
    const target = listHistory(rows, request.author)[request.direction].at(-1);
    if (!target) throw Refusal.at(409, '', `There is nothing of ${request.author} to ${request.direction}.`);
    const about = rows.filter(({ id, ofEdit }) => id === target.id || ofEdit === target.id).at(-1)!;
    const [last] = await tx.select().from(edits).where(eq(edits.id, about.id));
    const patch = last!.inverse;
    const later = await tx
      .select({ author: edits.author, patch: edits.patch })
      .from(edits)
      .where(and(eq(edits.jobId, jobId), gt(edits.version, last!.version)));
    const other = later.find((row) => row.author !== request.author && isOverlap(row.patch, patch));
    if (other)
      throw Refusal.at(
        409,
        patch[0]?.path ?? '',
        `${other.author} has changed the same place since; "${target.label}" cannot be taken back.`,
      );
    const made = await append(tx, job, shop, {
      id: request.id,
      author: request.author,
      label: `${request.direction}: ${target.label}`.slice(0, 200),
      patch,
      kind: request.direction,
      ofEdit: target.id,
    });
    return withHistory(tx, jobId, request.author, made);
  });
}

/**
 * Take what was entered at the vehicle, each entry once however often it is sent. What meets something else is kept in the job
 * for people to settle, so that nothing entered is lost.
 */
export async function takeSurvey(
  jobId: string,
  entries: readonly SurveyEntry[],
): Promise<{ version: number; document: Job; conflicts: string[] }> {
  return inJob(jobId, async (tx, start, shop) => {
    let job = start;
    const conflicts: string[] = [];
    for (const entry of entries) {
      if (await findEdit(tx, jobId, entry.id)) continue;
      const standard = findStandard(job.document, shop.shop);
      let added = recordSurveyEntry(job.document, entry, shop.shop, standard);
      // an entry that would spoil the job is kept beside it, not lost
      const checked = checkJob(added.job, shop.lookup);
      if (!checked.ok) added = keepBeside(job.document, entry, checked.problems[0]!.message);
      if (added.isConflict) conflicts.push(entry.id);
      const { version } = await append(tx, job, shop, {
        id: entry.id,
        author: entry.author,
        label: added.label,
        patch: listOperations(job.document, added.job),
        kind: 'edit',
        ofEdit: null,
      });
      job = { ...job, version, document: added.job };
    }
    return { version: job.version, document: job.document, conflicts };
  });
}

async function inJob<T>(
  jobId: string,
  work: (tx: Transaction, job: { id: string; version: number; document: Job }, shop: PresentShop) => Promise<T>,
): Promise<T> {
  const result = await database().transaction(async (tx) => {
    const [job] = await tx.select().from(jobs).where(eq(jobs.id, jobId)).for('update');
    if (!job) throw Refusal.at(404, '', 'There is no such job.');
    // after the lock: a shop that is being changed has been waited for
    const document = toPresent(job.document);
    return work(tx, { ...job, document }, await readShopOf(document, tx));
  });
  enqueueLine(jobId);
  return result;
}

async function findEdit(tx: Transaction, jobId: string, id: string): Promise<EditRow | undefined> {
  const [row] = await tx
    .select()
    .from(edits)
    .where(and(eq(edits.id, id), eq(edits.jobId, jobId)));
  return row;
}

async function toTaken(tx: Transaction, row: EditRow): Promise<Taken> {
  return withHistory(tx, row.jobId, row.author, { version: row.version, patch: row.patch });
}

async function append(
  tx: Transaction,
  job: { id: string; version: number; document: Job },
  shop: PresentShop,
  edit: { id: string; author: string; label: string; patch: EditOperation[]; kind: EditRow['kind']; ofEdit: string | null },
): Promise<Pick<Taken, 'version' | 'patch'>> {
  const applied = applyEdit(job.document, edit.patch);
  if (!applied.ok) throw new Refusal(422, applied.problems);
  // an edit may bring the job up to another version of the shop, and is held to that
  const isMoved = applied.value.shopVersion !== job.document.shopVersion;
  const { lookup } = isMoved ? await readShopOf(applied.value, tx) : shop;
  const checked = checkJob(applied.value, lookup);
  if (!checked.ok) throw new Refusal(422, checked.problems);
  const version = job.version + 1;
  await tx.insert(edits).values({
    jobId: job.id,
    version,
    id: edit.id,
    author: edit.author,
    label: edit.label,
    kind: edit.kind,
    ofEdit: edit.ofEdit,
    patch: edit.patch,
    inverse: listOperations(checked.value, job.document),
  });
  await tx.update(jobs).set({ version, document: checked.value, changedAt: new Date() }).where(eq(jobs.id, job.id));
  await tell(tx, { topic: 'job', id: job.id, version });
  return { version, patch: edit.patch };
}

/** What an edit came to, with what its author may undo after it. */
async function withHistory(tx: Transaction, jobId: string, author: string, made: Pick<Taken, 'version' | 'patch'>): Promise<Taken> {
  return { ...made, ...(await readHistory(tx, jobId, author)) };
}

/** Version of a job without its document. */
export async function readJobVersion(id: string): Promise<number> {
  const [row] = await database().select({ version: jobs.version }).from(jobs).where(eq(jobs.id, id));
  if (!row) throw Refusal.at(404, '', 'There is no such job.');
  return row.version;
}
