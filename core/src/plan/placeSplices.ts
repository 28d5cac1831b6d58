import type { ShopStandard } from '../catalogue';
import { isMoving, type Job, type Loom } from '../model';
import type { Strands } from './listStrands';
import type { PlannedSplice, Tree } from './types';
import { pushTo } from '../units';

const STEP_MM = 5;
/** what a place counts as, where there is none other, from which the link to the next splice doubles back, mm of room */
const DOUBLED_BACK = -1000;

/** Where another splice lies in a run, and half of its barrel; mm. */
export interface TakenPlace {
  offsetMm: number;
  halfMm: number;
}

/**
 * Room that a place leaves beside nodes and the other splices of its segment, mm, less what it must have; the least of all. Negative:
 * some distance is not kept. All are from the ends of the barrels, half of one being halfMm.
 */
export function measureSplicePlace(
  loom: Loom,
  zones: Job['zones'],
  tree: Tree,
  segmentId: string,
  offsetMm: number,
  others: readonly TakenPlace[],
  halfMm: number,
  standard: ShopStandard,
): number {
  const segment = tree.segments[segmentId]!;
  if (isMoving(zones, loom.segments[segmentId]!)) return -Infinity;
  const fromNode = (nodeId: string, distanceMm: number): number => {
    const kind = loom.nodes[nodeId]!.kind;
    const isFork = kind === 'breakout' || kind === 'pass';
    return distanceMm - halfMm - (isFork ? standard.spliceFromBreakoutMm : standard.spliceFromConnectorMm);
  };
  let room = Math.min(fromNode(segment.nearNodeId, offsetMm), fromNode(segment.farNodeId, segment.lengthMm - offsetMm));
  for (const other of others) room = Math.min(room, Math.abs(other.offsetMm - offsetMm) - halfMm - other.halfMm - standard.spliceApartMm);
  return room;
}

/**
 * Move each splice off its junction, along the fatter side, to the nearest place that keeps every distance of the
 * shop standard: from breakouts, from connectors, from other splices, never in a moving run. Where there is none, the place
 * with the most room is taken and marked not clear. A place pinned by hand stays. kept: splices of the plan that the wires
 * were cut by; they stay as far from their junctions, for wires that are cut do not move their joints. toHalfMm: half of the longest barrel
 * that a circuit may need, for sizes are not known yet.
 */
export function placeSplices(
  loom: Loom,
  zones: Job['zones'],
  tree: Tree,
  splices: Strands['splices'],
  wiresIn: ReadonlyMap<string, number>,
  toHalfMm: (circuitId: string) => number,
  standard: ShopStandard,
  kept: readonly PlannedSplice[] = [],
): PlannedSplice[] {
  const placed: PlannedSplice[] = [];
  const byId = new Map<string, PlannedSplice>();
  const taken = new Map<string, TakenPlace[]>();
  const put = (splice: Strands['splices'][number], place: PlannedSplice['place'], pinned: boolean, clear: boolean) => {
    pushTo(taken, place.segmentId, { offsetMm: place.offsetMm, halfMm: toHalfMm(splice.circuitId) });
    const one: PlannedSplice = {
      id: splice.id,
      label: '',
      circuitId: splice.circuitId,
      nodeId: splice.nodeId,
      place,
      awayMm:
        tree.segments[place.segmentId]!.nearNodeId === splice.nodeId
          ? place.offsetMm
          : tree.segments[place.segmentId]!.lengthMm - place.offsetMm,
      pinned,
      clear,
      distanceMm: tree.segments[place.segmentId]!.startMm + place.offsetMm,
    };
    placed.push(one);
    byId.set(one.id, one);
  };
  const isPinned = (id: string) => Object.hasOwn(loom.splicePins, id);
  for (const splice of splices.filter(({ id }) => isPinned(id))) {
    const { segmentId, offsetMm } = loom.splicePins[splice.id]!;
    const offset = Math.min(offsetMm, tree.segments[segmentId]!.lengthMm);
    const room = measureSplicePlace(loom, zones, tree, segmentId, offset, taken.get(segmentId) ?? [], toHalfMm(splice.circuitId), standard);
    put(splice, { segmentId, offsetMm: offset }, true, room >= 0);
  }
  const before = new Map(kept.map((splice) => [splice.id, splice]));
  for (const splice of orderChains(splices.filter(({ id }) => !isPinned(id)))) {
    const known = before.get(splice.id);
    const at = known && tree.segments[known.place.segmentId];
    if (known?.awayMm !== undefined && at) {
      const awayMm = Math.min(known.awayMm, at.lengthMm);
      const offsetMm = at.nearNodeId === splice.nodeId ? awayMm : at.lengthMm - awayMm;
      const room = measureSplicePlace(loom, zones, tree, at.id, offsetMm, taken.get(at.id) ?? [], toHalfMm(splice.circuitId), standard);
      put(splice, { segmentId: at.id, offsetMm }, false, room >= 0);
      continue;
    }
    const after = splice.afterId === null ? undefined : byId.get(splice.afterId);
    const found = findPlace(loom, zones, tree, splice, after, wiresIn, taken, toHalfMm(splice.circuitId), standard);
    put(splice, found.place, false, found.room >= 0);
  }
  placed.sort((a, b) => a.distanceMm - b.distanceMm || (a.id < b.id ? -1 : 1));
  placed.forEach((splice, index) => {
    splice.label = `S${index + 1}`;
  });
  return placed;
}

/** Splices of one junction from the branches towards the source, each junction where it stood. */
function orderChains(splices: Strands['splices']): Strands['splices'] {
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

function findPlace(
  loom: Loom,
  zones: Job['zones'],
  tree: Tree,
  splice: Strands['splices'][number],
  after: PlannedSplice | undefined,
  wiresIn: ReadonlyMap<string, number>,
  taken: ReadonlyMap<string, TakenPlace[]>,
  halfMm: number,
  standard: ShopStandard,
): { place: PlannedSplice['place']; room: number } {
  // the link between two splices of one junction goes on towards the source and does not double back
  const leadsOn = (segmentId: string, away: number) => {
    if (!after) return true;
    if (segmentId !== after.place.segmentId) return segmentId === splice.sourceSegmentId;
    return segmentId === splice.sourceSegmentId ? away > after.awayMm : away < after.awayMm;
  };
  const fattestFirst = [...splice.segmentIds].sort((a, b) => (wiresIn.get(b) ?? 0) - (wiresIn.get(a) ?? 0));
  let best: { segmentId: string; offsetMm: number; room: number } | null = null;
  for (const segmentId of fattestFirst) {
    const { lengthMm, nearNodeId } = tree.segments[segmentId]!;
    const fromNear = nearNodeId === splice.nodeId;
    const others = taken.get(segmentId) ?? [];
    for (let away = Math.min(STEP_MM, lengthMm / 2); away < lengthMm; away += STEP_MM) {
      const offsetMm = fromNear ? away : lengthMm - away;
      const kept = measureSplicePlace(loom, zones, tree, segmentId, offsetMm, others, halfMm, standard);
      const room = leadsOn(segmentId, away) ? kept : Math.min(kept, DOUBLED_BACK);
      if (room >= 0) return { place: { segmentId, offsetMm }, room };
      if (best === null) best = { segmentId, offsetMm, room };
      else if (room > best.room) [best.segmentId, best.offsetMm, best.room] = [segmentId, offsetMm, room];
    }
  }
  if (best === null) throw new Error(`splice ${splice.id}: expected a segment beside it, got none`);
  const { segmentId, offsetMm, room } = best;
  return { place: { segmentId, offsetMm }, room };
}
