import { fileURLToPath } from 'node:url';
import { sql } from 'drizzle-orm';
import { drizzle } from 'drizzle-orm/node-postgres';
import { migrate } from 'drizzle-orm/node-postgres/migrator';
import { Client } from 'pg';
import { checkJob, createDemoShop, createLookup } from 'wattograph-core';
import { createFenRanger, createSkerry } from 'wattograph-core/demo';
import * as schema from './schema';

const DEMO = [
  { id: '5ee12000-0000-4000-8000-000000000012', create: createSkerry },
  { id: 'fe400000-0000-4000-8000-000000000002', create: createFenRanger },
];
const FIRST_SHOP = '50000000-0000-4000-8000-000000000001';
const LOCK = 4640;

const inDays = (days: number): string => new Date(Date.now() + days * 86_400_000).toISOString().slice(0, 10);

/** Bring the tables up to date, one process at a time; with --seed put the demo jobs in where they are not there yet. */
async function prepare(): Promise<void> {
  const client = new Client({ connectionString: process.env.DATABASE_URL });
  await client.connect();
  const db = drizzle(client, { schema });
  await db.execute(sql`select pg_advisory_lock(${LOCK})`);
  await migrate(db, { migrationsFolder: fileURLToPath(new URL('./migrations', import.meta.url)) });
  // a new installation begins with the demo shop's parts and standards
  await db
    .insert(schema.shopVersions)
    .values({ version: 1, id: FIRST_SHOP, author: 'Wattograph', note: 'as it ships', document: createDemoShop() })
    .onConflictDoNothing();
  if (process.argv.includes('--seed')) {
    for (const { id, create } of DEMO) {
      const made = create();
      // days of the demo count from the day it is seeded
      made.brief.promisedOn = inDays(42);
      for (const item of Object.values(made.openItems)) if (item.kind === 'concession') item.due = inDays(96);
      const job = checkJob(made, createLookup(createDemoShop()));
      if (!job.ok) throw new Error(`demo job: ${job.problems[0]!.path} ${job.problems[0]!.message}`);
      await db.insert(schema.jobs).values({ id, version: 0, document: job.value }).onConflictDoNothing();
    }
  }
  await client.end();
}

prepare().catch((error: unknown) => {
  console.error(`database: ${error instanceof Error ? error.message : String(error)}`);
  process.exitCode = 1;
});
