import { drizzle, type NodePgDatabase } from 'drizzle-orm/node-postgres';
import { Pool } from 'pg';
import { log } from './log';
import * as schema from './schema';

export type Database = NodePgDatabase<typeof schema>;

const holder = globalThis as typeof globalThis & { wattographPool?: Pool };

/** The pool of this process. A server that goes away is not an end: the next query opens a new connection. */
export function findPool(): Pool {
  if (!holder.wattographPool) {
    const connectionString = process.env.DATABASE_URL;
    if (!connectionString) throw new Error('DATABASE_URL: expected the address of a PostgreSQL, got nothing');
    holder.wattographPool = new Pool({ connectionString, max: 10, connectionTimeoutMillis: 5000, statement_timeout: 20000 });
    holder.wattographPool.on('error', (error) => log.warn({ error: error.message }, 'idle database connection lost'));
  }
  return holder.wattographPool;
}

export function database(): Database {
  return drizzle(findPool(), { schema });
}
