import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { and, eq, lt } from 'drizzle-orm';
import {
  createFirstPower,
  isPowered,
  POWER_STEP,
  toWokenId,
  type Catalogue,
  type FirstPower,
  type Job,
  type JobPlan,
  type LoomPlan,
  type PowerPart,
} from 'wattograph-core';
import { database, type Database } from '../database';
import { Refusal } from '../refusal';
import { floorEvents, releasePower, type FloorEventRow } from '../schema';

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];

const NOTHING_ABSENT: Pick<FirstPower, 'absent'> = { absent: [] };

export type PowerRow = typeof releasePower.$inferInsert;

/** First power of a revision as it is kept with it. */
export async function freezePower(job: Job, planned: JobPlan, shop: Catalogue, of: { jobId: string; number: number }): Promise<PowerRow> {
  const sheet = createFirstPower(job, planned, shop);
  return { ...of, sheet: sheet && (await zip(JSON.stringify(sheet))) };
}

export async function storePower(db: Pick<Database, 'insert'>, row: PowerRow): Promise<void> {
  await db.insert(releasePower).values(row).onConflictDoNothing();
}

/** First power of a revision; null: it has no battery; undefined: an earlier Wattograph released it, and worked none out. */
export async function readPower(jobId: string, number: number): Promise<FirstPower | null | undefined> {
  const [row] = await database()
    .select({ sheet: releasePower.sheet })
    .from(releasePower)
    .where(and(eq(releasePower.jobId, jobId), eq(releasePower.number, number)));
  if (!row) return undefined;
  // what an earlier Wattograph worked out says nothing of what is not there
  return row.sheet && { ...NOTHING_ABSENT, ...(JSON.parse((await unzip(row.sheet)).toString()) as FirstPower) };
}

/** Revisions before one in which something was read at first power, in order. */
export async function listPowerRevisions(jobId: string, before: number): Promise<number[]> {
  const rows = await database()
    .selectDistinct({ number: floorEvents.release })
    .from(floorEvents)
    .where(and(eq(floorEvents.jobId, jobId), lt(floorEvents.release, before), eq(floorEvents.stepId, POWER_STEP)))
    .orderBy(floorEvents.release);
  return rows.map(({ number }) => number);
}

/** What may be read of a revision, with the part of each, and what holds it from power. */
interface AskedPower {
  partOf: ReadonlyMap<string, PowerPart>;
  held: readonly string[];
}

/** A revision never changes; the latest asked for are kept. */
const asked = new Map<string, AskedPower>();
const MOST_ASKED = 20;

async function readAsked(jobId: string, number: number, listHeld: () => Promise<string[]>): Promise<AskedPower> {
  const key = `${jobId} ${number}`;
  const known = asked.get(key);
  if (known) return known;
  const sheet = (await readPower(jobId, number)) ?? null;
  const partOf = new Map<string, PowerPart>();
  for (const test of sheet?.tests ?? []) {
    partOf.set(test.id, test.part);
    if (test.part === 'feeds') for (const id of Object.keys(sheet!.devices)) partOf.set(toWokenId(test, id), test.part);
  }
  const made = { partOf, held: await listHeld() };
  asked.set(key, made);
  for (const oldest of asked.keys()) if (asked.size > MOST_ASKED) asked.delete(oldest);
  return made;
}

/** What of a loom is held from power, and why. */
export const listPowerHolds = ({ wires }: Pick<LoomPlan, 'wires'>): string[] =>
  wires.flatMap(({ number, heldBy }) => heldBy.flatMap(({ stops, words }) => (stops === 'energise' ? [`${number}: ${words}`] : [])));

/**
 * What is told of first power is a reading that the revision asks for, and none with power on what is held from it, or before every loom is rung
 * out. Throws 422. listUnproved: names of looms that are not rung out as they are now.
 */
export async function expectPowerAsked(
  jobId: string,
  number: number,
  { loomId, itemId, kind, readId }: Pick<FloorEventRow, 'loomId' | 'itemId' | 'kind'> & { readId?: string | null },
  listHeld: () => Promise<string[]>,
  listUnproved: () => Promise<string[]>,
): Promise<void> {
  const refuse = (message: string) => Refusal.at(422, `${POWER_STEP} ${itemId}`, message);
  if (loomId !== '') throw refuse('first power is of the vehicle: expected no loom');
  if (kind !== 'reading' || typeof readId !== 'string') throw refuse('expected a reading');
  const { partOf, held } = await readAsked(jobId, number, listHeld);
  const part = partOf.get(readId);
  if (part === undefined || part !== itemId)
    throw refuse(`expected something that is read at first power in revision ${number}, got another`);
  if (!isPowered(part)) return;
  if (held.length > 0) throw refuse(`it is held from power: ${held[0]}`);
  const [unproved] = await listUnproved();
  if (unproved !== undefined) throw refuse(`no power yet: the ${unproved} loom is not rung out`);
}
