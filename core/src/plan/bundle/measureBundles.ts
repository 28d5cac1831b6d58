import type { Catalogue, ShopStandard } from '../../catalogue';
import { findBundling, type Loom } from '../../model';
import { once, type Memo, type Stage } from '../../units';
import { findPacking, type PackingStore } from './findPacking';
import { measurePackingBound, packCircles } from './packCircles';
import type { LyingWires, RoutedLoom } from '../route/routeLoom';
import type { WireRun, PlannedBundle, Section, SizedWire, Tree } from '../types';

/** A bundle, and the places in the list of wires of what lies in each of its sections. */
export interface LaidBundle {
  /** loom, segment, and whether it is drafted or built: what is remembered of it goes by that */
  id: string;
  bundle: PlannedBundle;
  occupants: readonly (readonly number[])[];
  /** stands for what lies in its sections and how thick they are: the same object as long as that is the same, however long they are */
  content: object;
}

interface Lying {
  wire: SizedWire;
  /** its place in the list of wires */
  place: number;
  piece: WireRun;
  element: string[];
  groupId: string | undefined;
  /** of the cable it lies in; null: in none */
  cableMm: number | null;
  isScreen: boolean;
}

/** What bundles are laid from. */
export interface BundleContext {
  loom: Loom;
  routed: Pick<RoutedLoom, 'loomId' | 'tree' | 'wiresBySection'>;
  wires: readonly SizedWire[];
  catalogue: Catalogue;
  standard: ShopStandard;
  /** not packed: the least diameter there could be, for the rounds in which sizes are still chosen (thinner is warmer: the safe side) */
  isDraft: boolean;
  store: { memo: Memo; packings: PackingStore };
}

interface SegmentContext {
  of: BundleContext;
  id: string;
  segmentId: string;
  lying: LyingWires;
  cables: () => ReadonlyMap<string, Catalogue['cables'][number]>;
}

const LAY: Stage<SegmentContext, LaidBundle> = {
  name: 'lay',
  keep: 8,
  inputs: ({ of: { catalogue, loom, wires, standard }, segmentId, lying }) => {
    const inputs: unknown[] = [catalogue, loom.circuits, lying, findBundling(loom, segmentId, standard) === 'straight'];
    for (const place of lying.places) inputs.push(wires[place]!.conductor);
    return inputs;
  },
  run: (context) => {
    const { id, segmentId, lying } = context;
    const { routed, isDraft, store, wires } = context.of;
    const thickestFirst = lying.places.map((_, at) => toLying(context, at)).sort((a, b) => b.wire.conductor.odMm - a.wire.conductor.odMm);
    const measured = measureBundle(routed.tree, segmentId, thickestFirst, isDraft ? null : store.packings);
    return { id, ...measured, content: store.memo(CONTENT, id, { ...measured, wires }) };
  },
};

const CONTENT: Stage<Pick<LaidBundle, 'bundle' | 'occupants'> & { wires: readonly SizedWire[] }, object> = {
  name: 'content',
  keep: 8,
  inputs: ({ bundle, occupants, wires }) => {
    const inputs: unknown[] = [bundle.odMm];
    bundle.sections.forEach(({ odMm }, index) => {
      inputs.push(odMm, occupants[index]!.length);
      for (const place of occupants[index]!) inputs.push(place, wires[place]!.conductor);
    });
    return inputs;
  },
  run: () => ({}),
};

/** What lies in each segment and how thick it is, section by section between splices, as if laid straight and tied: pairs twisted, unless all is to lie straight. */
export function measureBundles(context: BundleContext): LaidBundle[] {
  const { routed, catalogue, isDraft, store } = context;
  const cables = once(() => new Map(catalogue.cables.map((item) => [item.id, item])));
  return [...routed.wiresBySection].map(([segmentId, lying]) => {
    const id = `${isDraft ? 'draft' : 'built'} ${routed.loomId} ${segmentId}`;
    return store.memo(LAY, id, { of: context, id, segmentId, lying, cables });
  });
}

function toLying(
  { of: { loom, wires, standard }, segmentId, lying: { places, pieces, elements }, cables }: SegmentContext,
  at: number,
): Lying {
  const place = places[at]!;
  const wire = wires[place]!;
  const { cable, twist, kind } = loom.circuits[wire.circuitId]!;
  // a cable is as thick as it is bought, whatever lies in it
  const bought = cable ? cables().get(cable.itemId) : undefined;
  const isScreen = kind === 'screen' || bought?.screened === true;
  const isTwisted = twist !== null && findBundling(loom, segmentId, standard) !== 'straight';
  const groupId = cable ? `cable ${cable.groupId}` : isTwisted ? twist.groupId : undefined;
  return { wire, place, piece: pieces[at]!, element: elements[at]!, groupId, cableMm: bought?.odMm ?? null, isScreen };
}

function measureBundle(
  tree: Tree,
  segmentId: string,
  here: readonly Lying[],
  store: PackingStore | null,
): Pick<LaidBundle, 'bundle' | 'occupants'> {
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
