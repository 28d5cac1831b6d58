import { findFamily, isWithin, listCavityContacts, listSealWindows, type Catalogue, type ShopStandard } from '../../catalogue';
import {
  findBuying,
  findCavitySize,
  isOffered,
  listCavities,
  type Conductor,
  type ConnectorFamily,
  type Contact,
  type Job,
} from '../../model';
import { compareIds } from '../../units';
import { createAmbients, measureContactRating } from '../terminate/measureContactRating';
import type { LoomPlan } from '../types';
import { listEndsBeyond } from './countJunction';

/** Breakouts at which tails can be gathered: with two ends or more beyond them, in the order of the tree. */
export function listJunctionPlaces(job: Job, { loomId, tree }: LoomPlan): { nodeId: string; distanceMm: number; ends: number }[] {
  const loom = job.looms[loomId]!;
  return tree.nodeIds.flatMap((nodeId) => {
    if (loom.nodes[nodeId]!.kind !== 'breakout') return [];
    const { childSegmentIds, distanceMm } = tree.nodes[nodeId]!;
    const ends = listEndsBeyond(loom, tree, childSegmentIds).size;
    return ends < 2 ? [] : [{ nodeId, distanceMm, ends }];
  });
}

/** A pair of housings for a junction: the half towards what feeds it, and the other. */
export interface JunctionPair {
  id: string;
  family: ConnectorFamily;
  mateId: string;
  mate: ConnectorFamily;
}

/** Pairs with so many cavities, the fewest first; of halves that differ the one with sockets stays on the side that is fed. */
export function listJunctionPairs(job: Job, catalogue: Catalogue, least: number): JunctionPair[] {
  const all = [
    ...Object.entries(job.families),
    ...Object.entries(catalogue.families).filter(([id]) => !Object.hasOwn(job.families, id) && isOffered(catalogue, 'families', id)),
  ];
  return all
    .filter(([, family]) => family.gender !== 'pins' && listCavities(family).length >= least)
    .flatMap(([id, family]): JunctionPair[] => {
      const mateId = family.mateId ?? (family.gender === null ? id : null);
      const mate = findFamily(job, catalogue, mateId);
      return mateId !== null && mate ? [{ id, family, mateId, mate }] : [];
    })
    .sort((a, b) => listCavities(a.family).length - listCavities(b.family).length || compareIds(a.id, b.id));
}

/** What crosses, in its cavities; what they cannot carry; what both halves cost with all that goes into them. */
export interface JunctionFit {
  /** circuit → cavity */
  cavityOf: ReadonlyMap<string, string>;
  /** circuits whose wire no contact of the pair takes; they get a cavity all the same */
  unfitIds: string[];
  /** circuits that carry more than their contact is good for where it lies, A */
  over: { circuitId: string; currentA: number; ratedA: number }[];
  /** circuits of which nobody knows what flows in all of their wires: whether their contact is good for it is not known either */
  unknownIds: string[];
  /** housings, contacts, seals and plugs of both halves; null: the shop does not know what one of them costs */
  price: number | null;
}

interface FitContext {
  job: Job;
  catalogue: Catalogue;
  standard: ShopStandard;
  plan: LoomPlan;
  /** breakout at which the tails are gathered */
  nodeId: string;
  pair: JunctionPair;
  circuitIds: readonly string[];
}

/**
 * Each circuit that crosses in a cavity whose contacts take its wire on both sides and carry its current (craft I1), the heaviest first and into
 * the smallest cavity that does. One that nothing takes gets what is left, and is told.
 */
export function fitJunction({ job, catalogue, standard, plan, nodeId, pair, circuitIds }: FitContext): JunctionFit {
  const ambientC = createAmbients(job, job.looms[plan.loomId]!, standard)(nodeId);
  const loads = listLoads(plan, circuitIds);
  const cavities = listCavities(pair.family);
  const contactsOf = (family: ConnectorFamily, cavity: string, { areaMm2 }: Pick<Conductor, 'areaMm2'>) =>
    listCavities(family).includes(cavity)
      ? listCavityContacts(catalogue, family, cavity).find((one) => isWithin(areaMm2, one.minAreaMm2, one.maxAreaMm2))
      : undefined;
  const halves = [pair.family, pair.mate];
  const listContacts = (cavity: string, conductor: Conductor): Contact[] =>
    halves.flatMap((half) => contactsOf(half, cavity, conductor) ?? []);
  const rate = (contacts: readonly Contact[]) => Math.min(...contacts.map((one) => measureContactRating(one, ambientC)));
  const left = new Set(cavities);
  const cavityOf = new Map<string, string>();
  const fit: Pick<JunctionFit, 'unfitIds' | 'over' | 'unknownIds'> = { unfitIds: [], over: [], unknownIds: [] };
  const items: { table: 'contacts' | 'seals' | 'plugs' | 'families'; id: string }[] = [pair.id, pair.mateId].map((id) => ({
    table: 'families',
    id,
  }));
  for (const { circuitId, conductor, currentA, isKnown } of loads) {
    if (!isKnown) fit.unknownIds.push(circuitId);
    const taking = [...left]
      .map((cavity) => ({ cavity, contacts: conductor ? listContacts(cavity, conductor) : [] }))
      .filter(({ contacts }) => contacts.length === halves.length)
      .sort((a, b) => rate(a.contacts) - rate(b.contacts) || cavities.indexOf(a.cavity) - cavities.indexOf(b.cavity));
    const chosen = taking.find(({ contacts }) => rate(contacts) >= currentA) ?? taking.at(-1) ?? { cavity: [...left][0], contacts: [] };
    if (chosen.cavity === undefined) break;
    left.delete(chosen.cavity);
    cavityOf.set(circuitId, chosen.cavity);
    if (chosen.contacts.length === 0) fit.unfitIds.push(circuitId);
    else if (rate(chosen.contacts) < currentA) fit.over.push({ circuitId, currentA, ratedA: rate(chosen.contacts) });
    for (const { id } of chosen.contacts) items.push({ table: 'contacts', id });
    for (const half of halves) {
      const seal = listSealWindows(catalogue, half, chosen.cavity)?.find(
        (one) => conductor !== null && isWithin(conductor.odMm, one.minOdMm, one.maxOdMm),
      );
      if (seal && 'id' in seal) items.push({ table: 'seals', id: seal.id });
    }
  }
  for (const half of halves)
    if (half.sealed)
      for (const cavity of left) {
        const size = findCavitySize(half, cavity);
        if (catalogue.plugs[size]) items.push({ table: 'plugs', id: size });
      }
  const prices = items.map(({ table, id }) => findBuying(catalogue, table, id)?.price ?? null);
  const isPriced = fit.unfitIds.length === 0 && !prices.includes(null);
  return { cavityOf, ...fit, price: isPriced ? prices.reduce<number>((sum, one) => sum + one!, 0) : null };
}

/** What each circuit brings to its contact: its thickest wire and the most that is known to flow in any of them, the heaviest first. */
function listLoads({ wires, currents }: LoomPlan, circuitIds: readonly string[]) {
  const ampsOf = new Map(currents.map(({ wireId, designA }) => [wireId, designA]));
  return circuitIds
    .map((circuitId) => {
      const own = wires.filter((wire) => wire.circuitId === circuitId);
      const thickest = own.reduce<Conductor | null>(
        (most, { conductor }) => (most === null || conductor.areaMm2 > most.areaMm2 ? conductor : most),
        null,
      );
      const known = own.flatMap(({ id }) => ampsOf.get(id) ?? []);
      return { circuitId, conductor: thickest, currentA: Math.max(0, ...known), isKnown: known.length === own.length };
    })
    .sort(
      (a, b) =>
        (b.conductor?.areaMm2 ?? 0) - (a.conductor?.areaMm2 ?? 0) || b.currentA - a.currentA || compareIds(a.circuitId, b.circuitId),
    );
}
