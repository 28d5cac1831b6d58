import { BOUGHT_TABLES, findCavitySize, listCavities, listRecords, toBuyingKey, type ConnectorFamily, type Job, type Shop } from '../model';

/**
 * A job as a file: the document, and beside it as `shop` what its plan chooses from, so that it plans anywhere as it did at home. Housings
 * and templates are those it uses, contacts and seals those of their cavities; what a plan chooses from as a whole (wires, coverings,
 * barrels, rings, cables, labels) is there as a whole.
 */
export const toJobFile = (job: Job, shop: Shop): Job & { shop: Shop } => ({ ...job, shop: selectRecords(job, shop) });

/** A file's document and the records it carries; null: it carries none. What either is worth the gates say. */
export function fromJobFile(value: unknown): { document: unknown; shop: unknown } {
  if (typeof value !== 'object' || value === null || Array.isArray(value) || !Object.hasOwn(value, 'shop'))
    return { document: value, shop: null };
  const { shop, ...document } = value as Record<string, unknown>;
  return { document, shop: shop ?? null };
}

function selectRecords(job: Job, shop: Shop): Shop {
  const devices = pick(shop.devices, new Set(Object.values(job.devices).map(({ templateId }) => templateId)));
  const families = pick(shop.families, listFamilyIds(job, shop, devices));
  const sizes = new Set([...Object.values(families), ...Object.values(job.families)].flatMap(listSizes));
  const selected: Shop = {
    ...shop,
    families,
    devices,
    contacts: shop.contacts.filter(({ cavitySize }) => sizes.has(cavitySize)),
    seals: shop.seals.filter(({ cavitySize }) => sizes.has(cavitySize)),
    grommets: pick(shop.grommets, sizes),
    plugs: pick(shop.plugs, sizes),
    standards: pick(shop.standards, new Set([job.standardId])),
  };
  const parts = new Set(BOUGHT_TABLES.flatMap((table) => listRecords(selected, table).map(({ id }) => toBuyingKey(table, id))));
  return { ...selected, buying: pick(shop.buying, parts) };
}

/** Families of ends and of templates, with those that they go into. */
function listFamilyIds(job: Job, shop: Shop, devices: Shop['devices']): ReadonlySet<string> {
  const ends = Object.values(job.looms).flatMap((loom) => Object.values(loom.ends).map(({ familyId }) => familyId));
  const ids = new Set<string>();
  const add = (id: string | null) => {
    if (id === null || ids.has(id) || !Object.hasOwn(shop.families, id)) return;
    ids.add(id);
    add(shop.families[id]!.mateId);
  };
  [...ends, ...Object.values(devices).map(({ familyId }) => familyId), ...Object.values(job.families).map(({ mateId }) => mateId)].forEach(
    add,
  );
  return ids;
}

const listSizes = (family: ConnectorFamily): string[] => listCavities(family).map((cavity) => findCavitySize(family, cavity));

const pick = <T>(records: Readonly<Record<string, T>>, ids: ReadonlySet<string | null>): Record<string, T> =>
  Object.fromEntries(Object.entries(records).filter(([id]) => ids.has(id)));
