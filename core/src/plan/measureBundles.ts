import type { ShopStandard } from '../catalogue';
import type { Loom } from '../model';
import { compareIds } from '../units';
import { measurePackingBound, packCircles } from './packCircles';
import type { Packing, Piece, PlannedBundle, Section, SizedWire, Tree } from './types';

/** Packings found so far, by the diameters in them. Only ever a shortcut: the same diameters always pack the same way. */
export type PackingStore = Map<string, { packing: Packing; boundMm: number }>;

const MOST_STORED = 20_000;

interface Lying {
  wire: SizedWire;
  piece: Piece;
}

/** What lies in each segment and how thick it is, section by section between splices. Laid straight and tied. */
export function measureBundles(
  loom: Loom,
  tree: Tree,
  wires: readonly SizedWire[],
  standard: ShopStandard,
  store: PackingStore,
): PlannedBundle[] {
  const lying = new Map<string, Lying[]>(Object.keys(tree.segments).map((id) => [id, []]));
  const thickestFirst = [...wires].sort((a, b) => b.conductor.odMm - a.conductor.odMm);
  for (const wire of thickestFirst) for (const piece of wire.pieces) lying.get(piece.segmentId)!.push({ wire, piece });
  return [...lying.keys()]
    .sort(compareIds)
    .map((segmentId) => measureBundle(loom, tree, segmentId, lying.get(segmentId)!, standard, store));
}

function measureBundle(
  loom: Loom,
  tree: Tree,
  segmentId: string,
  here: readonly Lying[],
  standard: ShopStandard,
  store: PackingStore,
): PlannedBundle {
  const { lengthMm } = tree.segments[segmentId]!;
  const cuts = new Set([0, lengthMm]);
  let copper = 0;
  let heavy = false;
  for (const { wire, piece } of here) {
    cuts.add(piece.fromMm).add(piece.toMm);
    copper += wire.conductor.massGPerM * (piece.toMm - piece.fromMm);
    heavy ||= wire.conductor.areaMm2 >= 4;
  }
  const at = [...cuts].sort((a, b) => a - b);
  const sections = at.slice(1).map((toMm, index) => {
    const fromMm = at[index]!;
    const inside = at.length === 2 ? here : here.filter(({ piece }) => piece.fromMm <= fromMm + 1e-9 && piece.toMm >= toMm - 1e-9);
    return measureSection(loom, inside, fromMm, toMm, store);
  });
  const odMm = sections.reduce((most, section) => Math.max(most, section.odMm), 0);
  return {
    segmentId,
    odMm,
    sections,
    massGPerM: copper / lengthMm,
    insideBendMm: (heavy ? standard.bendFactorHeavy : standard.bendFactor) * odMm,
  };
}

function measureSection(loom: Loom, here: readonly Lying[], fromMm: number, toMm: number, store: PackingStore): Section {
  const { elements, diametersMm } = listElements(loom, here);
  const key = diametersMm.join(' ');
  let known = store.get(key);
  if (!known) {
    if (store.size > MOST_STORED) store.clear();
    known = { packing: packCircles(diametersMm), boundMm: measurePackingBound(diametersMm) };
    store.set(key, known);
  }
  const { odMm, circles, method } = known.packing;
  return { fromMm, toMm, elements, circles, odMm, boundMm: known.boundMm, method };
}

/** Single wires and twisted groups, thickest first. A group of two or three is as thick as the round that holds it. */
function listElements(loom: Loom, here: readonly Lying[]): { elements: string[][]; diametersMm: number[] } {
  const elements: string[][] = [];
  const diametersMm: number[] = [];
  const groups = new Map<string, SizedWire[]>();
  for (const { wire } of here) {
    const groupId = loom.circuits[wire.circuitId]!.twist?.groupId;
    if (groupId !== undefined) groups.set(groupId, [...(groups.get(groupId) ?? []), wire]);
    else {
      elements.push([wire.id]);
      diametersMm.push(wire.conductor.odMm);
    }
  }
  if (groups.size === 0) return { elements, diametersMm };
  for (const group of groups.values()) {
    elements.push(group.map(({ id }) => id));
    diametersMm.push(packCircles(group.map((wire) => wire.conductor.odMm)).odMm);
  }
  const order = elements.map((_, index) => index).sort((a, b) => diametersMm[b]! - diametersMm[a]!);
  return { elements: order.map((index) => elements[index]!), diametersMm: order.map((index) => diametersMm[index]!) };
}
