import { Type, type Static } from '@sinclair/typebox';
import { DeviceTemplateSchema } from '../vehicle/device';
import { ConnectorFamilySchema } from './family';
import { IdSchema, NameSchema, recordOf } from '../ids';
import { BuyingSchema } from './buying';
import { ContactSchema, GrommetSchema, PlugSchema, SealSchema } from './contact';
import { CoveringItemSchema } from './covering';
import { CavitySize } from './figures';
import { RingSchema, SpliceBarrelSchema } from './joint';
import { ClipSchema } from './clip';
import { ResinSchema } from './resin';
import { LabelStockSchema } from './label';
import { BootSchema, TransitionSchema } from './moulded';
import { ModeItemSchema, SourceItemSchema, ZoneItemSchema } from '../job/jobStart';
import { ShopStandardSchema } from './standard';
import { BoardSchema, PrinterSchema, ToolSchema } from './tool';
import { CableItemSchema, ConductorSchema, MOST_WIRE_KINDS } from './wire';

export const SHOP_FORMAT = 'wattograph-shop';
export const SHOP_FORMAT_VERSION = 15;

const bySize = { additionalProperties: false } as const;
const ofWires = { additionalProperties: false, minProperties: 1, maxProperties: MOST_WIRE_KINDS } as const;
const conductors = Type.Array(ConductorSchema, { minItems: 1, maxItems: 60, description: 'thinnest first' });

/** Everything a shop decides: what it buys, how it works, who works there. What every plan chooses from. */
export const ShopSchema = Type.Object(
  {
    format: Type.Literal(SHOP_FORMAT),
    formatVersion: Type.Literal(SHOP_FORMAT_VERSION),
    name: NameSchema,
    people: Type.Array(NameSchema, { minItems: 1, maxItems: 200, description: 'who signs edits, releases and ticks' }),
    families: recordOf(ConnectorFamilySchema, { maxProperties: 20_000 }),
    devices: recordOf(DeviceTemplateSchema, { maxProperties: 5000 }),
    wires: Type.Record(IdSchema, conductors, { ...ofWires, description: 'kind of wire → its sizes' }),
    contacts: Type.Array(ContactSchema, { maxItems: 20_000 }),
    seals: Type.Array(SealSchema, { maxItems: 20_000 }),
    grommets: Type.Record(CavitySize, GrommetSchema, { ...bySize, description: 'cavity size → what the holes of its grommets close on' }),
    plugs: Type.Record(CavitySize, PlugSchema, { ...bySize, description: 'cavity size → plug of an empty cavity' }),
    barrels: Type.Array(SpliceBarrelSchema, { minItems: 1, maxItems: 2000 }),
    rings: Type.Array(RingSchema, { maxItems: 5000 }),
    coverings: Type.Array(CoveringItemSchema, { minItems: 1, maxItems: 5000 }),
    boots: Type.Array(BootSchema, { maxItems: 2000 }),
    transitions: Type.Array(TransitionSchema, { maxItems: 2000 }),
    clips: Type.Array(ClipSchema, { maxItems: 2000 }),
    resins: Type.Array(ResinSchema, { maxItems: 500 }),
    cables: Type.Array(CableItemSchema, { maxItems: 5000 }),
    labels: Type.Array(LabelStockSchema, { maxItems: 2000 }),
    tools: Type.Array(ToolSchema, { maxItems: 2000 }),
    boards: Type.Array(BoardSchema, { minItems: 1, maxItems: 200 }),
    printers: Type.Array(PrinterSchema, { minItems: 1, maxItems: 200 }),
    zones: Type.Array(ZoneItemSchema, { maxItems: 100, description: 'that new jobs begin with' }),
    modes: Type.Array(ModeItemSchema, { maxItems: 60, description: 'that new jobs begin with' }),
    sources: Type.Array(SourceItemSchema, { minItems: 1, maxItems: 60, description: 'that new jobs are fed by, the usual one first' }),
    currency: Type.Union([Type.String({ minLength: 1, maxLength: 8 }), Type.Null()], { description: 'of its prices; null: not stated' }),
    buying: Type.Record(Type.String({ pattern: '^[a-z]+/.{1,60}$' }), BuyingSchema, {
      ...{ maxProperties: 60_000, additionalProperties: false },
      description: 'table/id of a part → how it is bought, and whether it still is',
    }),
    standards: Type.Record(IdSchema, ShopStandardSchema, { minProperties: 1, maxProperties: 100, additionalProperties: false }),
  },
  { additionalProperties: false, $id: 'https://wattograph.invalid/schema/shop-15.json', title: 'Wattograph shop' },
);
export type Shop = Static<typeof ShopSchema>;
