import { eq } from 'drizzle-orm';
import { database } from '../database';
import { settings } from '../schema';

/** The digits of the made-up people, said where one signs in; null: this is no demo. */
export async function readDemoPins(): Promise<string | null> {
  const [row] = await database().select().from(settings).where(eq(settings.name, 'demo'));
  return row?.value ?? null;
}
