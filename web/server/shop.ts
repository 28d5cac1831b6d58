import { createHash } from 'node:crypto';
import { desc, eq } from 'drizzle-orm';
import { createLookup, type CatalogueLookup, type Shop } from 'wattograph-core';
import { database } from './database';
import { shopVersions } from './schema';

/** The shop as it stands, with what is made of it once. */
export interface PresentShop {
  version: number;
  shop: Shop;
  lookup: CatalogueLookup;
  /** SHA-256 of it: what a release names */
  digest: string;
}

let held: PresentShop | null = null;

/** The shop that every job is planned with: its newest version. The document is read once for each version. */
export async function readShop(): Promise<PresentShop> {
  const [newest] = await database()
    .select({ version: shopVersions.version })
    .from(shopVersions)
    .orderBy(desc(shopVersions.version))
    .limit(1);
  if (!newest) throw new Error('shop: expected a first version beside the tables, got none');
  if (held?.version === newest.version) return held;
  const [row] = await database().select().from(shopVersions).where(eq(shopVersions.version, newest.version));
  const shop = row!.document;
  const digest = createHash('sha256').update(JSON.stringify(shop)).digest('hex');
  held = { version: newest.version, shop, lookup: createLookup(shop), digest };
  return held;
}
