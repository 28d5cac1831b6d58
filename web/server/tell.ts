import { sql } from 'drizzle-orm';
import type { Database } from './database';
import { CHANNEL, type Heard } from './listener';

/** Tell every process, and through it every open page, what is new: with the commit where db is a transaction. */
export async function tell(db: Pick<Database, 'execute'>, heard: Heard): Promise<void> {
  await db.execute(sql`select pg_notify(${CHANNEL}, ${JSON.stringify(heard)})`);
}
