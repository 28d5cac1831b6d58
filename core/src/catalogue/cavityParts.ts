import {
  findCavitySize,
  isOffered,
  listCavities,
  type Conductor,
  type ConnectorFamily,
  type Contact,
  type Job,
  type Ring,
  type Seal,
} from '../model';
import { compareIds } from '../units';
import type { Catalogue } from './catalogue';

type Window = Seal | Pick<Seal, 'minOdMm' | 'maxOdMm'>;

/** What is offered for the cavities of a catalogue, by cavity size: a plan costs the same with twenty thousand parts as with two hundred. */
interface PartIndex {
  contacts: ReadonlyMap<string, readonly Contact[]>;
  seals: ReadonlyMap<string, readonly Seal[]>;
  contactById: ReadonlyMap<string, Contact>;
}

type Parts = Pick<Catalogue, 'contacts' | 'seals' | 'buying'>;

const INDICES = new WeakMap<readonly Contact[], Parts & { index: PartIndex }>();

function indexParts(parts: Parts): PartIndex {
  const { contacts, seals, buying } = parts;
  const known = INDICES.get(contacts);
  if (known?.seals === seals && known.buying === buying) return known.index;
  const index = {
    contacts: bySize(contacts.filter(({ id }) => isOffered(parts, 'contacts', id))),
    seals: bySize(seals.filter(({ id }) => isOffered(parts, 'seals', id))),
    contactById: new Map(contacts.map((one) => [one.id, one])),
  };
  INDICES.set(contacts, { contacts, seals, buying, index });
  return index;
}

function bySize<T extends { cavitySize: string }>(parts: readonly T[]): Map<string, T[]> {
  const found = new Map<string, T[]>();
  for (const part of parts) {
    const { cavitySize } = part;
    const list = found.get(cavitySize);
    if (list) list.push(part);
    else found.set(cavitySize, [part]);
  }
  return found;
}

/** A contact by its id; undefined: the catalogue has none of it. */
export const findContact = (catalogue: Parts, contactId: string): Contact | undefined => indexParts(catalogue).contactById.get(contactId);

/** Contacts that go into a cavity of this half of a connector, in the order of the catalogue. */
export function listCavityContacts(catalogue: Parts, family: ConnectorFamily, cavity: string): readonly Contact[] {
  const fitting = indexParts(catalogue).contacts.get(findCavitySize(family, cavity)) ?? [];
  if (family.gender === null) return fitting;
  return fitting.filter(({ gender }) => gender === null || `${gender}s` === family.gender);
}

/** Insulations that a sealed cavity closes on: the hole of its grommet, else each single-wire seal. Null: it is not sealed. */
export function listSealWindows(
  catalogue: Parts & Pick<Catalogue, 'grommets'>,
  family: ConnectorFamily,
  cavity: string,
): readonly Window[] | null {
  if (!family.sealed) return null;
  const size = findCavitySize(family, cavity);
  const grommet = catalogue.grommets[size];
  return grommet ? [grommet] : (indexParts(catalogue).seals.get(size) ?? []);
}

/** Housings with cavities of these names, the fewest ways first. */
export function listHousings(
  job: Pick<Job, 'families'>,
  catalogue: Pick<Catalogue, 'families' | 'buying'>,
  cavities: readonly string[],
): [string, ConnectorFamily][] {
  return Object.entries({ ...catalogue.families, ...job.families })
    .map(([id, family]) => ({ id, family, names: new Set(listCavities(family)) }))
    .filter(
      ({ id, names }) =>
        cavities.every((cavity) => names.has(cavity)) && (Object.hasOwn(job.families, id) || isOffered(catalogue, 'families', id)),
    )
    .sort((a, b) => a.names.size - b.names.size || compareIds(a.id, b.id))
    .map(({ id, family }) => [id, family]);
}

/** Within a window, its ends included. */
export const isWithin = (value: number, least: number, most: number) => value >= least - 1e-9 && value <= most + 1e-9;

/** Whether a cavity of this half has a contact for a conductor and, where it is sealed, a seal for its insulation: asked for many conductors. */
export function createTaker(
  catalogue: Parts & Pick<Catalogue, 'grommets'>,
  family: ConnectorFamily,
  cavity: string,
): (conductor: Pick<Conductor, 'areaMm2' | 'odMm'>) => boolean {
  const contacts = listCavityContacts(catalogue, family, cavity);
  const windows = listSealWindows(catalogue, family, cavity);
  return ({ areaMm2, odMm }) =>
    contacts.some((one) => isWithin(areaMm2, one.minAreaMm2, one.maxAreaMm2)) &&
    (windows === null || windows.some((one) => isWithin(odMm, one.minOdMm, one.maxOdMm)));
}

/** Housings in their order, but first those that take every conductor of an end: the smallest is no help where its contacts are too large. */
export function rankHousings(
  catalogue: Parts & Pick<Catalogue, 'grommets'>,
  housings: readonly [string, ConnectorFamily][],
  conductors: ReadonlyMap<string, readonly Pick<Conductor, 'areaMm2' | 'odMm'>[]>,
): [string, ConnectorFamily][] {
  const takes = ([, family]: [string, ConnectorFamily]) =>
    [...conductors].every(([cavity, all]) => all.every(createTaker(catalogue, family, cavity)));
  const fitting = new Set(housings.filter(takes));
  return [...fitting, ...housings.filter((one) => !fitting.has(one))];
}

/** Rings that are offered for a stud, in the order of the catalogue. */
export const listRings = (catalogue: Pick<Catalogue, 'rings' | 'buying'>, studMm: number | null): Ring[] =>
  studMm === null ? [] : catalogue.rings.filter((one) => one.studMm === studMm && isOffered(catalogue, 'rings', one.id));

/** Blades that are offered for a tongue, in the order of the catalogue. */
export const listBlades = (catalogue: Pick<Catalogue, 'rings' | 'buying'>, tongueMm: number | null): Ring[] =>
  tongueMm === null ? [] : catalogue.rings.filter((one) => one.tongueMm === tongueMm && isOffered(catalogue, 'rings', one.id));
