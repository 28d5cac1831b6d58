import { and, asc, desc, eq, gt, lt, ne, or, sql, type SQL } from 'drizzle-orm';
import {
  recordSurveyEntry,
  applyEdit,
  checkJobInPieces,
  findStandard,
  fromJobFile,
  isOverlap,
  keepBeside,
  listOperations,
  readyGate,
  type EditOperation,
  type Job,
  type SurveyEntry,
} from 'wattograph-core';
import { database, type Database } from './database';
import { expectSame, toContentHash } from './contentHash';
import { findOpen, holdOpen } from './jobs/openDocuments';
import { HistoryWalk, type HistoryTops } from './history';
import { breathe, inPieces } from './inPieces';
import { inTurn } from './inTurn';
import { toPresent } from './present';
import { Refusal } from './refusal';
import { edits, jobs, type EditRow } from './schema';
import { enqueueLine } from './jobSummaries';
import { readShop, readShopOf, takeCarried, type PresentShop } from './shop';
import { tell } from './tell';

// the first job that comes in would wait a second for what the gate goes by
void inPieces(readyGate());

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
 * Store a new job after the one gate; the same id and content again is the same job. A file may carry shop records: where they are those of this shop the
 * job is planned with its newest version, else with a version of its own beside it.
 */
export async function createStoredJob(id: string, value: unknown): Promise<{ id: string }> {
  return database().transaction(async (tx) => {
    // a shop that is being changed is waited for, so that no job is stored with a part that it lost
    await tx.execute(sql`lock table jobs in row exclusive mode`);
    const hash = toContentHash(value);
    const [known] = await tx.select({ hash: jobs.hash }).from(jobs).where(eq(jobs.id, id));
    if (known) {
      expectSame(known.hash, hash, 'job');
      return { id };
    }
    const { document: written, shop: carried } = fromJobFile(value);
    const present = carried === null ? await readShop(tx) : await takeCarried(tx, id, carried);
    const checked = await inPieces(checkJobInPieces(written, present.lookup));
    if (!checked.ok) throw new Refusal(422, checked.problems);
    // versions of another installation's shop say nothing here
    const document: Job = { ...checked.value, shopVersion: present.version };
    const [made] = await tx.insert(jobs).values({ id, version: 0, document, hash }).onConflictDoNothing().returning({ id: jobs.id });
    if (!made) {
      // sent twice at the same moment
      const [other] = await tx.select({ hash: jobs.hash }).from(jobs).where(eq(jobs.id, id));
      expectSame(other!.hash, hash, 'job');
    }
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

/** rows of a history that are read at a time */
const HISTORY_PAGE = 20;
/** after every version: the greatest integer of PostgreSQL */
const LAST_VERSION = 2 ** 31 - 1;

/** What a person may undo and redo next. Their rows are read from the newest on, as many as it takes. */

/** up to here edits are kept without their patches, and none can be undone */
const compacted = sql`(select j.compacted from ${jobs} j where j.id = ${edits.jobId})`;

async function findHistory(db: Database | Transaction, jobId: string, author: string): Promise<HistoryTops> {
  const walk = new HistoryWalk();
  for (let before = LAST_VERSION; ;) {
    const rows = await db
      .select({ id: edits.id, version: edits.version, kind: edits.kind, ofEdit: edits.ofEdit })
      .from(edits)
      .where(and(eq(edits.jobId, jobId), eq(edits.author, author), lt(edits.version, before), gt(edits.version, compacted)))
      .orderBy(desc(edits.version))
      .limit(HISTORY_PAGE);
    if (rows.some((row) => walk.take(row)) || rows.length < HISTORY_PAGE) return { undo: walk.undo, redo: walk.redo };
    before = rows.at(-1)!.version;
  }
}

async function readHistory(db: Database | Transaction, id: string, author: string): Promise<{ undo: string | null; redo: string | null }> {
  const tops = await findHistory(db, id, author);
  const labelOf = async (edit: string | null) =>
    edit && (await db.select({ label: edits.label }).from(edits).where(eq(edits.id, edit)))[0]!.label;
  return { undo: await labelOf(tops.undo), redo: await labelOf(tops.redo) };
}

/** more than this at once, and who asks is better served by the document */
const MOST_SINCE = 500;

/** The edits after a version, oldest first; the first of them where there are many. */
export async function listEditsSince(
  id: string,
  version: number,
  db: Database | Transaction = database(),
): Promise<Pick<EditRow, 'version' | 'author' | 'label' | 'patch'>[]> {
  return db
    .select({ version: edits.version, author: edits.author, label: edits.label, patch: edits.patch })
    .from(edits)
    .where(and(eq(edits.jobId, id), gt(edits.version, version)))
    .orderBy(asc(edits.version))
    .limit(MOST_SINCE);
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
    const { id, author, label, patch } = edit;
    // not the version: what waited behind somebody else's edit is sent again on top of that
    const hash = toContentHash({ author, label, patch });
    const known = await findEdit(tx, jobId, id, hash);
    if (known) return toTaken(tx, known);
    if (edit.base > job.version) throw Refusal.at(422, 'base', `expected a version of the job, at most ${job.version}, got ${edit.base}`);
    if (edit.base < job.version) {
      const since = await listEditsSince(jobId, edit.base, tx);
      throw new Refusal(409, [{ path: '', message: `expected an edit of version ${job.version}, got one of version ${edit.base}` }], {
        version: job.version,
        since,
      });
    }
    return withHistory(tx, job.id, edit.author, await append(tx, job, shop, { ...edit, hash, kind: 'edit', ofEdit: null }));
  });
}

/** Take an edit that the server itself makes of what it is told, of the job as it is then. The same id again counts once. */
export async function takeEditOf(
  jobId: string,
  { id, author, about }: { id: string; author: string; about: unknown },
  make: (document: Job) => { label: string; patch: EditOperation[] },
): Promise<void> {
  await inJob(jobId, async (tx, job, shop) => {
    const hash = toContentHash({ author, about });
    if (await findEdit(tx, jobId, id, hash)) return;
    const { label, patch } = make(job.document);
    if (patch.length > 0) await append(tx, job, shop, { ...{ id, author, label, patch, hash }, kind: 'edit', ofEdit: null });
  });
}

/** Undo or redo the author's own last edit; refused where somebody changed the same place since. */
export async function takeHistory(jobId: string, request: { id: string; author: string; direction: 'undo' | 'redo' }): Promise<Taken> {
  return inJob(jobId, async (tx, job, shop) => {
    const { id, author, direction } = request;
    const hash = toContentHash({ author, direction });
    const known = await findEdit(tx, jobId, id, hash);
    if (known) return toTaken(tx, known);
    const target = (await findHistory(tx, jobId, author))[direction];
    if (target === null) throw Refusal.at(409, '', `There is nothing of ${author} to ${direction}.`);
    const [of, last] = await Promise.all([
      findOne(tx, jobId, eq(edits.id, target)),
      findOne(tx, jobId, or(eq(edits.id, target), eq(edits.ofEdit, target))!),
    ]);
    const patch = last.inverse;
    const later = await tx
      .select({ author: edits.author, patch: edits.patch })
      .from(edits)
      .where(and(eq(edits.jobId, jobId), gt(edits.version, last.version), ne(edits.author, author)));
    const other = later.find((row) => isOverlap(row.patch, patch));
    if (other)
      throw Refusal.at(409, patch[0]?.path ?? '', `${other.author} has changed the same place since; "${of.label}" cannot be taken back.`);
    const made = await append(tx, job, shop, {
      ...{ id, author, hash, patch, kind: direction, ofEdit: target },
      label: `${direction}: ${of.label}`.slice(0, 200),
    }).catch((error: unknown) => {
      if (!(error instanceof Refusal) || error.status !== UNFIT) throw error;
      // what it would bring back was stored by an older Wattograph, or rests on what is gone
      const [problem] = error.problems;
      throw Refusal.at(409, problem?.path ?? '', `"${of.label}" cannot be taken back as the job is now: ${problem?.message ?? ''}`);
    });
    return withHistory(tx, jobId, author, made);
  });
}

const UNFIT = 422;

/** The newest edit of a job of which that holds. */
async function findOne(tx: Transaction, jobId: string, condition: SQL): Promise<EditRow> {
  const [row] = await tx
    .select()
    .from(edits)
    .where(and(eq(edits.jobId, jobId), condition))
    .orderBy(desc(edits.version))
    .limit(1);
  return row!;
}

/**
 * Take what was entered at the vehicle, each entry once however often it is sent. What meets something else is kept in the job
 * for people to settle, so that nothing entered is lost.
 */
export async function takeSurvey(
  jobId: string,
  entries: readonly SurveyEntry[],
): Promise<{ version: number; document: Job; conflicts: string[] }> {
  return inJob(jobId, async (tx, job, shop) => {
    const fresh: SurveyEntry[] = [];
    for (const entry of entries) if (!(await findEdit(tx, jobId, entry.id, toContentHash(entry)))) fresh.push(entry);
    if (fresh.length === 0) return { version: job.version, document: job.document, conflicts: [] };
    // one look through the gate for all of them; where that finds something, one for each tells which it is
    const taken = (await recordEntries(job.document, fresh, shop, false)) ?? (await recordEntries(job.document, fresh, shop, true))!;
    const rows = taken.map(({ entry, label, patch, inverse }, index) => ({
      ...{ jobId, version: job.version + index + 1, id: entry.id, author: entry.author, label, patch, inverse },
      ...{ kind: 'edit' as const, ofEdit: null, hash: toContentHash(entry) },
    }));
    await tx.insert(edits).values(rows);
    const { version, document } = await writeVersion(tx, jobId, job.version + rows.length, taken.at(-1)!.document);
    return { version, document, conflicts: taken.flatMap(({ entry, isConflict }) => (isConflict ? [entry.id] : [])) };
  });
}

interface RecordedEntry {
  entry: SurveyEntry;
  label: string;
  isConflict: boolean;
  patch: EditOperation[];
  inverse: EditOperation[];
  document: Job;
}

/** What entries make of a job, one after another. An entry that would spoil it is kept beside it, not lost; null: one does, and not each was looked at. */
async function recordEntries(
  start: Job,
  entries: readonly SurveyEntry[],
  { shop, lookup }: PresentShop,
  isEach: boolean,
): Promise<RecordedEntry[] | null> {
  let document = start;
  const taken: RecordedEntry[] = [];
  for (const entry of entries) {
    let added = recordSurveyEntry(document, entry, shop, findStandard(document, shop));
    const checked = isEach ? await inPieces(checkJobInPieces(added.job, lookup)) : null;
    if (checked?.ok === false) added = keepBeside(document, entry, checked.problems[0]!.message);
    const { label, isConflict, job } = added;
    taken.push({ entry, label, isConflict, patch: listOperations(document, job), inverse: listOperations(job, document), document: job });
    document = job;
    // a long batch must not keep others waiting
    await breathe();
  }
  return isEach || (await inPieces(checkJobInPieces(document, lookup))).ok ? taken : null;
}

async function inJob<T>(
  jobId: string,
  work: (tx: Transaction, job: { id: string; version: number; document: Job }, shop: PresentShop) => Promise<T>,
): Promise<T> {
  const result = await inTurn(jobId, () => lockJob(jobId, work));
  enqueueLine(jobId);
  return result;
}

async function lockJob<T>(
  jobId: string,
  work: (tx: Transaction, job: { id: string; version: number; document: Job }, shop: PresentShop) => Promise<T>,
): Promise<T> {
  let written: Written | undefined;
  const result = await database().transaction(async (tx) => {
    const [job] = await tx.select({ id: jobs.id, version: jobs.version, stamp }).from(jobs).where(eq(jobs.id, jobId)).for('update');
    if (!job) throw Refusal.at(404, '', 'There is no such job.');
    const document = findOpen(jobId, job.stamp) ?? (await readDocument(tx, jobId));
    // after the lock: a shop that is being changed has been waited for
    const done = await work(tx, { ...job, document }, await readShopOf(document, tx));
    written = writes.get(tx);
    return done;
  });
  // committed: the next edit begins with it
  if (written) holdOpen(jobId, written.stamp, written.document, written.size);
  return result;
}

/** the transaction that wrote a row: another one for every write */
const stamp = sql<string>`${jobs}.xmin::text`;

interface Written {
  stamp: string;
  document: Job;
  size: number;
}
/** what a transaction has written, until it is known that it counts */
const writes = new WeakMap<Transaction, Written>();

async function readDocument(tx: Transaction, jobId: string): Promise<Job> {
  const [row] = await tx.select({ document: jobs.document }).from(jobs).where(eq(jobs.id, jobId));
  // what was read of several megabytes has taken its time
  await breathe();
  return toPresent(row!.document);
}

/** The edit that is stored under this id; undefined: none. Throws 409 where it is another one. */
async function findEdit(tx: Transaction, jobId: string, id: string, hash: string): Promise<EditRow | undefined> {
  const [row] = await tx.select().from(edits).where(eq(edits.id, id));
  if (!row) return undefined;
  expectSame(row.jobId === jobId ? row.hash : '', hash, 'edit');
  return row;
}

async function toTaken(tx: Transaction, row: EditRow): Promise<Taken> {
  return withHistory(tx, row.jobId, row.author, { version: row.version, patch: row.patch });
}

async function append(
  tx: Transaction,
  job: { id: string; version: number; document: Job },
  shop: PresentShop,
  edit: { id: string; author: string; label: string; patch: EditOperation[]; hash: string; kind: EditRow['kind']; ofEdit: string | null },
): Promise<Pick<Taken, 'version' | 'patch'>> {
  const applied = applyEdit(job.document, edit.patch);
  if (!applied.ok) throw new Refusal(422, applied.problems);
  await breathe();
  // an edit may bring the job up to another version of the shop, and is held to that
  const isMoved = applied.value.shopVersion !== job.document.shopVersion;
  const { lookup } = isMoved ? await readShopOf(applied.value, tx) : shop;
  const checked = await inPieces(checkJobInPieces(applied.value, lookup));
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
    hash: edit.hash,
    patch: edit.patch,
    inverse: listOperations(checked.value, job.document),
  });
  await writeVersion(tx, job.id, version, checked.value);
  return { version, patch: edit.patch };
}

/** as much as a file of a job may have: what grows beyond it could not be read back */
const MOST_TEXT = 8 * 1024 * 1024;

async function writeVersion(tx: Transaction, id: string, version: number, document: Job): Promise<{ version: number; document: Job }> {
  // written out once: of several megabytes it takes as long as a frame or two. As json: jsonb would put what is in it in another order
  const text = JSON.stringify(document);
  if (text.length > MOST_TEXT) throw Refusal.at(422, '', 'expected a job of at most 8 MB, got more: nothing was stored');
  const [row] = await tx
    .update(jobs)
    .set({ version, document: sql`${text}::json`, changedAt: new Date() })
    .where(eq(jobs.id, id))
    .returning({ stamp });
  writes.set(tx, { stamp: row!.stamp, document, size: text.length });
  await tell(tx, { topic: 'job', id, version });
  return { version, document };
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
