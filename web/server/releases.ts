import { today } from '../client/today';
import { and, asc, eq, gt, inArray, isNull, lt, sql } from 'drizzle-orm';
import {
  carryOver,
  CRIMP_STEP,
  dropOvertaken,
  isAnswer,
  isHeldFromCutting,
  isHeldInPlan,
  listCrimpSeries,
  listFindings,
  listLanes,
  listTesters,
  MILESTONE_STEP,
  plan,
  POWER_STEP,
  PROBLEM_ANSWERS,
  TIME_KINDS,
  UNDO_STEP,
  type CarriedWork,
  type Finding,
  type JobPlan,
  type Operation,
  type ShopStandard,
  type Step,
} from 'wattograph-core';
import { record } from './accounts/record';
import { RIGHTS } from './accounts/rights';
import { toPresent } from './present';
import { expectSame, toContentHash } from './contentHash';
import { database, tickDatabase } from './database';
import type { FloorEvent } from './floorEvent';
import { freeze, listFrozen, listFrozenBuilds, readFrozen, storeFrozen } from './frozen';
import { createGatherer } from './gather';
import { Refusal } from './refusal';
import { addUses, expectCrimpAsked, nameUses, toAskedCrimps, toUse, type AskedCrimps, type ToolUse } from './jobs/crimps';
import { expectCheckAsked, readStandardOf } from './jobs/checks';
import { expectPowerAsked, freezePower, listPowerHolds, storePower } from './jobs/firstPower';
import { createUnproved, type ProvedLooms } from './jobs/unproved';
import { readShopOf } from './shop';
import { floorEvents, jobs, people, releases, type ReleaseRow } from './schema';
import type { TaskContext } from './work/taskKinds';
import { tell } from './tell';

const LINE = {
  ...{ number: releases.number, version: releases.version, author: releases.author, note: releases.note },
  ...{ heldWires: releases.heldWires, at: releases.at },
};
export type ReleaseLine = Pick<ReleaseRow, keyof typeof LINE>;

interface ReleaseAsked {
  id: string;
  /** version that whoever releases has seen */
  base: number;
  author: string;
  note: string;
  /** is what doubts hold from being cut left out for now, and the rest released? */
  inPart: boolean;
}

const EDITED = (by: string) => `The job was edited ${by}: look at it and release it again. Nothing was released.`;

/**
 * Make a numbered revision of a version of a job, with all that was planned, built and drawn of it. Refused where the job has been edited since,
 * and while a stop finding is neither mended nor accepted with a reason; in part, also where all that a finding stops is held in the plan
 * anyway (craft G2). The same id again gives the revision that it made.
 */
export async function createRelease(
  jobId: string,
  { id, base, author, note, inPart }: ReleaseAsked,
  { report }: TaskContext,
): Promise<ReleaseLine> {
  const known = await findRelease(jobId, id, author, note);
  if (known) return known;
  const [job] = await database().select().from(jobs).where(eq(jobs.id, jobId));
  if (!job) throw Refusal.at(404, '', 'There is no such job.');
  if (job.version !== base) throw Refusal.at(409, 'base', EDITED(`since version ${base}`));
  const document = toPresent(job.document);
  const present = await readShopOf(document);
  const planned = plan(document, present.shop);
  const findings = listFindings(document, planned, present.shop, today());
  const isLeft = (finding: Finding) => Object.hasOwn(document.accepted, finding.key) || (inPart && isHeldInPlan(finding));
  const open = findings.filter((finding) => finding.grade === 'stop' && !isLeft(finding));
  if (open.length)
    throw new Refusal(
      422,
      open.map(({ sentence, code }) => ({ path: code, message: sentence })),
    );
  const number = ((await listReleases(jobId)).at(-1)?.number ?? 0) + 1;
  const rows = await freeze(document, planned, findings, present, { jobId, number, date: today() }, report);
  const power = await freezePower(document, planned, present.shop, { jobId, number });
  const line = await database().transaction(async (tx) => {
    const [now] = await tx.select({ version: jobs.version }).from(jobs).where(eq(jobs.id, jobId)).for('update');
    if (now?.version !== job.version) throw Refusal.at(409, 'base', EDITED('while it was planned'));
    const [made] = await tx
      .insert(releases)
      .values({ ...{ jobId, number, id, version: job.version, document, author, note }, heldWires: countHeld(planned) })
      .onConflictDoNothing()
      .returning(LINE);
    if (!made) return null;
    await storeFrozen(tx, rows);
    await storePower(tx, power);
    await record(tx, author, 'released', `revision ${number} of ${document.name}`);
    await tell(tx, { topic: 'release', id: jobId, number });
    return made;
  });
  // somebody released at the same moment
  return line ?? (await findRelease(jobId, id, author, note)) ?? createRelease(jobId, { id, base, author, note, inPart }, { report });
}

const countHeld = ({ looms }: JobPlan): number => looms.reduce((sum, { wires }) => sum + wires.filter(isHeldFromCutting).length, 0);

/** The revision that was made under this id; null: none. Throws 409 where it was another one. */
async function findRelease(jobId: string, id: string, author: string, note: string): Promise<ReleaseLine | null> {
  const [known] = await database().select({ line: LINE, of: releases.jobId }).from(releases).where(eq(releases.id, id));
  if (!known) return null;
  const { line } = known;
  expectSame(toContentHash([known.of, line.author, line.note]), toContentHash([jobId, author, note]), 'revision');
  return line;
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

/** Steps that no build of a loom has: what is to be undone, and what is of the vehicle. */
const OF_NO_BUILD: ReadonlySet<string> = new Set([UNDO_STEP, MILESTONE_STEP]);

const EVENT_ID = /^[0-9a-f-]{36}$/i;

/** Kinds of event that a wall of problems hangs on. */
const TROUBLES: ReadonlySet<string> = new Set(['problem', 'solved', 'answer']);

/** Add what happened on the floor. The same id and content again counts once; what the revision does not ask for is refused. */
export async function addFloorEvents(
  jobId: string,
  release: number,
  events: readonly FloorEvent[],
  mayAnswer: boolean,
): Promise<{ stored: string[] }> {
  if (!mayAnswer && events.some(({ kind }) => kind === 'answer')) throw Refusal.at(403, 'kind', 'a problem is answered by whoever plans');
  await expectAsked(jobId, release, events);
  const signed = await expectSecond(jobId, release, events);
  const rows: EventRow[] = [];
  for (const event of events)
    rows.push({
      ...{ ...event, jobId, release, happenedAt: new Date(event.happenedAt) },
      hash: toContentHash({ ...event, jobId, release }),
      isSignature: signed.has(event.id),
      use: await findUse(jobId, release, event),
    });
  await storeTogether(`${jobId} ${release}`, await nameUses(rows));
  return { stored: events.map(({ id }) => id) };
}

type EventRow = typeof floorEvents.$inferInsert & {
  jobId: string;
  release: number;
  hash: string;
  isSignature: boolean;
  /** crimps that it tells of, with their tool */
  use: ToolUse | null;
};

/** Crimps that an event tells of, with their tool; null: it tells of none. */
async function findUse(jobId: string, release: number, event: FloorEvent): Promise<ToolUse | null> {
  if (event.kind !== 'sample' && (event.kind !== 'tick' || OF_NO_BUILD.has(event.stepId))) return null;
  return toUse((await readBuild(jobId, release, event.loomId)).crimps, event);
}

async function storeRows(key: string, batches: readonly EventRow[][]): Promise<void> {
  const rows = batches.flat();
  const { jobId, release } = rows[0]!;
  await tickDatabase().transaction(async (tx) => {
    // serials become visible in their order: who asks for what came after one misses nothing
    await tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`floor ${key}`}, 0))`);
    const values = rows.map(({ isSignature: _, use: __, ...row }) => row);
    const made = await tx.insert(floorEvents).values(values).onConflictDoNothing().returning({ id: floorEvents.id });
    const fresh = new Set(made.map(({ id }) => id));
    for (const { id, author, loomId, isSignature } of rows)
      if (isSignature && fresh.has(id)) await record(tx, author, 'signed', `loom ${loomId} of revision ${release} of job ${jobId}`);
    await addUses(
      tx,
      rows.filter(({ id }) => fresh.has(id)).map(({ use }) => use),
    );
    if (made.length > 0) await tell(tx, { topic: 'floor', id: jobId, number: release });
    if (rows.some(({ id, kind }) => fresh.has(id) && TROUBLES.has(kind))) await tell(tx, { topic: 'problem', id: jobId });
    if (made.length === rows.length) return;
    const kept = await tx
      .select({ id: floorEvents.id, hash: floorEvents.hash })
      .from(floorEvents)
      .where(
        inArray(
          floorEvents.id,
          rows.map(({ id }) => id),
        ),
      );
    const hashOf = new Map(kept.map(({ id, hash }) => [id, hash]));
    for (const { id, hash } of rows) expectSame(hashOf.get(id) ?? null, hash, 'tick');
  });
}

/** Tablets tick at the same moment: what they send of one revision goes into one commit. */
const storeTogether = createGatherer(storeRows, ({ length }) => length);

/** Every event is about a step and an item of the revision, or a lane of it, and no tick is of what is held. */
async function expectAsked(jobId: string, release: number, events: readonly FloorEvent[]): Promise<void> {
  let standard: ShopStandard | null = null;
  const findUnproved = createUnproved(() => readProved(jobId, release));
  for (const [at, event] of events.entries()) {
    const { loomId, stepId, itemId, kind } = event;
    const refuse = (message: string) => Refusal.at(422, `${stepId} ${itemId}`.trim(), message);
    if (stepId === POWER_STEP) {
      const listHeld = () => listHeldFromPower(jobId, release);
      await expectPowerAsked(jobId, release, event, listHeld, () => findUnproved(events.slice(0, at)));
      continue;
    }
    if (stepId === MILESTONE_STEP) {
      standard ??= await readStandardOf((await readRelease(jobId, release)).document);
      expectCheckAsked(standard, event);
      continue;
    }
    if (stepId === UNDO_STEP) {
      const { undo } = await readCarried(jobId, release, loomId);
      if (itemId !== '' && !undo.some(({ id }) => id === itemId))
        throw refuse(`revision ${release} asks for nothing of that name to be undone`);
      continue;
    }
    const build = await readBuild(jobId, release, loomId);
    if (stepId === CRIMP_STEP) {
      await expectCrimpAsked(build.crimps, event);
      continue;
    }
    if (kind === 'gauge' || kind === 'sample' || kind === 'changeover')
      throw refuse(`expected ${CRIMP_STEP} for the step of what is told of a tool or its samples`);
    if (kind === 'take' || kind === 'leave') {
      if (stepId !== '' || !build.lanes.has(itemId))
        throw refuse(`expected an end, a run or a post of revision ${release} of the loom, got another`);
      continue;
    }
    const items = build.items.get(stepId);
    if (!items) throw refuse(`expected a step of revision ${release} of the loom, got another`);
    // troubles are of the step as a whole
    if (kind === 'problem' || kind === 'solved') continue;
    if (kind === 'answer') {
      if (!isAnswer(itemId)) throw refuse(`expected one of ${PROBLEM_ANSWERS.join(', ')}, got another answer`);
      continue;
    }
    if ((TIME_KINDS as readonly string[]).includes(kind) && !EVENT_ID.test(event.words))
      throw refuse('expected the id of the event that ended the time, got other words');
    const held = items.get(itemId);
    if (held === undefined) throw refuse(`expected something that the step asks for in revision ${release}, got another`);
    if (held && (kind === 'tick' || kind === 'hand')) throw refuse(`it is held: ${held}`);
  }
}

async function listHeldFromPower(jobId: string, release: number): Promise<string[]> {
  const held: string[] = [];
  for (const { loomId } of await listFrozen(jobId, release)) held.push(...listPowerHolds((await readFrozen(jobId, release, loomId)).plan));
  return held;
}

/** Looms of a revision with all that says whether they are rung out. */
async function readProved(jobId: string, release: number): Promise<ProvedLooms> {
  const { document } = await readRelease(jobId, release);
  const wired = (await listFrozen(jobId, release)).filter(({ wires }) => wires > 0);
  const looms = wired.map(async ({ loomId }) => {
    const [{ steps }, carried] = await Promise.all([readBuild(jobId, release, loomId), readCarried(jobId, release, loomId)]);
    return { loomId, name: document.looms[loomId]!.name, steps, carried };
  });
  return { looms: await Promise.all(looms), stored: await listFloorEvents(jobId, release) };
}

/**
 * A loom is signed by somebody else than who tested it, where more than one person works here. Gives the ids of the ticks that sign.
 * Throws 422.
 */
async function expectSecond(jobId: string, release: number, events: readonly FloorEvent[]): Promise<ReadonlySet<string>> {
  const signing: FloorEvent[] = [];
  for (const event of events) {
    if (event.kind !== 'tick' || OF_NO_BUILD.has(event.stepId)) continue;
    if ((await readBuild(jobId, release, event.loomId)).operations.get(event.stepId) === 'sign') signing.push(event);
  }
  if (signing.length > 0 && (await hasSeveral())) {
    const before = [...(await listFloorEvents(jobId, release)), ...events];
    for (const { loomId, stepId, itemId, author } of signing) {
      const steps = [...(await readBuild(jobId, release, loomId)).operations].map(([id, operation]) => ({ id, operation }));
      const isTester = listTesters(
        steps,
        before.filter((one) => one.loomId === loomId),
      ).includes(author);
      if (isTester) throw Refusal.at(422, `${stepId} ${itemId}`, `${author} tested this loom: somebody else looks it over and signs`);
    }
  }
  return new Set(signing.map(({ id }) => id));
}

/** Does more than one person here build looms? Whoever works alone signs alone. */
export async function hasSeveral(): Promise<boolean> {
  const rows = await database()
    .select({ id: people.id })
    .from(people)
    .where(and(isNull(people.leftAt), inArray(people.role, [...RIGHTS.report])))
    .limit(2);
  return rows.length > 1;
}

interface Asked {
  steps: readonly Step[];
  items: Map<string, Map<string, string | null>>;
  /** by step */
  operations: Map<string, Operation>;
  lanes: Set<string>;
  /** what its steps are called */
  titles: Map<string, string>;
  crimps: AskedCrimps;
}

/** What a loom of a revision asks for: steps, their items, why one is held. A revision never changes; the latest asked for are kept. */
const asked = new Map<string, Asked>();
const MOST_ASKED = 40;

export async function readBuild(jobId: string, release: number, loomId: string): Promise<Asked> {
  const key = `${jobId} ${release} ${loomId}`;
  const known = asked.get(key);
  if (known) return known;
  const { build, plan: loom } = await readFrozen(jobId, release, loomId);
  const made: Asked = {
    steps: build.steps,
    // which they are and how they are made; the heights of their sheets are asked for at the bench alone
    crimps: toAskedCrimps(listCrimpSeries(loom, build.steps, [])),
    items: new Map(build.steps.map(({ id, items }) => [id, new Map(items.map((item) => [item.id, item.heldBecause]))])),
    operations: new Map(build.steps.map(({ id, operation }) => [id, operation])),
    lanes: new Set(listLanes(build.steps)),
    titles: new Map(build.steps.map(({ id, title }) => [id, title])),
  };
  asked.set(key, made);
  for (const oldest of asked.keys()) if (asked.size > MOST_ASKED) asked.delete(oldest);
  return made;
}

/** What happened on the floor of a revision, after an event that is known already. */
export async function listFloorEvents(jobId: string, release: number, after = 0): Promise<FloorEvent[]> {
  const rows = await database()
    .select()
    .from(floorEvents)
    .where(and(eq(floorEvents.jobId, jobId), eq(floorEvents.release, release), gt(floorEvents.serial, after)))
    .orderBy(asc(floorEvents.serial));
  return rows.map(({ serial, id, loomId, stepId, itemId, kind, words, author, readId, value, unit, instrument, happenedAt, ...row }) => ({
    ...{ serial, id, loomId, stepId, itemId, kind, words, author, happenedAt: happenedAt.toISOString() },
    ...{ device: row.device, after: row.after },
    ...(kind === 'reading' ? { readId, value, unit, instrument } : {}),
    ...(kind === 'sample' ? { samples: row.samples } : {}),
  }));
}

/** What was ticked in earlier revisions, and what that comes to in this one. */
export async function readCarried(jobId: string, release: number, loomId: string): Promise<CarriedWork> {
  const [builds, rows] = await Promise.all([
    listFrozenBuilds(jobId, release, loomId),
    database()
      .select({
        ...{ release: floorEvents.release, stepId: floorEvents.stepId, itemId: floorEvents.itemId, kind: floorEvents.kind },
        ...{ serial: floorEvents.serial, device: floorEvents.device, after: floorEvents.after },
      })
      .from(floorEvents)
      .where(and(eq(floorEvents.jobId, jobId), lt(floorEvents.release, release), eq(floorEvents.loomId, loomId)))
      .orderBy(asc(floorEvents.serial)),
  ]);
  return carryOver(
    builds.map(({ number, build }) => ({ number, steps: build.steps, ticks: dropOvertaken(rows.filter((row) => row.release === number)) })),
  );
}
