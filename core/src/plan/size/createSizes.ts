import {
  type Catalogue,
  type Conductor,
  createTaker,
  isWithin,
  findFamily,
  listBlades,
  listRings,
  type ShopStandard,
} from '../../catalogue';
import { findCavitySize, type Job, type Loom } from '../../model';
import { createKeeper } from '../../units';
import type { RoutedWire } from '../types';

/** Conductors that a wire may have, thinnest first, and what narrowed them. Never empty. */
export interface SizeRange {
  conductors: readonly Conductor[];
  ruledBy: 'pinned' | 'cable' | 'minimum' | 'contact' | 'none';
}

/** Conductor of a cable, bearing its part of the cable's mass: one for all that lie in it. */
function createCableConductors(loom: Pick<Loom, 'circuits'>, catalogue: Catalogue): (groupId: string, itemId: string) => Conductor {
  const known = new Map<string, Conductor>();
  return (groupId, itemId) => {
    const stored = known.get(groupId);
    if (stored) return stored;
    const item = catalogue.cables.find(({ id }) => id === itemId)!;
    const core = catalogue.wires[item.table]!.find(({ size }) => size === item.size)!;
    const circuits = Object.values(loom.circuits).filter(({ cable }) => cable?.groupId === groupId);
    const conductor = { ...core, massGPerM: item.massGPerM / circuits.length };
    known.set(groupId, conductor);
    return conductor;
  };
}

/**
 * Looks up the conductors of a wire of a loom: the one of the cable it lies in, the one pinned by the planner, else all from the shop minimum up that the contacts,
 * seals and rings at its ends take. Where none is taken by both, the shop minimum stands alone and the check of the ends says so.
 */
export const createSizes = (job: Job, loom: Loom, catalogue: Catalogue, standard: ShopStandard): ((wire: RoutedWire) => SizeRange) =>
  remember(loom.circuits, [loom.ends, job.families, catalogue, standard], () => startSizes(job, loom, catalogue, standard));

/** what a wire may have does not hang on how long it is: an edit of a length finds it as it was */
const remember = createKeeper<Loom['circuits'], (wire: RoutedWire) => SizeRange>();

function startSizes(
  job: Pick<Job, 'families'>,
  loom: Pick<Loom, 'circuits' | 'ends'>,
  catalogue: Catalogue,
  standard: ShopStandard,
): (wire: RoutedWire) => SizeRange {
  type Accepts = (conductor: Conductor) => boolean;
  const createAccepts = (endId: string, cavity: string): Accepts => {
    const end = loom.ends[endId]!;
    if (end.kind === 'ring' || end.kind === 'blade') {
      const rings = end.kind === 'ring' ? listRings(catalogue, end.studMm) : listBlades(catalogue, end.tongueMm);
      return ({ areaMm2 }) => rings.some((one) => isWithin(areaMm2, one.minAreaMm2, one.maxAreaMm2));
    }
    const family = findFamily(job, catalogue, end.familyId);
    if (!family || end.kind !== 'connector') return () => true;
    return createTaker(catalogue, family, cavity);
  };
  // cavities of one size in one housing take alike
  const toPlace = (end: RoutedWire['from']): string => {
    if (end.kind !== 'cavity') return '';
    const family = findFamily(job, catalogue, loom.ends[end.endId]!.familyId);
    return family ? `${end.endId}/${findCavitySize(family, end.cavity)}` : end.endId;
  };
  const acceptsAt = new Map<string, Accepts>();
  const findAccepts = (end: RoutedWire['from']): Accepts | null => {
    if (end.kind !== 'cavity') return null;
    const place = toPlace(end);
    const stored = acceptsAt.get(place) ?? createAccepts(end.endId, end.cavity);
    acceptsAt.set(place, stored);
    return stored;
  };
  const accepts = (wire: RoutedWire, conductor: Conductor) => [wire.from, wire.to].every((end) => findAccepts(end)?.(conductor) ?? true);
  const ofCable = createCableConductors(loom, catalogue);
  // wires between the same two ends that nobody pinned choose alike
  const known = new Map<string, SizeRange>();
  return (wire) => {
    const { wireTable, sizePin, cable } = loom.circuits[wire.circuitId]!;
    if (cable) return { conductors: [ofCable(cable.groupId, cable.itemId)], ruledBy: 'cable' };
    const table = catalogue.wires[wireTable]!;
    const pinned = sizePin && table.find(({ size }) => size === sizePin.size);
    if (pinned) return { conductors: [pinned], ruledBy: 'pinned' };
    const key = `${wireTable} ${toPlace(wire.from)} ${toPlace(wire.to)}`;
    const stored = known.get(key);
    if (stored) return stored;
    const least = table.findIndex(({ size }) => size === standard.minimumSize[wireTable]);
    const minimum = table[least];
    if (!minimum) throw new Error(`shop standard: expected a size of the ${wireTable} table, got "${standard.minimumSize[wireTable]}"`);
    const accepted = table.slice(least).filter((conductor) => accepts(wire, conductor));
    const range: SizeRange =
      accepted.length === 0
        ? { conductors: [minimum], ruledBy: 'none' }
        : { conductors: accepted, ruledBy: accepted[0] === minimum ? 'minimum' : 'contact' };
    known.set(key, range);
    return range;
  };
}
