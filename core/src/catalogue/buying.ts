import { isShrink, isTape, toBuyingKey, type BoughtTable, type Buying } from '../model';
import { CABLES } from './cables';
import { CONTACTS, PLUGS, SEALS } from './contacts';
import { CLIPS } from './clips';
import { RESINS } from './resins';
import { COVERINGS, LABELS } from './coverings';
import { FAMILIES } from './families';
import { BOOTS, TRANSITIONS } from './moulded';
import { BARRELS, RINGS } from './joints';
import { WIRE_TABLES } from './wires';

const round = (price: number) => Math.round(price * 100) / 100;

/** A made-up price, of a piece or of a metre, and the pack it comes in. */
const line = (table: BoughtTable, id: string, price: number, packOf: number): [string, Buying] => [
  toBuyingKey(table, id),
  { retired: false, price: round(price), packOf, orderAs: '' },
];

const WIRE_PRICES = { etfe: 0.34, 'etfe-plated': 0.52, thinwall: 0.11 } as const;

/** What the demo shop pays: all of it made up, dearer with the size of the part. */
export const BUYING: Readonly<Record<string, Buying>> = Object.fromEntries([
  ...Object.entries(FAMILIES).map(([id, { massG, envelopeMm, sealed }]) =>
    line('families', id, 1.2 + massG * (sealed ? 0.9 : 0.3) + envelopeMm * 0.12, 1),
  ),
  ...Object.entries(WIRE_TABLES).flatMap(([table, sizes]) =>
    sizes.map(({ size, areaMm2 }) =>
      line('wires', `${table} ${size}`, WIRE_PRICES[table as keyof typeof WIRE_PRICES] * (1 + 1.6 * areaMm2), areaMm2 > 4 ? 25 : 100),
    ),
  ),
  ...CABLES.map(({ id, massGPerM, screened }) => line('cables', id, 0.6 + massGPerM * (screened ? 0.11 : 0.07), 50)),
  ...CONTACTS.map(({ id, currentA }) => line('contacts', id, 0.28 + currentA * 0.035, currentA > 30 ? 25 : 100)),
  ...SEALS.map(({ id }) => line('seals', id, 0.09, 100)),
  ...Object.keys(PLUGS).map((size) => line('plugs', size, 0.12, 100)),
  ...RINGS.map(({ id, massG }) => line('rings', id, 0.18 + massG * 0.06, massG > 8 ? 10 : 50)),
  ...BARRELS.map(({ id, massG }) => line('barrels', id, 0.16 + massG * 0.11, 50)),
  ...COVERINGS.map((item) =>
    line('coverings', item.id, 0.05 + item.massGPerM * (isShrink(item) ? 0.16 : isTape(item) ? 0.02 : 0.09), isShrink(item) ? 1.2 : 50),
  ),
  ...BOOTS.map(({ id, massG }) => line('boots', id, 3.2 + massG * 0.55, 5)),
  ...CLIPS.map(({ id, massG }) => line('clips', id, 0.4 + massG * 0.12, 25)),
  ...RESINS.map(({ id }) => line('resins', id, 0.09, 250)),
  ...TRANSITIONS.map(({ id, massG, legs }) => line('transitions', id, 4.1 + legs + massG * 0.4, 5)),
  ...LABELS.map(({ id, suppliedBoreMm }) => line('labels', id, 0.05 + suppliedBoreMm * 0.01, 250)),
]);
