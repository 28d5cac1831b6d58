import { promisify } from 'node:util';
import { gunzip, gzip } from 'node:zlib';
import { and, asc, eq, lte } from 'drizzle-orm';
import {
  addAdapter,
  addCavityFields,
  addWireKind,
  createBuild,
  createFloorBoard,
  createSheets,
  ENGINE,
  findFamily,
  listFindings,
  PAPERS,
  plan,
  toPresentBoard,
  type Colour,
  type ConnectorFamily,
  type Finding,
  type FloorBoard,
  type Job,
  type JobPlan,
  type LoomBuild,
  type LoomPlan,
  type Paper,
  type PlannedWire,
  type SheetPage,
} from 'wattograph-core';
import { database, type Database } from './database';
import { toPresent } from './present';
import { freezePower, storePower } from './jobs/firstPower';
import { isWorker } from './work/queue';
import { Refusal } from './refusal';
import { releaseLooms, releases } from './schema';
import { readShopOf, type PresentShop } from './shop';
import type { TaskContext } from './work/taskKinds';
import { askTask } from './work/tasks';

/** A loom of a revision as the floor, the exports and the tests read it. */
export interface FrozenLoom {
  loomId: string;
  plan: LoomPlan;
  build: LoomBuild;
  /** part families of its ends, by id */
  families: Record<string, ConnectorFamily>;
  /** where it is spread on a board; null: it was not, or an earlier Wattograph froze it */
  board: FloorBoard | null;
}

export type FrozenPages = Record<Paper, SheetPage[]>;
type Row = typeof releaseLooms.$inferInsert;

const [zip, unzip] = [promisify(gzip), promisify(gunzip)];
const pack = async (value: unknown): Promise<Buffer> => zip(JSON.stringify(value));
const unpack = async <T>(bytes: Buffer): Promise<T> => JSON.parse((await unzip(bytes)).toString()) as T;

/** Everything that is stored of the looms of a revision. */
export async function freeze(
  job: Job,
  planned: JobPlan,
  findings: readonly Finding[],
  { shop, digest }: PresentShop,
  { jobId, number, date }: { jobId: string; number: number; date: string },
  report: TaskContext['report'] = async () => {},
): Promise<Row[]> {
  const rows: Row[] = [];
  for (const [place, loom] of planned.looms.entries()) {
    await report(place, planned.looms.length);
    const { loomId } = loom;
    const { ends, name } = job.looms[loomId]!;
    const build = createBuild(job, loom, shop);
    const families: Record<string, ConnectorFamily> = {};
    for (const { familyId } of Object.values(ends)) {
      const family = findFamily(job, shop, familyId);
      if (family && familyId !== null) families[familyId] = family;
    }
    const pages = {} as FrozenPages;
    for (const paper of Object.keys(PAPERS) as Paper[]) {
      const meta = { paper, job: job.name, loom: name, revision: `revision ${number}`, date };
      pages[paper] = createSheets({ job, whole: planned, plan: loom, build, findings, catalogue: shop }, meta);
    }
    const work: FrozenLoom = { loomId, plan: loom, build, families, board: createFloorBoard(job, shop, loom) };
    rows.push({
      ...{ jobId, number, loomId, place, wires: loom.wires.length, engine: ENGINE, shop: digest },
      ...{ work: await pack(work), pages: await pack(pages) },
    });
  }
  return rows;
}

/** A revision of a Wattograph that stored the document only is planned once more, for the last time. */
export async function freezeLate(jobId: string, number: number): Promise<void> {
  const [row] = await database()
    .select()
    .from(releases)
    .where(and(eq(releases.jobId, jobId), eq(releases.number, number)));
  if (!row) throw Refusal.at(404, '', `There is no revision ${number} of this job.`);
  const job = toPresent(row.document);
  const present = await readShopOf(job);
  const planned = plan(job, present.shop);
  const date = row.at.toISOString().slice(0, 10);
  const rows = await freeze(job, planned, listFindings(job, planned, present.shop, date), present, { jobId, number, date });
  await storeFrozen(database(), rows);
  await storePower(database(), await freezePower(job, planned, present.shop, { jobId, number }));
}

export async function storeFrozen(db: Pick<Database, 'insert'>, rows: Row[]): Promise<void> {
  if (rows.length > 0) await db.insert(releaseLooms).values(rows).onConflictDoNothing();
}

/** Looms of a revision in their order. */
export async function listFrozen(jobId: string, number: number): Promise<{ loomId: string; wires: number }[]> {
  const read = () =>
    database()
      .select({ loomId: releaseLooms.loomId, wires: releaseLooms.wires })
      .from(releaseLooms)
      .where(and(eq(releaseLooms.jobId, jobId), eq(releaseLooms.number, number)))
      .orderBy(asc(releaseLooms.place));
  const looms = await read();
  if (looms.length > 0) return looms;
  // planning is a worker's work
  if (isWorker()) await freezeLate(jobId, number);
  else await askTask('freeze', [jobId, number], { jobId, number });
  return read();
}

/** What a column keeps of a loom of a revision; of the first loom where none is named. */
async function readColumn<T>(jobId: string, number: number, loomId: string | null, column: 'work' | 'pages'): Promise<T> {
  const looms = await listFrozen(jobId, number);
  const found = loomId === null ? looms[0] : looms.find((one) => one.loomId === loomId);
  if (!found) throw Refusal.at(404, 'loom', `expected one of ${looms.map((one) => one.loomId).join(', ')}, got ${JSON.stringify(loomId)}`);
  const [row] = await database()
    .select({ bytes: releaseLooms[column] })
    .from(releaseLooms)
    .where(and(eq(releaseLooms.jobId, jobId), eq(releaseLooms.number, number), eq(releaseLooms.loomId, found.loomId)));
  return unpack<T>(row!.bytes);
}

const withBands = (colour: Colour): Colour => ({ ...colour, bands: colour.bands ?? [] });
// whatever held a wire held it from being cut
const withHolds = (holds: PlannedWire['heldBy']): PlannedWire['heldBy'] =>
  holds.map((one) => ({ ...one, stops: one.stops ?? 'cut', endId: one.endId ?? null }));
// there were three kinds of wire, and nobody asked what they are called
const withLook = (wire: PlannedWire): PlannedWire => ({
  ...{ ...wire, conductor: addWireKind(wire.conductor) },
  ...{ colour: withBands(wire.colour), heldBy: withHolds(wire.heldBy) },
});

const UNPRICED = { packs: null, cost: null };

/** A loom of a revision as it was planned and built then; the first one where none is named. */
export async function readFrozen(jobId: string, number: number, loomId: string | null): Promise<FrozenLoom> {
  const found = await readColumn<FrozenLoom>(jobId, number, loomId, 'work');
  // a family that an older Wattograph froze says nothing of names and sizes: it had none
  const families = Object.fromEntries(
    Object.entries(found.families).map(([id, family]) => [id, addAdapter(addCavityFields(family)) as unknown as ConnectorFamily]),
  );
  // nor did it say of packs and prices
  const parts = found.build.parts.map((line) => ({ ...UNPRICED, ...line }));
  // nor of what is read with an instrument
  const steps = found.build.steps.map((step) => ({ ...step, items: step.items.map((item) => ({ ...item, reads: item.reads ?? [] })) }));
  // nor of bands
  const cuts = found.build.cuts.map((cut) => ({
    ...{ ...cut, colour: withBands(cut.colour) },
    ...{ wires: cut.wires.map(withLook), held: cut.held.map(withLook) },
  }));
  // nor of bundles twisted in layers, nor of what finishes ends, nor of what a covering does not do
  const laid = {
    ...found.plan,
    wires: found.plan.wires.map(withLook),
    layups: (found.plan.layups ?? []).map((layup) => ({
      ...layup,
      fillers: layup.fillers.map((filler) => ({ ...filler, conductor: addWireKind(filler.conductor) })),
    })),
    endDress: found.plan.endDress ?? [],
    breakoutDress: found.plan.breakoutDress ?? [],
    feeds: found.plan.feeds ?? [],
    screens: found.plan.screens ?? [],
    studs: found.plan.studs ?? [],
    coverings: found.plan.coverings.map((covering) => ({ ...covering, unmet: covering.unmet ?? [], runnerUp: covering.runnerUp ?? null })),
  };
  return {
    ...found,
    plan: laid,
    build: {
      ...found.build,
      cuts,
      fillers: (found.build.fillers ?? []).map((filler) => ({ ...filler, conductor: addWireKind(filler.conductor) })),
      parts,
      steps,
    },
    families,
    board: found.board ? toPresentBoard(found.board) : null,
  };
}

/** Its sheets as they were drawn then. */
export async function readFrozenPages(jobId: string, number: number, loomId: string | null, paper: Paper): Promise<SheetPage[]> {
  const kept: Partial<FrozenPages> = await readColumn<FrozenPages>(jobId, number, loomId, 'pages');
  const pages = kept[paper];
  if (!pages)
    throw Refusal.at(
      409,
      'paper',
      `revision ${number} was drawn for ${Object.keys(kept).join(' and ')}: print it on one of them, got ${paper}`,
    );
  return pages;
}

/** Builds of one loom in every revision up to one, the oldest first; a revision that did not have the loom is passed over. */
export async function listFrozenBuilds(jobId: string, number: number, loomId: string): Promise<{ number: number; build: LoomBuild }[]> {
  const numbers = await database()
    .select({ number: releases.number })
    .from(releases)
    .where(and(eq(releases.jobId, jobId), lte(releases.number, number)))
    .orderBy(asc(releases.number));
  const found: { number: number; build: LoomBuild }[] = [];
  for (const one of numbers) {
    const looms = await listFrozen(jobId, one.number);
    if (!looms.some((loom) => loom.loomId === loomId)) continue;
    found.push({ number: one.number, build: (await readFrozen(jobId, one.number, loomId)).build });
  }
  return found;
}
