import type { CatalogueLookup, ConnectorFamily, DeviceTemplate, Job } from '../model';
import { CABLES, type CableItem } from './cables';
import { CONTACTS, GROMMETS, PLUGS, SEALS, type Contact, type Seal } from './contacts';
import { COVERINGS, LABELS, type CoveringItem, type LabelStock } from './coverings';
import { DEVICES } from './devices';
import { FAMILIES } from './families';
import { BARRELS, RINGS, type Ring, type SpliceBarrel } from './joints';
import { LARKHOLLOW, LARKHOLLOW_PLAIN, type ShopStandard } from './standard';
import { WIRE_TABLES, type Conductor } from './wires';

/** Everything a plan may choose from. Plain data, so that it can be another shop's. */
export interface Catalogue {
  families: Readonly<Record<string, ConnectorFamily>>;
  devices: Readonly<Record<string, DeviceTemplate>>;
  wires: Readonly<Record<Conductor['table'], readonly Conductor[]>>;
  contacts: readonly Contact[];
  seals: readonly Seal[];
  grommets: Readonly<Record<string, { minOdMm: number; maxOdMm: number }>>;
  plugs: Readonly<Record<string, { id: string; name: string }>>;
  barrels: readonly SpliceBarrel[];
  rings: readonly Ring[];
  coverings: readonly CoveringItem[];
  cables: readonly CableItem[];
  labels: readonly LabelStock[];
  standards: Readonly<Record<string, ShopStandard>>;
}

/** The catalogue that ships: fictional families, both wire tables, one shop standard. */
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
  cables: CABLES,
  labels: LABELS,
  standards: { larkhollow: LARKHOLLOW, plain: LARKHOLLOW_PLAIN },
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
    sizes: {
      etfe: catalogue.wires.etfe.map(({ size }) => size),
      'etfe-plated': catalogue.wires['etfe-plated'].map(({ size }) => size),
      thinwall: catalogue.wires.thinwall.map(({ size }) => size),
    },
  };
}
