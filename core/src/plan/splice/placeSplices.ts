import { pushTo } from '../../units';
import type { UnroutedWires } from '../route/listUnroutedWires';
import type { PlannedSplice } from '../types';
import { measureSplicePlace, type SpliceContext, type TakenPlace } from './measureSplicePlace';

const STEP_MM = 5;
/** what a place counts as, where there is none other, from which the link to the next splice doubles back, mm of room */
const DOUBLED_BACK = -1000;

type Junction = UnroutedWires['splices'][number];
type Taken = ReadonlyMap<string, readonly TakenPlace[]>;
interface FoundPlace {
  place: PlannedSplice['place'];
  /** that it leaves, mm */
  room: number;
}

/** What splices are placed by. */
export interface PlacingContext extends SpliceContext {
  /** wires that lie in each segment, for the fatter side */
  wiresIn: ReadonlyMap<string, number>;
  /** half of the longest barrel that a circuit may need, mm: sizes are not known yet */
  toHalfMm: (circuitId: string) => number;
  /** splices of the plan that the wires were cut by; they stay as far from their junctions, for wires that are cut do not move their joints */
  kept: readonly PlannedSplice[];
}

/**
 * Move each splice off its junction, along the fatter side, to the nearest place that keeps every distance of the
 * shop standard: from breakouts, from connectors, from other splices, never in a moving run. Where there is none, the place
 * with the most room is taken and marked not clear. A place pinned by hand stays.
 */
export function placeSplices(context: PlacingContext, splices: readonly Junction[]): PlannedSplice[] {
  const { loom, toHalfMm } = context;
  const placed = new Map<string, PlannedSplice>();
  const taken = new Map<string, TakenPlace[]>();
  const put = (splice: Junction, { place, room }: FoundPlace, pinned: boolean) => {
    pushTo(taken, place.segmentId, { offsetMm: place.offsetMm, halfMm: toHalfMm(splice.circuitId) });
    placed.set(splice.id, toPlanned(context, splice, place, { pinned, clear: room >= 0 }));
  };
  const isPinned = ({ id }: Junction) => Object.hasOwn(loom.splicePins, id);
  for (const splice of splices.filter(isPinned)) put(splice, findPinned(context, splice, taken), true);
  const before = new Map(context.kept.map((splice) => [splice.id, splice]));
  for (const splice of orderChains(splices.filter((one) => !isPinned(one)))) {
    const after = splice.afterId === null ? undefined : placed.get(splice.afterId);
    const found = findKept(context, splice, before.get(splice.id), taken) ?? findPlace(context, splice, after, taken);
    put(splice, found, false);
  }
  const inOrder = [...placed.values()].sort((a, b) => a.distanceMm - b.distanceMm || (a.id < b.id ? -1 : 1));
  return inOrder.map((splice, index) => ({ ...splice, label: `S${index + 1}` }));
}

function toPlanned(
  { tree }: PlacingContext,
  { id, circuitId, nodeId }: Junction,
  place: PlannedSplice['place'],
  state: Pick<PlannedSplice, 'pinned' | 'clear'>,
): PlannedSplice {
  const { nearNodeId, lengthMm, startMm } = tree.segments[place.segmentId]!;
  const awayMm = nearNodeId === nodeId ? place.offsetMm : lengthMm - place.offsetMm;
  return { id, label: '', circuitId, nodeId, place, awayMm, ...state, distanceMm: startMm + place.offsetMm };
}

function findPinned(context: PlacingContext, { id, circuitId }: Junction, taken: Taken): FoundPlace {
  const { segmentId, offsetMm: wantedMm } = context.loom.splicePins[id]!;
  const offsetMm = Math.min(wantedMm, context.tree.segments[segmentId]!.lengthMm);
  return toFound(context, segmentId, { offsetMm, halfMm: context.toHalfMm(circuitId) }, taken);
}

function findKept(
  context: PlacingContext,
  { circuitId, nodeId }: Junction,
  known: PlannedSplice | undefined,
  taken: Taken,
): FoundPlace | null {
  const at = known && context.tree.segments[known.place.segmentId];
  if (!at) return null;
  const awayMm = Math.min(known.awayMm, at.lengthMm);
  const offsetMm = at.nearNodeId === nodeId ? awayMm : at.lengthMm - awayMm;
  return toFound(context, at.id, { offsetMm, halfMm: context.toHalfMm(circuitId) }, taken);
}

const toFound = (context: PlacingContext, segmentId: string, place: TakenPlace, taken: Taken): FoundPlace => ({
  place: { segmentId, offsetMm: place.offsetMm },
  room: measureSplicePlace(context, segmentId, place, taken.get(segmentId) ?? []),
});

/** Splices of one junction from the branches towards the source, each junction where it stood. */
function orderChains(splices: readonly Junction[]): Junction[] {
  const next = new Map(splices.flatMap((splice) => (splice.afterId === null ? [] : [[splice.afterId, splice] as const])));
  const ids = new Set(splices.map(({ id }) => id));
  return splices
    .filter(({ afterId }) => afterId === null || !ids.has(afterId))
    .flatMap((first) => {
      const chain = [first];
      for (let at = next.get(first.id); at; at = next.get(at.id)) chain.push(at);
      return chain;
    });
}

/** after: the splice of the same junction before it. */
function findPlace(context: PlacingContext, splice: Junction, after: PlannedSplice | undefined, taken: Taken): FoundPlace {
  const { tree, wiresIn } = context;
  const halfMm = context.toHalfMm(splice.circuitId);
  // the link between two splices of one junction goes on towards the source and does not double back
  const leadsOn = (segmentId: string, awayMm: number) => {
    if (!after) return true;
    if (segmentId !== after.place.segmentId) return segmentId === splice.sourceSegmentId;
    return segmentId === splice.sourceSegmentId ? awayMm > after.awayMm : awayMm < after.awayMm;
  };
  const fattestFirst = [...splice.segmentIds].sort((a, b) => (wiresIn.get(b) ?? 0) - (wiresIn.get(a) ?? 0));
  let best: { segmentId: string; offsetMm: number; room: number } | null = null;
  for (const segmentId of fattestFirst) {
    const { lengthMm, nearNodeId } = tree.segments[segmentId]!;
    const isFromNear = nearNodeId === splice.nodeId;
    const others = taken.get(segmentId) ?? [];
    for (let awayMm = Math.min(STEP_MM, lengthMm / 2); awayMm < lengthMm; awayMm += STEP_MM) {
      const offsetMm = isFromNear ? awayMm : lengthMm - awayMm;
      const kept = measureSplicePlace(context, segmentId, { offsetMm, halfMm }, others);
      const room = leadsOn(segmentId, awayMm) ? kept : Math.min(kept, DOUBLED_BACK);
      if (room >= 0) return { place: { segmentId, offsetMm }, room };
      if (best === null) best = { segmentId, offsetMm, room };
      else if (room > best.room) [best.segmentId, best.offsetMm, best.room] = [segmentId, offsetMm, room];
    }
  }
  if (best === null) throw new Error(`splice ${splice.id}: expected a segment beside it, got none`);
  const { segmentId, offsetMm, room } = best;
  return { place: { segmentId, offsetMm }, room };
}
