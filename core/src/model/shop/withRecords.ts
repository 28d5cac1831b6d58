import type { ShopRecord, ShopTable } from './compareShops';
import type { Shop } from './shop';
import type { Conductor } from './wire';

/** The shop with these records in a table and no others. Wires stay in the order of their areas. */
export function withRecords(shop: Shop, table: ShopTable, records: readonly Pick<ShopRecord, 'id' | 'value'>[]): Shop {
  switch (table) {
    case 'standards':
    case 'families':
    case 'devices':
    case 'grommets':
    case 'plugs':
    case 'buying':
      return { ...shop, [table]: Object.fromEntries(records.map(({ id, value }) => [id, value])) };
    case 'wires': {
      const sizes = records.map(({ value }) => value as Conductor);
      const kinds = [...new Set([...Object.keys(shop.wires), ...sizes.map((one) => one.table)])];
      const ofKind = (kind: string) => sizes.filter((one) => one.table === kind).sort((a, b) => a.areaMm2 - b.areaMm2);
      return { ...shop, wires: Object.fromEntries(kinds.map((kind) => [kind, ofKind(kind)])) };
    }
    default:
      return { ...shop, [table]: records.map(({ value }) => value) };
  }
}
