import { sql } from 'drizzle-orm';
import { database } from '../../../server/database';
import { barData, DATA_HEADERS } from '../../../server/guard';

export const dynamic = 'force-dynamic';

/** Is the application up, and does its database answer? */
export async function GET(request: Request): Promise<Response> {
  const barred = barData(request);
  if (barred) return barred;
  const headers = { ...DATA_HEADERS, 'cache-control': 'no-store' };
  try {
    await database().execute(sql`select 1`);
    return Response.json({ ok: true }, { headers });
  } catch {
    return Response.json({ ok: false, problem: 'the database does not answer' }, { status: 503, headers });
  }
}
