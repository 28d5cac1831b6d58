import type { ShopStandard } from '../../catalogue';
import { isMoving, type Job, type Loom } from '../../model';
import type { Tree } from '../types';

/** Where splices are placed. */
export interface SpliceContext {
  loom: Loom;
  zones: Job['zones'];
  tree: Tree;
  standard: ShopStandard;
}

/** Where a splice lies in a run, and half of its barrel; mm. */
export interface TakenPlace {
  offsetMm: number;
  halfMm: number;
}

/**
 * Room that a place in a segment leaves beside nodes and the other splices of it, mm, less what it must have; the least of all. Negative:
 * some distance is not kept. All are from the ends of the barrels.
 */
export function measureSplicePlace(
  { loom, zones, tree, standard }: SpliceContext,
  segmentId: string,
  { offsetMm, halfMm }: TakenPlace,
  others: readonly TakenPlace[],
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
