import { and, asc, desc, eq, getTableColumns, gt, isNull, max, min, sql, type SQL } from 'drizzle-orm';
import { createPlanner, ENGINE, listFindings, listUses, type Finding, type Job, type JobPlan, type Planner } from 'wattograph-core';
import { today } from '../client/today';
import { database } from './database';
import { BIN_DAYS } from './jobs/binDays';
import { log } from './log';
import { storePlan } from './plans';
import { toPresent } from './present';
import { readRest, toPatience } from './jobs/patience';
import { enqueue } from './work/queue';
import { Refusal } from './refusal';
import { edits, jobLines, jobs, releases } from './schema';
import { readShopOf, type PresentShop } from './shop';
import { tell } from './tell';

/** What a worker counted of the plan of a job. */
export interface Counted {
  looms: number;
  wires: number;
  stops: number;
  checks: number;
  /** why it cannot be planned, where it cannot */
  problem: string | null;
}

/** With the records of the shop that it uses, as table/id. */
type CountedWhole = Counted & { uses: string[] };

/** One job on the wall. */
export interface JobSummary {
  id: string;
  name: string;
  customer: string;
  /** null: never counted yet */
  counted: Counted | null;
  /** false: it was edited since it was counted, or the day is another; a worker is at it */
  isCurrent: boolean;
  revision: number;
  /** edits since the last release */
  editsSince: number;
  changedAt: string;
  /** who made the last edit; null: none since it was begun */
  changedBy: string | null;
  isArchived: boolean;
  /** who put it in the bin, and when it is gone for good; null: it is not there */
  deleted: { by: string; until: string } | null;
  next: string;
  promisedOn: string | null;
}

/** one for each version of the shop that jobs are planned with, for as long as that is held */
const planners = new WeakMap<PresentShop, Planner>();

function findPlanner(shop: PresentShop): Planner {
  const known = planners.get(shop) ?? createPlanner(shop.shop);
  planners.set(shop, known);
  return known;
}

const last = sql<{ number: number; version: number } | null>`(
  select json_build_object('number', r.number, 'version', r.version) from ${releases} r
  where r.job_id = ${jobs.id} order by r.number desc limit 1)`;

const lastAuthor = sql<string | null>`(select e.author from ${edits} e where e.job_id = ${jobs.id} order by e.version desc limit 1)`;

async function readRows(id?: string) {
  return database()
    .select({
      ...{ id: jobs.id, version: jobs.version, name: jobs.name, customer: jobs.customer },
      ...{ promisedOn: jobs.promisedOn, changedAt: jobs.changedAt, archivedAt: jobs.archivedAt },
      ...{ deletedAt: jobs.deletedAt, deletedBy: jobs.deletedBy },
      ...{ last, lastAuthor, line: getTableColumns(jobLines) },
    })
    .from(jobs)
    .leftJoin(jobLines, eq(jobLines.jobId, jobs.id))
    .where(id === undefined ? undefined : eq(jobs.id, id))
    .orderBy(desc(jobs.changedAt));
}

type Row = Awaited<ReturnType<typeof readRows>>[number];

const isCurrent = ({ line, version }: Row): boolean => line?.version === version && line.engine === ENGINE && line.day === today();

/** The wall: every job with what is next for it, as workers counted it. Nothing is planned here; what is out of date is put in line. */
export async function listJobSummaries(): Promise<JobSummary[]> {
  const rows = await readRows();
  void enqueueSoon(listStale(rows), () => 0);
  return rows.map((row) => ({
    id: row.id,
    name: row.name ?? '',
    customer: row.customer ?? '',
    counted: row.line && {
      ...{ looms: row.line.looms, wires: row.line.wires, stops: row.line.stops },
      ...{ checks: row.line.checks, problem: row.line.problem },
    },
    isCurrent: isCurrent(row),
    revision: row.last?.number ?? 0,
    editsSince: row.version - (row.last?.version ?? 0),
    changedAt: row.changedAt.toISOString(),
    changedBy: row.lastAuthor,
    isArchived: row.archivedAt !== null,
    deleted: row.deletedAt && { by: row.deletedBy ?? '', until: toLastDay(row.deletedAt) },
    next: toNext(row),
    promisedOn: row.promisedOn,
  }));
}

const toLastDay = (deletedAt: Date): string => new Date(deletedAt.getTime() + BIN_DAYS * 86_400_000).toISOString().slice(0, 10);

function toNext({ line, last: released, version }: Row): string {
  if (!line) return 'Being counted';
  if (line.problem !== null) return 'Open it: it cannot be planned';
  if (line.wires === 0) return 'Add ends and circuits';
  if (line.stops > 0) return `Mend ${line.stops} stop ${line.stops === 1 ? 'finding' : 'findings'}`;
  return !released || released.version < version ? `Release revision ${(released?.number ?? 0) + 1}` : `Build revision ${released.number}`;
}

const listStale = (rows: readonly Row[]): string[] => rows.filter((row) => row.deletedAt === null && !isCurrent(row)).map(({ id }) => id);

/** Jobs that use each record of the shop, as they were last counted: table/id → jobs. */
export async function listUsers(): Promise<Record<string, { id: string; name: string }[]>> {
  const users: Record<string, { id: string; name: string }[]> = {};
  for (const { id, name, line } of await readRows()) for (const use of line?.uses ?? []) (users[use] ??= []).push({ id, name: name ?? '' });
  return users;
}

/** Jobs by name, for who chooses one. */
export async function listJobNames(): Promise<{ id: string; name: string }[]> {
  const rows = await database().select({ id: jobs.id, name: jobs.name }).from(jobs).where(isNull(jobs.deletedAt)).orderBy(asc(jobs.name));
  return rows.map(({ id, name }) => ({ id, name: name ?? '' }));
}

/** Put a job away from the wall, or back on it. Nothing of it is lost. */
export async function setArchived(id: string, archived: boolean): Promise<void> {
  const db = database();
  const [row] = await db
    .update(jobs)
    .set({ archivedAt: archived ? new Date() : null })
    .where(eq(jobs.id, id))
    .returning({ id: jobs.id });
  if (!row) throw Refusal.at(404, '', 'There is no such job.');
  await tell(db, { topic: 'lines', id });
}

/** Put every line that is out of date in line. */
export async function enqueueStaleLines(): Promise<void> {
  await enqueue('line', listStale(await readRows()));
}

/** After an edit: count its line anew, when the edits rest. */
export const enqueueLine = (id: string): void => void enqueueSoon([id], readRest);

/** How long the edits of a job are given before its line is counted, s; 0: they rest. */
export async function findPatience(id: string): Promise<number> {
  const age = (at: SQL) => sql<string>`coalesce(extract(epoch from now() - ${at}), 'infinity')`;
  const [row] = await database()
    .select({ restS: age(max(edits.at)), sinceS: age(min(edits.at)) })
    .from(edits)
    .leftJoin(jobLines, eq(jobLines.jobId, edits.jobId))
    .where(and(eq(edits.jobId, id), gt(edits.version, sql`coalesce(${jobLines.version}, 0)`)));
  return toPatience(Number(row!.restS), Number(row!.sinceS), readRest());
}

/** Nobody waits for it, and what fails is caught up with at the next visit of the wall. */
async function enqueueSoon(ids: readonly string[], readDelay: () => number): Promise<void> {
  try {
    await enqueue('line', ids, readDelay());
  } catch (error) {
    log.warn({ error: (error as Error).message }, 'lines not put in line');
  }
}

/** Plan a job and store what the wall says of it. */
export async function countLine(id: string): Promise<void> {
  const db = database();
  const [row] = await readRows(id);
  if (!row || isCurrent(row)) return;
  const [job] = await db.select({ version: jobs.version, document: jobs.document }).from(jobs).where(eq(jobs.id, id));
  if (!job) return;
  const document = toPresent(job.document);
  const { counted, made } = countJob(id, document, await readShopOf(document));
  await storeLine(id, job.version, counted);
  if (made) await storePlan(id, job.version, made.plan, made.findings);
}

/** What the wall says of a job that could not be counted. */
export async function storeProblem(id: string, problem: string): Promise<void> {
  const [job] = await database().select({ version: jobs.version }).from(jobs).where(eq(jobs.id, id));
  if (job) await storeLine(id, job.version, { looms: 0, wires: 0, stops: 0, checks: 0, problem, uses: [] });
}

async function storeLine(id: string, version: number, counted: CountedWhole): Promise<void> {
  const line = { jobId: id, version, engine: ENGINE, day: today(), ...counted };
  const db = database();
  await db
    .insert(jobLines)
    .values(line)
    .onConflictDoUpdate({
      target: jobLines.jobId,
      set: line,
      setWhere: sql`${jobLines.version} <= ${line.version}`,
    });
  await tell(db, { topic: 'lines', id });
}

/** The line of a job, and what it was counted from; null: it cannot be planned. */
function countJob(
  id: string,
  document: Job,
  present: PresentShop,
): { counted: CountedWhole; made: { plan: JobPlan; findings: Finding[] } | null } {
  try {
    const plan = findPlanner(present)(document);
    const findings = listFindings(document, plan, present.shop, today());
    const open = findings.filter(({ key }) => !Object.hasOwn(document.accepted, key));
    const count = (grade: Finding['grade']) => open.filter((finding) => finding.grade === grade).length;
    const wires = plan.looms.reduce((sum, loom) => sum + loom.wires.length, 0);
    const counted = { looms: plan.looms.length, wires, stops: count('stop'), checks: count('check') };
    return { counted: { ...counted, problem: null, uses: listUses(document, plan, present.shop) }, made: { plan, findings } };
  } catch (error) {
    // one job that cannot be planned must not keep the wall from the others
    const problem = error instanceof Error ? error.message : String(error);
    log.error({ job: id, error: problem }, 'job cannot be planned');
    return { counted: { looms: 0, wires: 0, stops: 0, checks: 0, problem, uses: [] }, made: null };
  }
}
