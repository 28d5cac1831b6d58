import type { TSchema } from '@sinclair/typebox';
import { DeviceTemplateSchema } from '../vehicle/device';
import { ConnectorFamilySchema } from './family';
import { ModeItemSchema, SourceItemSchema, ZoneItemSchema } from '../job/jobStart';
import { listKinds } from '../checkShape';
import { isRecord } from '../mapRecord';
import { NameSchema } from '../ids';
import { BuyingSchema, isBoughtTable, toBuyingKey } from './buying';
import type { ShopTable } from './compareShops';
import { ContactSchema, GrommetSchema, PlugSchema, SealSchema } from './contact';
import { CoveringItemSchema } from './covering';
import { RingSchema, SpliceBarrelSchema } from './joint';
import { ClipSchema } from './clip';
import { ResinSchema } from './resin';
import { LabelStockSchema } from './label';
import { BootSchema, TransitionSchema } from './moulded';
import type { Shop } from './shop';
import { BY_WIRE, ShopStandardSchema, type ShopStandard } from './standard';
import { toFieldWords } from './toFieldWords';
import { BoardSchema, PrinterSchema, ToolSchema } from './tool';
import { CableItemSchema, ConductorSchema, toWireId, type Conductor } from './wire';

/** Shape of a record of each table. */
export const RECORD_SCHEMAS = {
  standards: ShopStandardSchema,
  people: NameSchema,
  families: ConnectorFamilySchema,
  devices: DeviceTemplateSchema,
  wires: ConductorSchema,
  cables: CableItemSchema,
  contacts: ContactSchema,
  seals: SealSchema,
  grommets: GrommetSchema,
  plugs: PlugSchema,
  rings: RingSchema,
  barrels: SpliceBarrelSchema,
  coverings: CoveringItemSchema,
  boots: BootSchema,
  transitions: TransitionSchema,
  clips: ClipSchema,
  resins: ResinSchema,
  labels: LabelStockSchema,
  tools: ToolSchema,
  boards: BoardSchema,
  printers: PrinterSchema,
  zones: ZoneItemSchema,
  modes: ModeItemSchema,
  sources: SourceItemSchema,
  buying: BuyingSchema,
} as const satisfies Record<ShopTable, TSchema>;

/** Tables that are records by id; the others are lists whose records carry their id. */
const KEYED = ['standards', 'families', 'devices', 'grommets', 'plugs', 'buying'] as const;
type KeyedTable = (typeof KEYED)[number];
const isKeyed = (table: ShopTable): table is KeyedTable => (KEYED as readonly string[]).includes(table);

/**
 * The shop with one record changed, added after all others, or (undefined) gone, with what is known of buying it. Wires stay in the order of
 * their areas.
 */
export function putRecord(shop: Shop, table: ShopTable, id: string, value: unknown): Shop {
  if (table === 'wires') return value === undefined ? takeOutWire(shop, id) : putWire(shop, id, value as Conductor);
  if (value !== undefined || !isBoughtTable(table)) return put(shop, table, id, value);
  return put(put(shop, table, id, undefined), 'buying', toBuyingKey(table, id), undefined);
}

function put(shop: Shop, table: ShopTable, id: string, value: unknown): Shop {
  if (isKeyed(table)) {
    const rest = without<unknown>(shop[table], id);
    if (value === undefined) return { ...shop, [table]: rest };
    return { ...shop, [table]: Object.hasOwn(shop[table], id) ? { ...shop[table], [id]: value } : { ...rest, [id]: value } };
  }
  const list = shop[table] as readonly unknown[];
  const toId = (one: unknown) => (table === 'people' ? one : (one as { id: string }).id);
  const at = list.findIndex((one) => toId(one) === id);
  const next = at === -1 ? [...list, value] : list.map((one, place) => (place === at ? value : one));
  return { ...shop, [table]: value === undefined ? list.filter((one) => toId(one) !== id) : next };
}

/** A wire keeps how it is bought when its size is called otherwise, and what its kind is called is so of all its sizes. */
function putWire(shop: Shop, id: string, wire: Conductor): Shop {
  const { table, insulation } = wire;
  const sizes = [...(shop.wires[table] ?? []).filter((one) => toWireId(one) !== id), wire].sort((a, b) => a.areaMm2 - b.areaMm2);
  const bought = shop.buying[toBuyingKey('wires', id)];
  return {
    ...shop,
    wires: { ...shop.wires, [table]: sizes.map((one) => ({ ...one, insulation })) },
    buying: bought ? { ...without(shop.buying, toBuyingKey('wires', id)), [toBuyingKey('wires', toWireId(wire))]: bought } : shop.buying,
  };
}

/** The last size takes its kind along, out of the house styles too. */
function takeOutWire(shop: Shop, id: string): Shop {
  const kind = id.slice(0, id.indexOf(' '));
  const sizes = shop.wires[kind]!.filter((one) => toWireId(one) !== id);
  const next = { ...shop, buying: without(shop.buying, toBuyingKey('wires', id)) };
  if (sizes.length > 0) return { ...next, wires: { ...shop.wires, [kind]: sizes } };
  const standards = mapStandards(shop, (standard) =>
    Object.fromEntries(BY_WIRE.map((field) => [field, without<string | number>(standard[field], kind)])),
  );
  return { ...next, standards, wires: without(shop.wires, kind) };
}

const without = <T>(record: Readonly<Record<string, T>>, gone: string): Record<string, T> =>
  Object.fromEntries(Object.entries(record).filter(([key]) => key !== gone));

const mapStandards = (shop: Shop, change: (standard: ShopStandard) => object): Shop['standards'] =>
  Object.fromEntries(Object.entries(shop.standards).map(([id, standard]) => [id, { ...standard, ...change(standard) }]));

/**
 * Another kind of wire with the sizes of one there is, and with what every house style says of that: to be given figures of its own. How it is
 * bought is not known.
 */
export function copyWireKind(shop: Shop, like: string, id: string): Shop {
  const standards = mapStandards(shop, (standard) =>
    Object.fromEntries(BY_WIRE.map((field) => [field, { ...standard[field], [id]: standard[field][like]! }])),
  );
  const sizes = shop.wires[like]!.map((one) => ({ ...one, table: id, insulation: `${one.insulation.slice(0, 34)}, copy` }));
  return { ...shop, standards, wires: { ...shop.wires, [id]: sizes } };
}

/** The shop with what its house styles ask of kinds of wire that only another shop says it of, as that does. */
export function addWireKinds(shop: Shop, theirs: Shop): Shop {
  const kinds = Object.keys(shop.wires);
  const standards = mapStandards(shop, (standard) => {
    const other = theirs.standards[standard.id] ?? Object.values(theirs.standards)[0]!;
    return Object.fromEntries(
      BY_WIRE.map((field) => {
        const missing = kinds.filter((kind) => !Object.hasOwn(standard[field], kind) && Object.hasOwn(other[field], kind));
        return [field, { ...standard[field], ...Object.fromEntries(missing.map((kind) => [kind, other[field][kind]!])) }];
      }),
    );
  });
  return { ...shop, standards };
}

/** An id beside those that a table has: "tarn-6-2". */
export function createRecordId(taken: ReadonlySet<string>, like: string): string {
  for (let number = 2; ; number += 1) if (!taken.has(`${like}-${number}`)) return `${like}-${number}`;
}

/** One field of a record as an editor shows it. */
export interface RecordField {
  key: string;
  /** "min area, mm²" */
  words: string;
  hint: string;
  kind: 'number' | 'text' | 'choice' | 'yes-no' | 'list' | 'group';
  choices: string[];
  /** null may stand for it: not stated */
  isOptional: boolean;
  isInteger: boolean;
  fields: RecordField[];
}

/** Fields of a record by the schema of its table: those that are figures, words and choices. What is a table of its own is left out. */
export function listRecordFields(schema: TSchema, value: unknown): RecordField[] {
  const options = (schema.anyOf ?? schema.oneOf ?? []) as TSchema[];
  const kind = typeof value === 'object' && value !== null ? (value as { kind?: unknown }).kind : undefined;
  // of several shapes the one that the record has
  const shape = options.length > 0 ? (options.find((one) => isOfKind(one, kind)) ?? options[0]!) : schema;
  return Object.entries((shape.properties ?? {}) as Record<string, TSchema>).flatMap(
    ([key, field]) => toField(key, field, (value as Record<string, unknown> | null)?.[key]) ?? [],
  );
}

const isOfKind = (schema: TSchema, kind: unknown): boolean => {
  const field = (schema.properties as Record<string, TSchema> | undefined)?.kind;
  return field !== undefined && listKinds(field).includes(kind);
};

/** value: what the field holds, for a record whose keys no schema knows */
function toField(key: string, schema: TSchema, value?: unknown): RecordField | null {
  const base = {
    key,
    words: toFieldWords(key),
    hint: (schema.description ?? '').replace('null:', 'empty:'),
    choices: [],
    isOptional: false,
    isInteger: false,
    fields: [],
  };
  const options = (schema.anyOf ?? []) as TSchema[];
  if (schema.const !== undefined || key === 'id') return null;
  const known = options.filter((one) => one.type !== 'null');
  if (known.length > 1 && known.every((one) => one.const !== undefined))
    return { ...base, kind: 'choice', choices: known.map((one) => String(one.const)), isOptional: known.length < options.length };
  if (known.length === 1) {
    const field = toField(key, { ...known[0]!, description: schema.description });
    return field && { ...field, isOptional: true };
  }
  if (schema.enum !== undefined) return { ...base, kind: 'choice', choices: schema.enum as string[] };
  if (schema.type === 'number' || schema.type === 'integer') return { ...base, kind: 'number', isInteger: schema.type === 'integer' };
  if (schema.type === 'string') return { ...base, kind: 'text' };
  if (schema.type === 'boolean') return { ...base, kind: 'yes-no' };
  if (schema.type === 'array' && ['string', 'integer'].includes((schema.items as TSchema).type as string))
    return { ...base, kind: 'list', isInteger: (schema.items as TSchema).type === 'integer' };
  const [ofEach] = Object.values((schema.patternProperties ?? {}) as Record<string, TSchema>);
  if (['number', 'string'].includes(ofEach?.type as string) && isRecord(value))
    return { ...base, kind: 'group', fields: Object.keys(value).flatMap((one) => toField(one, ofEach!) ?? []) };
  if (schema.type === 'object' && schema.properties !== undefined)
    return {
      ...base,
      kind: 'group',
      fields: Object.entries(schema.properties as Record<string, TSchema>).flatMap(([one, field]) => toField(one, field) ?? []),
    };
  return null;
}
