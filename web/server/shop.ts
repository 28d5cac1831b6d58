import { createHash } from 'node:crypto';
import { desc, eq, sql } from 'drizzle-orm';
import {
  BOUGHT_TABLES,
  checkJob,
  checkJobInPieces,
  checkShop,
  comparePlans,
  compareShops,
  createLookup,
  listFindings,
  listRecords,
  mergeShops,
  plan,
  toBuyingKey,
  toPresentShop,
  type CatalogueLookup,
  type Job,
  type Problem,
  type Shop,
  type ShopDifference,
} from 'wattograph-core';
import { today } from '../client/today';
import { expectSame, toContentHash } from './contentHash';
import { database, type Database } from './database';
import { inPieces } from './inPieces';
import { toPresent } from './present';
import { Refusal } from './refusal';
import { jobs, shopVersions, type ShopVersionRow } from './schema';
import type { TaskContext } from './work/taskKinds';
import { tell } from './tell';

/** The shop as it stands, with what is made of it once. */
export interface PresentShop {
  version: number;
  shop: Shop;
  lookup: CatalogueLookup;
  /** SHA-256 of it: what a release names */
  digest: string;
}

type Transaction = Parameters<Parameters<Database['transaction']>[0]>[0];

/** versions never change; a few are kept, the latest asked for last */
const held = new Map<number, PresentShop>();
const MOST_HELD = 6;
/** problems of a shop that are told at once */
const MOST_TOLD = 20;

/**
 * The shop as it stands: its newest version. Inside a transaction give it that: a second connection would be waited for while one is held.
 */
export async function readShop(db: Pick<Database, 'select'> = database()): Promise<PresentShop> {
  const [newest] = await db
    .select({ version: shopVersions.version })
    .from(shopVersions)
    .where(eq(shopVersions.aside, false))
    .orderBy(desc(shopVersions.version))
    .limit(1);
  if (!newest) throw new Error('shop: expected a first version beside the tables, got none');
  return readVersion(newest.version, db);
}

/** The shop that a job is planned with: the version that it names; the newest where it names none yet. */
export async function readShopOf(
  { shopVersion }: Pick<Job, 'shopVersion'>,
  db: Pick<Database, 'select'> = database(),
): Promise<PresentShop> {
  return shopVersion === null ? readShop(db) : readVersion(shopVersion, db);
}

/** The same for a page: who works there is who works there today. */
export async function readShopForPage(job: Pick<Job, 'shopVersion'>): Promise<{ shop: Shop; shopVersion: number }> {
  const [{ shop, version }, present] = await Promise.all([readShopOf(job), readShop()]);
  return { shop: { ...shop, people: present.shop.people }, shopVersion: version };
}

async function readVersion(version: number, db: Pick<Database, 'select'>): Promise<PresentShop> {
  const known = held.get(version);
  if (known) {
    held.delete(version);
    held.set(version, known);
    return known;
  }
  const [row] = await db.select().from(shopVersions).where(eq(shopVersions.version, version));
  if (!row) throw Refusal.at(422, '/shopVersion', `expected a version of this shop, got ${version}`);
  const shop = toPresentShop(row.document as unknown as Record<string, unknown>) as unknown as Shop;
  const digest = createHash('sha256').update(JSON.stringify(shop)).digest('hex');
  const made = { version, shop, lookup: createLookup(shop), digest };
  held.set(version, made);
  for (const oldest of held.keys()) if (held.size > MOST_HELD) held.delete(oldest);
  return made;
}

export type ShopVersionLine = Pick<ShopVersionRow, 'version' | 'author' | 'note' | 'at'>;
const LINE = { version: shopVersions.version, author: shopVersions.author, note: shopVersions.note, at: shopVersions.at };

/** Every version that the shop ever had, the newest first. */
export async function listShopVersions(): Promise<ShopVersionLine[]> {
  return database().select(LINE).from(shopVersions).where(eq(shopVersions.aside, false)).orderBy(desc(shopVersions.version));
}

export async function readShopVersion(version: number): Promise<Shop> {
  const [row] = await database().select().from(shopVersions).where(eq(shopVersions.version, version));
  if (!row) throw Refusal.at(404, 'version', `There is no version ${version} of the shop.`);
  return toPresentShop(row.document as unknown as Record<string, unknown>) as unknown as Shop;
}

/**
 * The shop to plan an imported job with, by the records it carries: the present one where it has them all just so, else a version aside
 * that has them in the place of its own.
 */
export async function takeCarried(tx: Transaction, jobId: string, value: unknown): Promise<PresentShop> {
  const at = (problems: Problem[]) => problems.map(({ path, message }) => ({ path: `/shop${path}`, message }));
  const carried = checkShop(value);
  if (!carried.ok) throw new Refusal(422, at(carried.problems));
  const present = await readShop(tx);
  const { people, tools } = present.shop;
  const buying = keepPrices(present.shop, carried.value);
  const merged = mergeShops(present.shop, { ...carried.value, people, tools, buying }, () => true);
  if (compareShops(present.shop, merged).length === 0) return present;
  const checked = checkShop(merged);
  if (!checked.ok) throw new Refusal(422, at(checked.problems));
  await tx.execute(sql`lock table shop_versions in share row exclusive mode`);
  const version = (await readLastNumber(tx)) + 1;
  const row = { version, id: jobId, author: 'import', note: carried.value.name, document: checked.value, aside: true };
  await tx.insert(shopVersions).values(row).onConflictDoNothing({ target: shopVersions.id });
  const [stored] = await tx.select({ version: shopVersions.version }).from(shopVersions).where(eq(shopVersions.id, jobId));
  return readVersion(stored!.version, tx);
}

/** What this shop pays, and of the parts that came along which are retired: that a plan hangs on. */
function keepPrices(mine: Shop, theirs: Shop): Shop['buying'] {
  const keys = new Set(BOUGHT_TABLES.flatMap((table) => listRecords(theirs, table).map(({ id }) => toBuyingKey(table, id))));
  const differing = [...keys].filter((key) => (mine.buying[key]?.retired ?? false) !== (theirs.buying[key]?.retired ?? false));
  const unknown = { price: null, packOf: null, orderAs: '' };
  return {
    ...mine.buying,
    ...Object.fromEntries(
      differing.map((key) => [key, { ...unknown, ...mine.buying[key], retired: theirs.buying[key]?.retired ?? false }]),
    ),
  };
}

/** Versions aside are numbered with the others. */
async function readLastNumber(tx: Transaction): Promise<number> {
  const [last] = await tx.select({ version: shopVersions.version }).from(shopVersions).orderBy(desc(shopVersions.version)).limit(1);
  return last?.version ?? 0;
}

/** What planning with another version of the shop would change in one job. */
export interface JobEffect {
  id: string;
  name: string;
  /** what the job uses and the shop would no longer have */
  problems: Problem[];
  /** wires cut to another length or gone or new, sleeves cut otherwise */
  cuts: number;
  sleeves: number;
  massG: number;
  /** stop findings that it would raise, in their sentences */
  stops: string[];
}

export interface ShopPreview {
  version: number;
  differences: ShopDifference[];
  jobs: JobEffect[];
}

/** What bringing every job up to this shop would change, and what differs in its tables; nothing is stored. */
export async function previewShop(value: unknown, { report }: TaskContext): Promise<ShopPreview> {
  const { version, shop } = await readShop();
  const next = toShop(value);
  const rows = await database().select({ id: jobs.id, document: jobs.document }).from(jobs).orderBy(desc(jobs.changedAt));
  const lookup = createLookup(next);
  const effects: JobEffect[] = [];
  for (const [index, { id, document }] of rows.entries()) {
    await report(index, rows.length);
    const job = toPresent(document);
    effects.push(measureEffect(id, job, (await readShopOf(job)).shop, next, lookup));
  }
  return { version, differences: compareShops(shop, next), jobs: effects };
}

/** What bringing one job up to the shop as it stands would change: records that differ, lengths, parts, findings. */
export async function previewBringUp(
  id: string,
  job: Job,
): Promise<{ version: number; from: number; differences: ShopDifference[]; effect: JobEffect }> {
  const [before, present] = await Promise.all([readShopOf(job), readShop()]);
  return {
    version: present.version,
    from: before.version,
    differences: compareShops(before.shop, present.shop),
    effect: measureEffect(id, job, before.shop, present.shop, present.lookup),
  };
}

function measureEffect(id: string, job: Job, before: Shop, after: Shop, lookup: CatalogueLookup): JobEffect {
  const none = { id, name: job.name, problems: [], cuts: 0, sleeves: 0, massG: 0, stops: [] };
  const checked = checkJob(job, lookup);
  if (!checked.ok) return { ...none, problems: checked.problems };
  const [was, is] = [plan(job, before), plan(job, after)];
  const changes = is.looms.map((loom) =>
    comparePlans(
      was.looms.find(({ loomId }) => loomId === loom.loomId)!,
      loom,
    ),
  );
  const known = new Set(listFindings(job, was, before, today()).map(({ key }) => key));
  return {
    ...none,
    cuts: changes.reduce((sum, { cuts }) => sum + cuts.length, 0),
    sleeves: changes.reduce((sum, { sleeves }) => sum + sleeves.length, 0),
    massG: changes.reduce((sum, { massG }) => sum + massG, 0),
    stops: listFindings(job, is, after, today()).flatMap(({ grade, key, sentence }) =>
      grade === 'stop' && !known.has(key) ? [sentence] : [],
    ),
  };
}

function toShop(value: unknown): Shop {
  const checked = checkShop(value);
  if (!checked.ok) throw new Refusal(422, checked.problems);
  return checked.value;
}

/** What jobs use that a shop would no longer have; at most 20. One job after another: all of them at once would hold up everyone. */
async function listOrphans(tx: Transaction, lookup: CatalogueLookup): Promise<Problem[]> {
  const orphans: Problem[] = [];
  for (const { id } of await tx.select({ id: jobs.id }).from(jobs).orderBy(jobs.id)) {
    const [row] = await tx.select({ document: jobs.document }).from(jobs).where(eq(jobs.id, id));
    const job = toPresent(row!.document);
    const checked = await inPieces(checkJobInPieces(job, lookup));
    if (!checked.ok) orphans.push(...checked.problems.map(({ path, message }) => ({ path: `${job.name} ${path}`, message })));
    if (orphans.length >= MOST_TOLD) break;
  }
  return orphans.slice(0, MOST_TOLD);
}

/**
 * Take a new version of the shop, made against the version base. Refused whole where a job uses what it would no longer have. The same id
 * again gives what it came to the first time.
 */
export async function takeShop(request: {
  id: string;
  base: number;
  author: string;
  note: string;
  document: unknown;
}): Promise<{ version: number }> {
  const { id, base, author, note } = request;
  const document = toShop(request.document);
  const lookup = createLookup(document);
  return database().transaction(async (tx) => {
    // no job may be written while its parts are looked up
    await tx.execute(sql`lock table jobs in exclusive mode`);
    const [known] = await tx.select().from(shopVersions).where(eq(shopVersions.id, id));
    if (known) {
      const { document: stored, author: by, note: said } = known;
      expectSame(
        toContentHash({ author: by, note: said, document: stored }),
        toContentHash({ author, note, document }),
        'version of the shop',
      );
      return { version: known.version };
    }
    const { version } = await readShop(tx);
    if (version !== base)
      throw Refusal.at(409, 'base', `expected a change of version ${version}, got one of version ${base}: the shop was changed meanwhile`);
    const orphans = await listOrphans(tx, lookup);
    if (orphans.length > 0) throw new Refusal(422, orphans);
    await tx.execute(sql`lock table shop_versions in share row exclusive mode`);
    const next = (await readLastNumber(tx)) + 1;
    await tx.insert(shopVersions).values({ version: next, id, author, note, document });
    await tell(tx, { topic: 'shop', version: next });
    return { version: next };
  });
}
