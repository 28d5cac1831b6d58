import {
  SHOP_FORMAT,
  SHOP_FORMAT_VERSION,
  type Boot,
  type Buying,
  type CableItem,
  type CatalogueLookup,
  type Conductor,
  type ConnectorFamily,
  type Contact,
  type CoveringItem,
  type DeviceTemplate,
  type Job,
  type Clip,
  type LabelStock,
  type Resin,
  type Ring,
  type Seal,
  type Shop,
  type Board,
  type Printer,
  type ShopStandard,
  type SpliceBarrel,
  type Tool,
  type Transition,
} from '../model';
import { CABLES } from './cables';
import { CONTACTS, GROMMETS, PLUGS, SEALS } from './contacts';
import { CLIPS } from './clips';
import { RESINS } from './resins';
import { COVERINGS, LABELS } from './coverings';
import { DEVICES } from './devices';
import { FAMILIES } from './families';
import { BOARDS, PRINTERS } from './boards';
import { BUYING } from './buying';
import { BOOTS, TRANSITIONS } from './moulded';
import { BARRELS, RINGS } from './joints';
import { BEGINNINGS, LARKHOLLOW, LARKHOLLOW_PLAIN } from './standard';
import { TOOLS } from './tools';
import { WIRE_TABLES } from './wires';

/** Everything a plan may choose from: the part of a shop that its figures hang on. */
export interface Catalogue {
  families: Readonly<Record<string, ConnectorFamily>>;
  devices: Readonly<Record<string, DeviceTemplate>>;
  wires: Readonly<Record<string, readonly Conductor[]>>;
  contacts: readonly Contact[];
  seals: readonly Seal[];
  grommets: Readonly<Record<string, { minOdMm: number; maxOdMm: number }>>;
  plugs: Readonly<Record<string, { id: string; name: string }>>;
  barrels: readonly SpliceBarrel[];
  rings: readonly Ring[];
  coverings: readonly CoveringItem[];
  boots: readonly Boot[];
  transitions: readonly Transition[];
  clips: readonly Clip[];
  resins: readonly Resin[];
  cables: readonly CableItem[];
  labels: readonly LabelStock[];
  standards: Readonly<Record<string, ShopStandard>>;
  tools: readonly Tool[];
  boards: readonly Board[];
  printers: readonly Printer[];
  currency: string | null;
  buying: Readonly<Record<string, Buying>>;
}

/** Parts and standards of the demo shop: fictional families, wire tables, two standards. What a new installation begins with. */
export const CATALOGUE: Catalogue = {
  families: FAMILIES,
  devices: DEVICES,
  wires: WIRE_TABLES,
  contacts: CONTACTS,
  seals: SEALS,
  grommets: GROMMETS,
  plugs: PLUGS,
  barrels: BARRELS,
  rings: RINGS,
  coverings: COVERINGS,
  boots: BOOTS,
  transitions: TRANSITIONS,
  clips: CLIPS,
  resins: RESINS,
  cables: CABLES,
  labels: LABELS,
  standards: { larkhollow: LARKHOLLOW, plain: LARKHOLLOW_PLAIN },
  tools: TOOLS,
  boards: BOARDS,
  printers: PRINTERS,
  currency: 'EUR',
  buying: BUYING,
};

/** A family by id: the job's own first, then the catalogue's; undefined where neither has it. */
export function findFamily(job: Pick<Job, 'families'>, catalogue: Catalogue, familyId: string | null): ConnectorFamily | undefined {
  if (familyId === null) return undefined;
  if (Object.hasOwn(job.families, familyId)) return job.families[familyId];
  return Object.hasOwn(catalogue.families, familyId) ? catalogue.families[familyId] : undefined;
}

/** A device template by id: the job's own first, then the catalogue's; undefined where neither has it. */
export function findDeviceTemplate(
  job: Pick<Job, 'deviceTemplates'>,
  catalogue: Catalogue,
  templateId: string | null,
): DeviceTemplate | undefined {
  if (templateId === null) return undefined;
  if (Object.hasOwn(job.deviceTemplates, templateId)) return job.deviceTemplates[templateId];
  return Object.hasOwn(catalogue.devices, templateId) ? catalogue.devices[templateId] : undefined;
}

/** What the integrity check may ask of a catalogue. */
export function createLookup(catalogue: Catalogue): CatalogueLookup {
  return {
    family: (id) => findFamily({ families: {} }, catalogue, id),
    deviceTemplateIds: Object.keys(catalogue.devices),
    standardIds: Object.keys(catalogue.standards),
    cableIds: catalogue.cables.map(({ id }) => id),
    sizes: Object.fromEntries(Object.entries(catalogue.wires).map(([kind, wires]) => [kind, wires.map(({ size }) => size)])),
  };
}

/** The demo shop, and what a new installation begins with: every figure a shop decides, as data. */
export const createDemoShop = (): Shop =>
  JSON.parse(
    JSON.stringify({
      format: SHOP_FORMAT,
      formatVersion: SHOP_FORMAT_VERSION,
      name: 'Larkhollow Looms',
      people: ['Imke Dorsey', 'Tobin Ashgrove', 'Saoirse Vell', 'Jun Okafor'],
      ...CATALOGUE,
      ...BEGINNINGS,
    }),
  ) as Shop;
