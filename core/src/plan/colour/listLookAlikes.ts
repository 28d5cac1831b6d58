import type { ShopStandard } from '../../catalogue';
import { COLOUR_NAMES, toColourWords, type Colour, type ColourName, type Loom } from '../../model';
import type { LoomPlan, PlannedWire } from '../types';
import { isLookAlike } from './measureColours';

/** Wires that are held beside one another: in one housing, or of ends close to one breakout. */
export interface WireGroup {
  place: { endId: string } | { nodeId: string };
  wires: readonly PlannedWire[];
  /** a wire thinner by more than this share is told apart by its size */
  sizeApartShare: number;
}

/** Circuits of which wires are held beside one another and have to be told apart by their look. */
export interface NeighbourCircuits {
  /** by circuit id */
  neighbours: ReadonlyMap<string, ReadonlySet<string>>;
  groups: readonly WireGroup[];
}

/** Wires by where they are held beside one another (craft A6): every end, and every breakout with the ends within reach of it. */
export function listWireGroups(
  loom: Loom,
  plan: LoomPlan,
  { colourReachMm, sizeApartShare }: Pick<ShopStandard, 'colourReachMm' | 'sizeApartShare'>,
): WireGroup[] {
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const byEnd = new Map<string, PlannedWire[]>();
  for (const { endId, wireIds } of plan.terminations) {
    const here = byEnd.get(endId);
    const more = wireIds.map((id) => wires.get(id)!);
    if (here) here.push(...more);
    else byEnd.set(endId, more);
  }
  const ends = [...byEnd].map(([endId, here]): WireGroup => ({ place: { endId }, wires: here, sizeApartShare }));
  const breakouts = plan.tree.nodeIds.flatMap((nodeId): WireGroup[] => {
    const { childSegmentIds, distanceMm } = plan.tree.nodes[nodeId]!;
    if (childSegmentIds.length < 2) return [];
    const near = [...byEnd].filter(([endId]) => {
      const node = plan.tree.nodes[loom.ends[endId]!.nodeId]!;
      return (
        node.parentSegmentId !== null && isOnLegOf(plan, nodeId, node.parentSegmentId) && node.distanceMm - distanceMm <= colourReachMm
      );
    });
    return near.length < 2 ? [] : [{ place: { nodeId }, wires: near.flatMap(([, here]) => here), sizeApartShare }];
  });
  return [...ends, ...breakouts];
}

/** Does this run hang on that breakout with no other between? */
const isOnLegOf = ({ tree }: LoomPlan, nodeId: string, segmentId: string) => tree.segments[segmentId]!.nearNodeId === nodeId;

export function listNeighbours(groups: readonly WireGroup[]): NeighbourCircuits {
  const neighbours = new Map<string, Set<string>>();
  for (const { wires, sizeApartShare } of groups)
    for (const [at, one] of wires.entries())
      for (const other of wires.slice(at + 1)) {
        if (one.circuitId === other.circuitId || !isOneSize(one, other, sizeApartShare)) continue;
        put(neighbours, one.circuitId, other.circuitId);
        put(neighbours, other.circuitId, one.circuitId);
      }
  return { neighbours, groups };
}

const isOneSize = ({ conductor: { odMm: a } }: PlannedWire, { conductor: { odMm: b } }: PlannedWire, share: number) =>
  Math.abs(a - b) <= share * Math.max(a, b);

function put(map: Map<string, Set<string>>, key: string, value: string): void {
  const known = map.get(key);
  if (known) known.add(value);
  else map.set(key, new Set([value]));
}

/** Wires of a group of which one is taken for another, with their looks; wires of one circuit are alike for good reason. */
export function listLookAlikes({ wires, sizeApartShare }: WireGroup, standard: ShopStandard): { numbers: string[]; looks: string[] }[] {
  const isAlike = createAlikeAt(standard);
  // a large housing has thousands of pairs: the place of each look is found once
  const placed = wires.map((wire): PlacedWire => ({ wire, place: toPlace(wire.colour) }));
  const near = (a: PlacedWire, b: PlacedWire) =>
    a.wire.circuitId !== b.wire.circuitId &&
    isAlike(a.wire.colour, a.place, b.wire.colour, b.place) &&
    isOneSize(a.wire, b.wire, sizeApartShare);
  const left = new Set(placed);
  const found: { numbers: string[]; looks: string[] }[] = [];
  for (const first of placed) {
    if (!left.delete(first)) continue;
    const alike = [first];
    for (const one of alike)
      for (const other of left)
        if (near(one, other)) {
          left.delete(other);
          alike.push(other);
        }
    if (alike.length > 1)
      found.push({
        numbers: [...new Set(alike.map(({ wire }) => wire.number))],
        looks: [...new Set(alike.map(({ wire }) => toColourWords(wire.colour)))],
      });
  }
  return found.filter(({ numbers }) => numbers.length > 1);
}

/** Whether two looks are alike, by their places in COLOUR_NAMES; 0: not asked yet. */
const remembered = new WeakMap<ShopStandard, Uint8Array>();
const PLACES = new Map<ColourName | null, number>([null, ...COLOUR_NAMES].map((name, place) => [name, place]));
const LOOKS = PLACES.size ** 2;
const [YES, NO] = [1, 2];

const toPlace = ({ base, stripe }: Colour) => PLACES.get(base)! * PLACES.size + PLACES.get(stripe)!;

/** isLookAlike, remembered: a shop has few looks and many wires. */
export function createAlike(standard: ShopStandard): (a: Colour, b: Colour) => boolean {
  const isAlike = createAlikeAt(standard);
  return (a, b) => isAlike(a, toPlace(a), b, toPlace(b));
}

interface PlacedWire {
  wire: PlannedWire;
  place: number;
}

/** The same for those who know the place of each look. */
function createAlikeAt(standard: ShopStandard): (a: Colour, placeA: number, b: Colour, placeB: number) => boolean {
  let known = remembered.get(standard);
  if (!known) remembered.set(standard, (known = new Uint8Array(LOOKS ** 2)));
  const table = known;
  return (a, placeA, b, placeB) => {
    // rings make too many looks for a table
    if (a.bands.length > 0 || b.bands.length > 0) return isLookAlike(a, b, standard);
    const at = placeA * LOOKS + placeB;
    if (table[at] === 0) table[at] = isLookAlike(a, b, standard) ? YES : NO;
    return table[at] === YES;
  };
}
