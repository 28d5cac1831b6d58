import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import { log } from './log';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

const holder = globalThis as typeof globalThis & { wattographPool?: Pool; wattographTicks?: Pool };

/** The pool of this process. A server that goes away is not an end: the next query opens a new connection. */
export const findPool = (): Pool => (holder.wattographPool ??= open(10));

function open(max: number): Pool {
  const connectionString = process.env.DATABASE_URL;
  if (!connectionString) throw new Error('DATABASE_URL: expected the address of a PostgreSQL, got nothing');
  const pool = new Pool({ connectionString, max, connectionTimeoutMillis: 5000, statement_timeout: 20000 });
  pool.on('error', (error) => log.warn({ error: error.message }, 'idle database connection lost'));
  // one that is lost while a request holds it would end the process: the request hears of it by its query
  pool.on('connect', (client) => client.on('error', (error) => log.warn({ error: error.message }, 'database connection lost')));
  return pool;
}

/** Connections of their own for ticks: whatever else waits for the database, the floor goes on. */
export const tickDatabase = (): Database => drizzle((holder.wattographTicks ??= open(4)), { schema });

export function database(): Database {
  return drizzle(findPool(), { schema });
}
