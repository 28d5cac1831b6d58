// Backups of a database: written from one moment, and read back before they count.
import { spawnSync } from 'node:child_process';
import { createRequire } from 'node:module';
import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { join } from 'node:path';
import { findPostgres, root } from './machine.mjs';

const { Client } = createRequire(join(root, 'web/package.json'))('pg');

/** a task that somebody waits for is asked for again; the queue is made anew at the start */
const SCHEMAS = ['public', 'drizzle', 'pgboss'];
const KEPT = 14;
const NAME = /^wattograph-\d{8}-\d{6}\.dump$/;

function call(program, databaseUrl, args, input) {
  const result = spawnSync(join(findPostgres(), program), [...args, '--dbname', databaseUrl], {
    encoding: 'utf8',
    input,
    maxBuffer: 2 ** 31,
  });
  if (result.status !== 0)
    throw new Error(`${program}: ${(result.stderr || String(result.error ?? '')).trim().split('\n').slice(0, 3).join('; ')}`);
  return result.stdout;
}

async function withClient(url, work) {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return await work(client);
  } finally {
    await client.end();
  }
}

/** Rows of every table and a hash over all that stands in them. */
async function measureTables(client) {
  const { rows: tables } = await client.query(`select schemaname, tablename from pg_tables where schemaname = any($1) order by 1, 2`, [
    SCHEMAS.filter((name) => name !== 'pgboss'),
  ]);
  const measured = {};
  for (const { schemaname, tablename } of tables) {
    const name = `"${schemaname}"."${tablename}"`;
    const { rows } = await client.query(
      `select count(*)::int as rows, coalesce(md5(string_agg(md5(t::text), '' order by md5(t::text))), '') as hash from ${name} t`,
    );
    measured[name] = rows[0];
  }
  return measured;
}

const toDatabase = (url, name) => Object.assign(new URL(url), { pathname: `/${name}` }).href;

/** Restore a file into a database of its own for a moment, and say what is in it. */
async function readBack(databaseUrl, file) {
  const name = `wattograph_check_${process.pid}`;
  await withClient(databaseUrl, (client) => client.query(`create database ${name} template template0`));
  try {
    const url = toDatabase(databaseUrl, name);
    await withClient(url, (client) => client.query('drop schema public'));
    call('pg_restore', url, ['--no-owner', '--exit-on-error', file]);
    return await withClient(url, measureTables);
  } finally {
    await withClient(databaseUrl, (client) => client.query(`drop database if exists ${name} with (force)`));
  }
}

/**
 * Write all that is stored into a file of a folder, as it is at one moment, while people go on working. The file counts, and gets its name, once
 * it was read back and holds the same.
 * @returns the file, and how many rows of each table it holds
 */
export async function backUp(databaseUrl, folder) {
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const stamp = new Date().toISOString().replace(/[-:]/g, '').replace('T', '-').slice(0, 15);
  const file = join(folder, `wattograph-${stamp}.dump`);
  const part = `${file}.part`;
  try {
    const before = await withClient(databaseUrl, async (client) => {
      await client.query('begin isolation level repeatable read read only');
      const { rows } = await client.query('select pg_export_snapshot() as snapshot');
      const schemas = SCHEMAS.flatMap((name) => ['--schema', name]);
      call('pg_dump', databaseUrl, [
        '--format=custom',
        '--snapshot',
        rows[0].snapshot,
        ...schemas,
        '--no-owner',
        '--no-privileges',
        '--file',
        part,
      ]);
      return measureTables(client);
    });
    const after = await readBack(databaseUrl, part);
    const differing = Object.keys({ ...before, ...after }).filter((table) => before[table]?.hash !== after[table]?.hash);
    if (differing.length > 0) throw new Error(`the backup does not read back as it was written: ${differing.join(', ')}`);
    renameSync(part, file);
    return { file, bytes: statSync(file).size, rows: Object.fromEntries(Object.entries(before).map(([table, { rows }]) => [table, rows])) };
  } finally {
    rmSync(part, { force: true });
  }
}

/** Put a database back to what a backup holds: all of it or, where anything fails, nothing. */
export function restore(databaseUrl, file) {
  if (!existsSync(file)) throw new Error(`expected a backup file, got ${file}: there is none`);
  const sql = spawnSync(join(findPostgres(), 'pg_restore'), ['--no-owner', '--file', '-', file], { encoding: 'utf8', maxBuffer: 2 ** 31 });
  if (sql.status !== 0)
    throw new Error(`${file}: expected a backup of Wattograph, got something else (${sql.stderr.trim().split('\n')[0]})`);
  if (!/CREATE TABLE public\.jobs /.test(sql.stdout)) throw new Error(`${file}: expected a backup of Wattograph, got one without jobs`);
  const gone = `${SCHEMAS.map((name) => `drop schema if exists ${name} cascade;`).join('\n')}\ncreate schema if not exists public;\n`;
  // the file makes the schemas that it holds; public may be in it or not
  const body = sql.stdout.replace(/^CREATE SCHEMA public;$/m, '');
  call('psql', databaseUrl, ['--quiet', '--no-psqlrc', '--single-transaction', '--set', 'ON_ERROR_STOP=1'], gone + body);
}

/** Who is connected to a database beside this? */
export async function countOthers(databaseUrl) {
  return withClient(databaseUrl, async (client) => {
    const { rows } = await client.query(
      `select count(*)::int as others from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() and backend_type = 'client backend'`,
    );
    return rows[0].others;
  });
}

export const backupFolder = (data) => process.env.WATTOGRAPH_BACKUPS ?? join(data, 'backups');

/** Keep the newest of the backups in a folder. */
export function prune(folder, kept = KEPT) {
  const names = readdirSync(folder)
    .filter((name) => NAME.test(name))
    .sort();
  for (const name of names.slice(0, -kept)) rmSync(join(folder, name));
}

const DAY_MS = 86_400_000;

/** With WATTOGRAPH_BACKUP_AT (as 03:15) a backup is made every night at that time, local; the newest fourteen are kept. */
export function backUpNightly(databaseUrl, data) {
  const at = process.env.WATTOGRAPH_BACKUP_AT;
  if (!at) return;
  const [, hours, minutes] = /^([01]\d|2[0-3]):([0-5]\d)$/.exec(at) ?? [];
  if (hours === undefined) throw new Error(`WATTOGRAPH_BACKUP_AT: expected a time as 03:15, got ${JSON.stringify(at)}`);
  const next = new Date();
  next.setHours(Number(hours), Number(minutes), 0, 0);
  const waitMs = (next.getTime() - Date.now() + DAY_MS) % DAY_MS || DAY_MS;
  setTimeout(() => {
    const folder = backupFolder(data);
    backUp(databaseUrl, folder)
      .then(({ file }) => {
        prune(folder);
        console.log(`backup: ${file}`);
      })
      .catch((error) => console.error(`backup failed: ${error.message}`))
      .finally(() => backUpNightly(databaseUrl, data));
  }, waitMs).unref();
}
