import { isRecord } from '../mapRecord';
import type { Shop } from './shop';
import { toFieldWords } from './toFieldWords';
import { toWireId } from './wire';

/** Tables of a shop, in the order they are shown. */
export const SHOP_TABLES = [
  ...(['standards', 'people', 'families', 'devices', 'wires', 'cables', 'contacts', 'seals', 'grommets', 'plugs'] as const),
  ...([
    'rings',
    'barrels',
    'coverings',
    'boots',
    'transitions',
    'clips',
    'resins',
    'labels',
    'tools',
    'boards',
    'printers',
    'zones',
    'modes',
    'sources',
    'buying',
  ] as const),
] as const;
export type ShopTable = (typeof SHOP_TABLES)[number];

/** A record of a table as it is found and named. */
export interface ShopRecord {
  id: string;
  name: string;
  value: unknown;
}

/** What differs between two shops in one table. */
export interface ShopDifference {
  table: ShopTable;
  added: { id: string; name: string }[];
  gone: { id: string; name: string }[];
  /** with each field that differs: "current, A: 5 → 7" */
  changed: { id: string; name: string; fields: string[] }[];
}

/** Records of a table, each under an id of its own. */
export function listRecords(shop: Shop, table: ShopTable): ShopRecord[] {
  const toName = (value: unknown, id: string) =>
    typeof value === 'object' && value !== null && 'name' in value ? String((value as { name: unknown }).name) : id;
  const ofRecord = (record: Readonly<Record<string, unknown>>) =>
    Object.entries(record).map(([id, value]) => ({ id, name: toName(value, id), value }));
  switch (table) {
    case 'people':
      return shop.people.map((name) => ({ id: name, name, value: name }));
    case 'wires':
      return Object.values(shop.wires).flatMap((sizes) =>
        sizes.map((value) => ({ id: toWireId(value), name: `${value.insulation} ${value.size}`, value })),
      );
    case 'standards':
    case 'families':
    case 'devices':
    case 'grommets':
    case 'plugs':
    case 'buying':
      return ofRecord(shop[table]);
    default:
      return shop[table].map((value) => ({ id: value.id, name: value.name, value }));
  }
}

/** Tables that differ, by id. A name changed is a change; an id changed is one record gone and one added. */
export function compareShops(before: Shop, after: Shop): ShopDifference[] {
  // what house styles say of kinds of wire is told by what those are called
  const kinds = new Map(
    [before, after].flatMap(({ wires }) =>
      Object.entries(wires).flatMap(([kind, sizes]) => sizes.slice(0, 1).map(({ insulation }) => [kind, insulation] as const)),
    ),
  );
  return SHOP_TABLES.flatMap((table) => {
    const toWords = (key: string) => (table === 'standards' ? kinds.get(key) : undefined) ?? toFieldWords(key);
    const was = new Map(listRecords(before, table).map((one) => [one.id, one]));
    const is = new Map(listRecords(after, table).map((one) => [one.id, one]));
    const toLine = ({ id, name }: ShopRecord) => ({ id, name });
    const added = [...is.values()].filter(({ id }) => !was.has(id)).map(toLine);
    const gone = [...was.values()].filter(({ id }) => !is.has(id)).map(toLine);
    const changed = [...is.values()].flatMap((one) => {
      const known = was.get(one.id);
      const fields = known ? listFields(known.value, one.value, toWords) : [];
      return fields.length > 0 ? [{ ...toLine(one), fields }] : [];
    });
    return added.length + gone.length + changed.length > 0 ? [{ table, added, gone, changed }] : [];
  });
}

function listFields(before: unknown, after: unknown, toWords: (key: string) => string, path = ''): string[] {
  if (isRecord(before) && isRecord(after))
    return [...new Set([...Object.keys(before), ...Object.keys(after)])].flatMap((key) =>
      listFields(before[key], after[key], toWords, path === '' ? toWords(key) : `${path}, ${toWords(key)}`),
    );
  const [a, b] = [JSON.stringify(before), JSON.stringify(after)];
  return a === b ? [] : [`${path}: ${toShort(a)} → ${toShort(b)}`];
}

const toShort = (text: string | undefined): string => (text === undefined ? 'nothing' : text.length > 40 ? `${text.slice(0, 39)}…` : text);
