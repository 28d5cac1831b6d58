import { addCavityFields } from './family';
import { mapRecord } from '../mapRecord';
import type { Migration } from '../job/migrations';
import { SHOP_FORMAT_VERSION } from './shop';

/** Every step of the shop's format since the first, in order and without gaps. A test runs each. */
export const SHOP_MIGRATIONS: readonly Migration[] = [
  {
    from: 1,
    name: 'add-cavity-names-sizes-and-gender',
    run: (shop) => ({
      ...shop,
      formatVersion: 2,
      families: mapRecord(shop.families, addCavityFields),
      contacts: Array.isArray(shop.contacts) ? shop.contacts.map(addGender) : shop.contacts,
    }),
  },
  { from: 2, name: 'add-tools-and-buying', run: (shop) => ({ ...shop, formatVersion: 3, tools: [], currency: null, buying: {} }) },
  {
    from: 3,
    name: 'add-lay-up',
    run: (shop) => ({
      ...shop,
      formatVersion: 4,
      standards: mapRecord(shop.standards, (standard) => ({ ...standard, ...LAYUP_DEFAULTS })),
    }),
  },
];

/** What a shop that never said anything else laid up by: the trade's usual figures (calculations 6, craft A1). */
export const LAYUP_DEFAULTS = {
  bundling: 'pairs-only',
  layRatio: 10,
  layRatioLeast: 8,
  layRatioMost: 16,
  layLeastMm: 25,
  laySqueeze: 0.03,
  fillerPerM: 0.2,
  fillerMinutes: 1.5,
  relayMinutes: 10,
  relayThinner: 0.08,
  labourPerHour: 48,
  untwistedMostMm: 50,
} as const;

const addGender = (contact: unknown) =>
  typeof contact === 'object' && contact !== null && !Array.isArray(contact) ? { gender: null, ...contact } : contact;

/** Bring a shop of an older format to the present one; what is of no known format is left for the gate to name. */
export function toPresentShop(shop: Record<string, unknown>): Record<string, unknown> {
  let present = shop;
  for (;;) {
    const version = present.formatVersion;
    const step = SHOP_MIGRATIONS.find(({ from }) => from === version);
    if (!step || version === SHOP_FORMAT_VERSION) return present;
    present = step.run(present);
  }
}
