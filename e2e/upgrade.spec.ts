import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { FORMAT_VERSION, SHOP_FORMAT_VERSION } from 'wattograph-core';
import { Client } from 'pg';

const root = join(__dirname, '..');
const MIGRATIONS = readdirSync(join(root, 'web/server/migrations'))
  .filter((file) => file.endsWith('.sql'))
  .sort();
const FORMATS = readdirSync(join(root, 'core/src/testing/formats'));
/** those whose tables differ most, in the tests; all of them in the soak */
const TRIED = process.env.WATTOGRAPH_SOAK === '1' ? MIGRATIONS.map((_, index) => index) : [0, 10];

const readFormat = (file: string) =>
  JSON.parse(readFileSync(join(root, 'core/src/testing/formats', file), 'utf8')) as Record<string, unknown>;

/** The shops of then with the housing that the jobs of then have. */
function withFamily(shop: Record<string, unknown>): Record<string, unknown> {
  const families = shop.families as Record<string, object>;
  return { ...shop, families: { ...families, 'pellow-2': { ...families['tarn-3'], name: 'Pellow 2' } } };
}

const withClient = async <T>(url: string, work: (client: Client) => Promise<T>): Promise<T> => {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
};

const run = (url: string, file: string, ...args: string[]) =>
  execFileSync('node', ['--import', 'tsx', file, ...args], {
    cwd: root,
    encoding: 'utf8',
    env: { ...process.env, DATABASE_URL: url, LOG_LEVEL: 'silent' },
  });

/** A database as a Wattograph of that many migrations left it, with a job in every format and what belongs to one. */
async function leave(url: string, last: number): Promise<void> {
  await withClient(url, async (client) => {
    await client.query('create schema drizzle');
    await client.query('create table drizzle.__drizzle_migrations (id serial primary key, hash text not null, created_at bigint)');
    const journal = JSON.parse(readFileSync(join(root, 'web/server/migrations/meta/_journal.json'), 'utf8')) as {
      entries: { when: number }[];
    };
    for (const [index, file] of MIGRATIONS.slice(0, last + 1).entries()) {
      const text = readFileSync(join(root, 'web/server/migrations', file), 'utf8');
      for (const statement of text.split('--> statement-breakpoint')) await client.query(statement);
      await client.query('insert into drizzle.__drizzle_migrations (hash, created_at) values ($1, $2)', [
        file,
        journal.entries[index]!.when,
      ]);
    }
    if (last >= 3)
      for (const [index, file] of FORMATS.filter((name) => name.startsWith('shop')).entries())
        await client.query('insert into shop_versions (version, id, author, note, document) values ($1, $2, $3, $4, $5)', [
          ...[index + 1, randomUUID(), 'Imke Dorsey', ''],
          JSON.stringify(withFamily(readFormat(file))),
        ]);
    for (const file of FORMATS.filter((name) => name.startsWith('job'))) {
      const id = randomUUID();
      const document = { ...readFormat(file), name: file };
      await client.query('insert into jobs (id, version, document) values ($1, 1, $2)', [id, JSON.stringify(document)]);
      const change = (lengthMm: number) => JSON.stringify([{ op: 'replace', path: '/looms/rear/segments/s1/lengthMm', value: lengthMm }]);
      await client.query(
        `insert into edits (job_id, version, id, author, label, kind, patch, inverse) values ($1, 1, $2, 'Jun Okafor', 'longer', 'edit', $3, $4)`,
        [id, randomUUID(), change(640), change(610)],
      );
      await client.query(
        `insert into releases (job_id, number, id, version, document, author, note) values ($1, 1, $2, 1, $3, 'Imke Dorsey', 'the first')`,
        [id, randomUUID(), JSON.stringify(document)],
      );
      await client.query(
        `insert into floor_events (id, job_id, release, loom_id, step_id, item_id, kind, words, author, happened_at)
         values ($1, $2, 1, 'rear', 'cut', 'R-1', 'tick', 'cut', 'Tobin Ashgrove', now())`,
        [randomUUID(), id],
      );
      if (last >= 1)
        await client.query(
          `insert into photos (id, job_id, loom_id, node_id, caption, author, width_px, height_px, bytes, taken_at)
           values ($1, $2, 'rear', 'lamp', 'bracket', 'Jun Okafor', 1, 1, '\\xffd8ff', now())`,
          [randomUUID(), id],
        );
    }
  });
}

for (const last of TRIED)
  test(`what a Wattograph with ${MIGRATIONS[last]} left is brought up to date: jobs of every format open, take edits, and give back the older ones`, async () => {
    const own = process.env.E2E_DATABASE!;
    const name = `upgrade_${last}`;
    await withClient(own, (client) => client.query(`create database ${name}`));
    const url = Object.assign(new URL(own), { pathname: `/${name}` }).href;
    try {
      await leave(url, last);
      run(url, 'web/server/prepare.ts', '--quiet');
      // and once more, as every start does
      run(url, 'web/server/prepare.ts', '--quiet');
      const said = JSON.parse(run(url, 'e2e/upgradeProbe.ts').split('\n').at(-1)!) as {
        jobs: Record<string, object>;
        counted: [number, string | null][];
        shop: number;
      };
      const files = FORMATS.filter((file) => file.startsWith('job'));
      expect(Object.keys(said.jobs).sort()).toEqual(files);
      for (const file of files)
        expect([file, said.jobs[file]]).toEqual([
          file,
          {
            formatVersion: FORMAT_VERSION,
            places: [
              ['', 640],
              ['made now', 640],
              ['', 640],
              ['', 610],
            ],
            release: ['the first', FORMAT_VERSION],
            events: [['cut', 'Tobin Ashgrove']],
            photos: last >= 1 ? ['bracket'] : [],
          },
        ]);
      expect(said.counted).toEqual(files.map(() => [1, null]));
      expect(said.shop).toBe(SHOP_FORMAT_VERSION);
    } finally {
      await withClient(own, (client) => client.query(`drop database ${name} with (force)`));
    }
  });
