import { compareShops, listRecords, type ShopTable } from './compareShops';
import { addWireKinds } from './editShop';
import type { Shop } from './shop';
import { withRecords } from './withRecords';

/**
 * One shop with what another has beside it, record by record: what only the other has is added, what both have and differs is the other's
 * where asked for. Nothing goes; the name stays. A kind of wire that is added comes with what a house style of theirs says of it.
 */
export function mergeShops(mine: Shop, theirs: Shop, takesTheirs: (table: ShopTable, id: string) => boolean): Shop {
  const merged = compareShops(mine, theirs).reduce((shop, { table, added, changed }) => {
    const others = new Map(listRecords(theirs, table).map((one) => [one.id, one]));
    const taken = new Set(changed.map(({ id }) => id).filter((id) => takesTheirs(table, id)));
    return withRecords(shop, table, [
      ...listRecords(shop, table).map((one) => (taken.has(one.id) ? others.get(one.id)! : one)),
      ...added.map(({ id }) => others.get(id)!),
    ]);
  }, mine);
  return addWireKinds(merged, theirs);
}
