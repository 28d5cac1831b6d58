import type { ShopRecord, ShopTable } from './compareShops';
import type { Shop } from './shop';

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
      const sizes = records.map(({ value }) => value as Shop['wires'][keyof Shop['wires']][number]);
      const ofTable = (kind: string) => sizes.filter((one) => one.table === kind).sort((a, b) => a.areaMm2 - b.areaMm2);
      return { ...shop, wires: Object.fromEntries(Object.keys(shop.wires).map((kind) => [kind, ofTable(kind)])) as Shop['wires'] };
    }
    default:
      return { ...shop, [table]: records.map(({ value }) => value) };
  }
}
