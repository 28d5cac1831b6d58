import type { Catalogue } from '../catalogue';
import type { Loom } from '../model';
import { once, type Memory } from '../units';
import { measurePackingBound, packCircles } from './packCircles';
import type { LyingStrands, RoutedLoom } from './routeLoom';
import type { Packing, Piece, PlannedBundle, Section, SizedWire, Tree } from './types';

/** Packings found so far, by the diameters in them. Only ever a shortcut: the same diameters always pack the same way. */
export type PackingStore = Map<string, { packing: Packing; boundMm: number }>;

const MOST_STORED = 20_000;

/** A bundle, and the places in the list of wires of what lies in each of its sections. */
export interface LaidBundle {
  /** loom, segment, and whether it is drafted or built: what is remembered of it goes by that */
  id: string;
  bundle: PlannedBundle;
  occupants: readonly (readonly number[])[];
}

/** What laying bundles remembers: packings, and the bundles as they were laid last, by loom and segment. */
export interface BundleStore {
  packings: PackingStore;
  laid: Memory<LaidBundle>;
}

interface Lying {
  wire: SizedWire;
  /** its place in the list of wires */
  place: number;
  piece: Piece;
  element: string[];
  groupId: string | undefined;
  /** of the cable it lies in; null: in none */
  cableMm: number | null;
  isScreen: boolean;
}

/**
 * What lies in each segment and how thick it is, section by section between splices. Laid straight and tied. A draft is not packed: it has
 * the least diameter there could be, for the rounds in which sizes are still chosen (thinner is warmer: the safe side).
 */
export function measureBundles(
  loom: Loom,
  { loomId, tree, strands }: Pick<RoutedLoom, 'loomId' | 'tree' | 'strands'>,
  wires: readonly SizedWire[],
  catalogue: Catalogue,
  { packings, laid }: BundleStore,
  isDraft: boolean,
): LaidBundle[] {
  const cables = once(() => new Map(catalogue.cables.map((item) => [item.id, item])));
  const toLying = ({ places, pieces, elements }: LyingStrands, at: number): Lying => {
    const place = places[at]!;
    const wire = wires[place]!;
    const { cable, twist, kind } = loom.circuits[wire.circuitId]!;
    // a cable is as thick as it is bought, whatever lies in it
    const bought = cable ? cables().get(cable.itemId) : undefined;
    const cableMm = bought?.odMm ?? null;
    const isScreen = kind === 'screen' || bought?.screened === true;
    const groupId = cable ? `cable ${cable.groupId}` : twist?.groupId;
    return { wire, place, piece: pieces[at]!, element: elements[at]!, groupId, cableMm, isScreen };
  };
  return [...strands].map(([segmentId, lying]) => {
    const inputs: unknown[] = [catalogue, loom.circuits, lying];
    for (const place of lying.places) inputs.push(wires[place]!.conductor);
    const id = `${isDraft ? 'draft' : 'built'} ${loomId} ${segmentId}`;
    return laid(id, inputs, () => {
      const thickestFirst = lying.places.map((_, at) => toLying(lying, at)).sort((a, b) => b.wire.conductor.odMm - a.wire.conductor.odMm);
      return { id, ...measureBundle(tree, segmentId, thickestFirst, isDraft ? null : packings) };
    });
  });
}

function measureBundle(tree: Tree, segmentId: string, here: readonly Lying[], store: PackingStore | null): Omit<LaidBundle, 'id'> {
  const { lengthMm } = tree.segments[segmentId]!;
  const cuts = new Set([0, lengthMm]);
  let copper = 0;
  let isStiff = false;
  for (const { wire, piece, isScreen } of here) {
    if (piece.fromMm !== 0) cuts.add(piece.fromMm);
    if (piece.toMm !== lengthMm) cuts.add(piece.toMm);
    copper += wire.conductor.massGPerM * (piece.toMm - piece.fromMm);
    isStiff ||= isScreen || wire.conductor.areaMm2 >= 4;
  }
  const at = [...cuts].sort((a, b) => a - b);
  const occupants: number[][] = [];
  const sections = at.slice(1).map((toMm, index) => {
    const fromMm = at[index]!;
    const inside = at.length === 2 ? here : here.filter(({ piece }) => piece.fromMm <= fromMm + 1e-9 && piece.toMm >= toMm - 1e-9);
    occupants.push(inside.map(({ place }) => place));
    return measureSection(inside, fromMm, toMm, store);
  });
  const odMm = sections.reduce((most, section) => Math.max(most, section.odMm), 0);
  return { bundle: { segmentId, odMm, sections, massGPerM: copper / lengthMm, isStiff }, occupants };
}

function measureSection(here: readonly Lying[], fromMm: number, toMm: number, store: PackingStore | null): Section {
  const { elements, diametersMm } = listElements(here);
  if (store === null) {
    const boundMm = measurePackingBound(diametersMm);
    return { fromMm, toMm, elements, diametersMm, circles: [], odMm: boundMm, boundMm, method: 'formula' };
  }
  const known = findPacking(store, diametersMm);
  const { odMm, circles, method } = known.packing;
  return { fromMm, toMm, elements, diametersMm, circles, odMm, boundMm: known.boundMm, method };
}

/** Packing of these diameters, thickest first, and its bound; looked up first. */
export function findPacking(store: PackingStore, diametersMm: readonly number[]): { packing: Packing; boundMm: number } {
  const key = toKey(diametersMm);
  let known = store.get(key);
  if (!known) {
    if (store.size > MOST_STORED) store.clear();
    known = { packing: packCircles(diametersMm), boundMm: measurePackingBound(diametersMm) };
    store.set(key, known);
  }
  return known;
}

/** Diameters in order, runs of equal ones counted: "1.27 3 1.09 25". */
function toKey(diametersMm: readonly number[]): string {
  let key = '';
  for (let start = 0; start < diametersMm.length;) {
    let end = start + 1;
    while (end < diametersMm.length && diametersMm[end] === diametersMm[start]) end += 1;
    key += `${diametersMm[start]} ${end - start} `;
    start = end;
  }
  return key;
}

/** Single wires and twisted groups, thickest first. A group of two or three is as thick as the round that holds it. */
function listElements(here: readonly Lying[]): { elements: string[][]; diametersMm: number[] } {
  const elements: string[][] = [];
  const diametersMm: number[] = [];
  let groups: Map<string, Lying[]> | null = null;
  for (const lying of here) {
    const { wire, element, groupId } = lying;
    if (groupId === undefined) {
      elements.push(element);
      diametersMm.push(wire.conductor.odMm);
      continue;
    }
    groups ??= new Map();
    const group = groups.get(groupId);
    if (group) group.push(lying);
    else groups.set(groupId, [lying]);
  }
  if (groups === null) return { elements, diametersMm };
  for (const group of groups.values()) {
    elements.push(group.map(({ wire }) => wire.id));
    diametersMm.push(group[0]!.cableMm ?? packCircles(group.map(({ wire }) => wire.conductor.odMm)).odMm);
  }
  const order = elements.map((_, index) => index).sort((a, b) => diametersMm[b]! - diametersMm[a]!);
  return { elements: order.map((index) => elements[index]!), diametersMm: order.map((index) => diametersMm[index]!) };
}
