import type { TSchema } from '@sinclair/typebox';
import { listRecords, RECORD_SCHEMAS, withRecords, type Checked, type Problem, type Shop, type ShopRecord, type ShopTable } from '../model';
import { describeCell, fromEscaped, readCell, toCell } from './cells';
import type { CsvTable } from './readCsv';
import { writeCsv } from './toCsv';

/** Column of the key of a table whose records do not carry it; wires are found by their table and size, people by their name. */
const KEYS: Partial<Record<ShopTable, string>> = {
  families: 'id',
  devices: 'id',
  standards: 'id',
  grommets: 'cavitySize',
  plugs: 'cavitySize',
  buying: 'part',
};
const MOST_PROBLEMS = 20;

interface Column {
  key: string;
  /** shapes of the field: one for each kind of record that has it */
  schemas: TSchema[];
  /** is there a kind of record without it? */
  isPartial: boolean;
}

/** Every field of the records of a table, in the order of their schema. */
function listColumns(table: ShopTable): Column[] {
  const schema = RECORD_SCHEMAS[table] as TSchema;
  if (table === 'people') return [{ key: 'name', schemas: [schema], isPartial: false }];
  const shapes = ((schema.oneOf as TSchema[] | undefined) ?? (schema.anyOf as TSchema[] | undefined) ?? [schema]).map(
    (shape) => shape.properties as Record<string, TSchema>,
  );
  return [...new Set(shapes.flatMap((shape) => Object.keys(shape)))].map((key) => ({
    key,
    schemas: shapes.flatMap((shape) => (shape[key] ? [shape[key]] : [])),
    isPartial: shapes.some((shape) => !shape[key]),
  }));
}

/** A table of a shop: a row a record, a column a field; what is a list or a table of its own is JSON in its cell. */
export function toShopTable(shop: Shop, table: ShopTable): { columns: string[]; rows: (string | number)[][] } {
  const columns = listColumns(table);
  const keyColumn = KEYS[table];
  const isBeside = keyColumn !== undefined && !columns.some(({ key }) => key === keyColumn);
  return {
    columns: [...(isBeside ? [keyColumn] : []), ...columns.map(({ key }) => key)],
    rows: listRecords(shop, table).map(({ id, value }) => [
      ...(isBeside ? [id] : []),
      ...columns.map(({ key }) => toCell(table === 'people' ? value : (value as Record<string, unknown>)[key])),
    ]),
  };
}

/** That table as CSV (RFC 4180). */
export function toShopTableCsv(shop: Shop, table: ShopTable): string {
  const { columns, rows } = toShopTable(shop, table);
  return writeCsv(columns, rows);
}

/**
 * The shop with the rows of a table put into it: known records changed, others added, none taken out. A column that is left out keeps what a
 * known record has; a new record needs every column. Every problem names its line and column.
 */
export function fromShopTable(shop: Shop, table: ShopTable, { columns: names, rows }: CsvTable): Checked<Shop> {
  const columns = listColumns(table);
  const keyColumn = KEYS[table];
  const known = new Set([...columns.map(({ key }) => key), ...(keyColumn === undefined ? [] : [keyColumn])]);
  const strange = names.find((name) => !known.has(name));
  if (strange !== undefined)
    return { ok: false, problems: [{ path: `column ${strange}`, message: `expected one of ${[...known].join(', ')}, got "${strange}"` }] };
  const records = new Map<string, Pick<ShopRecord, 'id' | 'value'>>(listRecords(shop, table).map((one) => [one.id, one]));
  const lines = new Map<string, number>();
  const problems: Problem[] = [];
  for (const { line, cells } of rows) {
    const cell = (name: string) => (names.includes(name) ? fromEscaped(cells[names.indexOf(name)] ?? '') : undefined);
    const id = toId(table, keyColumn, cell);
    if (id === null || id === '') {
      problems.push({ path: `line ${line}`, message: `expected ${describeKey(table, keyColumn)}, got nothing` });
      continue;
    }
    const twin = lines.get(id);
    if (twin !== undefined) problems.push({ path: `line ${line}`, message: `expected "${id}" once, got it in line ${twin} too` });
    lines.set(id, line);
    const kind = table === 'wires' ? cell('table')! : null;
    if (kind !== null && !Object.hasOwn(shop.wires, kind))
      problems.push({
        path: `line ${line}, table`,
        message: `expected a kind of wire of the shop (${Object.keys(shop.wires).join(', ')}), got ${JSON.stringify(kind)}: begin a kind as a copy of one there is`,
      });
    records.set(id, { id, value: table === 'people' ? id : readRecord(columns, cell, records.get(id)?.value, line, problems) });
    if (problems.length >= MOST_PROBLEMS) break;
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: withRecords(shop, table, [...records.values()]) };
}

const describeKey = (table: ShopTable, keyColumn: string | undefined) =>
  table === 'wires' ? 'a table and a size' : table === 'people' ? 'a name' : `a column ${keyColumn ?? 'id'} with the record's id`;

function toId(table: ShopTable, keyColumn: string | undefined, cell: (name: string) => string | undefined): string | null {
  if (table === 'people') return cell('name') ?? null;
  if (table === 'wires') return cell('table') && cell('size') ? `${cell('table')} ${cell('size')}` : null;
  return cell(keyColumn ?? 'id') ?? null;
}

function readRecord(
  columns: readonly Column[],
  cell: (name: string) => string | undefined,
  before: unknown,
  line: number,
  problems: Problem[],
): Record<string, unknown> {
  const was = before as Record<string, unknown> | undefined;
  return Object.fromEntries(
    columns.flatMap(({ key, schemas, isPartial }): [string, unknown][] => {
      const text = cell(key);
      if (text === undefined) {
        if (was) return Object.hasOwn(was, key) ? [[key, was[key]]] : [];
        if (!isPartial) problems.push({ path: `line ${line}`, message: `expected a column ${key} for a record that is new, got none` });
        return [];
      }
      if (text === '' && isPartial) return [];
      const read = readCell(text, schemas);
      if (read !== undefined) return [[key, read.value]];
      problems.push({
        path: `line ${line}, ${key}`,
        message: `expected ${describeCell(schemas[0]!)}, got ${JSON.stringify(text.slice(0, 60))}`,
      });
      return [];
    }),
  );
}
