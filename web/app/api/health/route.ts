import { sql } from 'drizzle-orm';
import { database } from '../../../server/database';

export const dynamic = 'force-dynamic';

/** Is the application up, and does its database answer? */
export async function GET(): Promise<Response> {
  try {
    await database().execute(sql`select 1`);
    return Response.json({ ok: true });
  } catch {
    return Response.json({ ok: false, problem: 'the database does not answer' }, { status: 503 });
  }
}
