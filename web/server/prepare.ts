import { and, desc, eq, sql } from 'drizzle-orm';
import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client } from 'pg';
import { checkJob, createDemoShop, createLookup, type Job, type Shop } from 'wattograph-core';
import { createFenRanger, createSkerry } from 'wattograph-core/demo';
import { prepareFirst } from './accounts/firstPeople';
import { grantRole } from './grantRole';
import { toPresent } from './present';
import { prepareQueue } from './work/queue';
import * as schema from './schema';

const DEMO = [
  { id: '5ee12000-0000-4000-8000-000000000012', create: createSkerry },
  { id: 'fe400000-0000-4000-8000-000000000002', create: createFenRanger },
];
const FIRST_SHOP = '50000000-0000-4000-8000-000000000001';
const FIRST_SHOP_VERSION = 1;
const LOCK = 4640;

const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Bring the tables up to date, one process at a time; with --seed put the demo jobs in where they are not there yet. */
async function prepare(): Promise<void> {
  const client = new Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  const db = drizzle(client, { schema });
  await db.execute(sql`select pg_advisory_lock(${LOCK})`);
  await migrate(db, { migrationsFolder: process.env.WATTOGRAPH_MIGRATIONS ?? 'web/server/migrations' });
  // a new installation begins with the demo shop's parts and standards
  await db
    .insert(schema.shopVersions)
    .values({ version: FIRST_SHOP_VERSION, id: FIRST_SHOP, author: 'Wattograph', note: 'as it ships', document: createFirstShop() })
    .onConflictDoNothing();
  await pinJobs(db);
  const said = await prepareFirst(db, process.argv.includes('--seed'));
  if (said && !process.argv.includes('--quiet')) console.log(`\n  ${said}`);
  await prepareQueue(process.env.DATABASE_URL!);
  if (process.env.WATTOGRAPH_APP_URL) await grantRole(db, process.env.WATTOGRAPH_APP_URL);
  if (process.argv.includes('--seed')) {
    for (const { id, create } of DEMO) {
      const made: Job = { ...create(), shopVersion: FIRST_SHOP_VERSION };
      // days of the demo count from the day it is seeded
      made.brief.promisedOn = inDays(42);
      for (const item of Object.values(made.openItems)) if (item.kind === 'concession') item.due = inDays(96);
      for (const task of Object.values(made.tasks)) task.due = inDays(28);
      const job = checkJob(made, createLookup(createDemoShop()));
      if (!job.ok) throw new Error(`demo job: ${job.problems[0]!.path} ${job.problems[0]!.message}`);
      await db.insert(schema.jobs).values({ id, version: 0, document: job.value }).onConflictDoNothing();
    }
  }
  await client.end();
}

/** The demo shop; its tools were calibrated in the weeks before the day it is set up. */
function createFirstShop(): Shop {
  const shop = createDemoShop();
  const tools = shop.tools.map((tool, at) => ({ ...tool, calibratedOn: tool.calibratedOn === null ? null : inDays(-20 - 9 * at) }));
  return { ...shop, tools };
}

/** Jobs stored before they named their version of the shop were planned with its newest one: that is named now. */
async function pinJobs(db: NodePgDatabase<typeof schema>): Promise<void> {
  const [newest] = await db
    .select({ version: schema.shopVersions.version })
    .from(schema.shopVersions)
    .where(eq(schema.shopVersions.aside, false))
    .orderBy(desc(schema.shopVersions.version))
    .limit(1);
  const open = await db
    .select({ id: schema.jobs.id, version: schema.jobs.version, document: schema.jobs.document })
    .from(schema.jobs)
    .where(sql`coalesce(${schema.jobs.document} ->> 'shopVersion', '') = ''`);
  for (const { id, version, document } of open)
    await db
      .update(schema.jobs)
      .set({ document: { ...toPresent(document), shopVersion: newest!.version } })
      // edited by a server that runs meanwhile: it is pinned at the next start
      .where(and(eq(schema.jobs.id, id), eq(schema.jobs.version, version)));
}

prepare().catch((error: unknown) => {
  console.error(`database: ${error instanceof Error ? error.message : String(error)}`);
  process.exitCode = 1;
});
