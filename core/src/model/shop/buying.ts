import { Type, type Static } from '@sinclair/typebox';
import { least0, positive } from './figures';

/** How a part is bought, and whether it still is. Beside the parts rather than in them: a price list is another paper than a data sheet. */
export const BuyingSchema = Type.Object(
  {
    retired: Type.Boolean({ description: 'not chosen or offered any more; jobs that name it keep it' }),
    price: Type.Union([least0(1_000_000), Type.Null()], {
      description: 'of a piece, or of a metre of wire, cable and sleeve, in the shop’s currency; null: not stated',
    }),
    packOf: Type.Union([positive(1_000_000), Type.Null()], { description: 'pieces or metres in a pack; null: not stated' }),
    orderAs: Type.String({ maxLength: 120, description: 'what the order says; may be empty' }),
  },
  { additionalProperties: false },
);
export type Buying = Static<typeof BuyingSchema>;

/** Tables whose parts are bought. */
export const BOUGHT_TABLES = [
  ...(['families', 'devices', 'wires', 'cables', 'contacts', 'seals', 'plugs', 'rings', 'barrels', 'coverings', 'boots'] as const),
  ...(['transitions', 'clips', 'resins', 'labels'] as const),
] as const;
export type BoughtTable = (typeof BOUGHT_TABLES)[number];

export const isBoughtTable = (table: string): table is BoughtTable => BOUGHT_TABLES.some((one) => one === table);

/** Those whose parts can be retired: a wire of a table and the one plug of a cavity size are taken out or replaced. */
export const RETIRABLE_TABLES: readonly BoughtTable[] = BOUGHT_TABLES.filter((table) => table !== 'wires' && table !== 'plugs');

/** Key of what is known of buying a part: "contacts/h22". */
export const toBuyingKey = (table: BoughtTable, id: string): string => `${table}/${id}`;

/** What is known of buying a part; undefined: nothing, and it is not retired. */
export const findBuying = (shop: { buying: Readonly<Record<string, Buying>> }, table: BoughtTable, id: string): Buying | undefined => {
  const key = toBuyingKey(table, id);
  return Object.hasOwn(shop.buying, key) ? shop.buying[key] : undefined;
};

/** Is this part still chosen and offered? */
export const isOffered = (shop: { buying: Readonly<Record<string, Buying>> }, table: BoughtTable, id: string): boolean =>
  findBuying(shop, table, id)?.retired !== true;
