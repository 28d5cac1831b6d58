import type { ShopStandard } from '../../catalogue';
import type { Loom, Segment } from '../../model';
import { compareIds } from '../../units';
import { measurePathSigma, type RunSpread } from '../length/measureRough';
import type { Tree, TreeNode, TreeSegment } from '../types';

/**
 * Route: the tree of a loom seen from its datum, with the distance of every node. Two readings of a run
 * give their mean. Expects a loom whose integrity was checked; throws where it is not a tree.
 */
export function createTree(loom: Loom, standard: ShopStandard): Tree {
  const datumId = Object.keys(loom.nodes).find((id) => loom.nodes[id]!.kind === 'datum');
  if (datumId === undefined) throw new Error('route: expected a datum, got none');
  const at = new Map<string, string[]>(Object.keys(loom.nodes).map((id) => [id, []]));
  for (const id of Object.keys(loom.segments).sort(compareIds)) {
    at.get(loom.segments[id]!.fromNodeId)!.push(id);
    at.get(loom.segments[id]!.toNodeId)!.push(id);
  }
  const nodes: Record<string, TreeNode> = {};
  const segments: Record<string, TreeSegment> = {};
  const nodeIds: string[] = [];
  nodes[datumId] = { id: datumId, distanceMm: 0, parentSegmentId: null, parentNodeId: null, childSegmentIds: [], depth: 0 };
  const queue = [datumId];
  for (let head = 0; head < queue.length; head += 1) {
    const near = nodes[queue[head]!]!;
    nodeIds.push(near.id);
    for (const segmentId of at.get(near.id)!) {
      if (segmentId === near.parentSegmentId) continue;
      const segment = loom.segments[segmentId]!;
      const farNodeId = segment.fromNodeId === near.id ? segment.toNodeId : segment.fromNodeId;
      if (nodes[farNodeId]) throw new Error(`route: expected a tree, got a loop at segment ${segmentId}`);
      const measured = measureSegment(segment, standard);
      const { lengthMm } = measured;
      segments[segmentId] = { id: segmentId, nearNodeId: near.id, farNodeId, ...measured, startMm: near.distanceMm, onward: false };
      near.childSegmentIds.push(segmentId);
      nodes[farNodeId] = {
        id: farNodeId,
        distanceMm: near.distanceMm + lengthMm,
        parentSegmentId: segmentId,
        parentNodeId: near.id,
        childSegmentIds: [],
        depth: near.depth + 1,
      };
      queue.push(farNodeId);
    }
  }
  orderChildren(loom, nodeIds, nodes, segments);
  return { datumId, nodeIds, nodes, segments };
}

/**
 * Length and spread of one run, as fitted (spread 0) or as measured; mm. By method: σ = √(a² + (b · length)²), trade defaults in the
 * shop standard. Of two readings the mean, what each has of its own less by √2 (calculations 1).
 */
export function measureSegment(segment: Segment, standard: ShopStandard): { lengthMm: number; sigmaMm: number; spread: RunSpread } {
  const toResult = (lengthMm: number, ownMm: number, sharedMm: number) => {
    const spread = { method: segment.method, ownMm, sharedMm };
    return { lengthMm, sigmaMm: measurePathSigma([spread]), spread };
  };
  if (segment.fittedMm !== null) return toResult(segment.fittedMm, 0, 0);
  const { aMm, share } = standard.sigma[segment.method];
  if (segment.secondLengthMm === null) return toResult(segment.lengthMm, aMm, share * segment.lengthMm);
  const lengthMm = (segment.lengthMm + segment.secondLengthMm) / 2;
  return toResult(lengthMm, aMm / Math.SQRT2, share * lengthMm);
}

/** By which runs each breakout goes on, in a line: that can change with a length. */
export const listOnward = ({ nodeIds, nodes, segments }: Tree): string =>
  nodeIds.flatMap((id) => nodes[id]!.childSegmentIds.filter((one) => segments[one]!.onward)).join(' ');

function orderChildren(loom: Loom, nodeIds: string[], nodes: Record<string, TreeNode>, segments: Record<string, TreeSegment>): void {
  const reach: Record<string, number> = {};
  for (const nodeId of [...nodeIds].reverse()) {
    const node = nodes[nodeId]!;
    const beyond = (id: string) => segments[id]!.lengthMm + reach[segments[id]!.farNodeId]!;
    reach[nodeId] = node.childSegmentIds.reduce((most, id) => Math.max(most, beyond(id)), 0);
    const chosen = loom.nodes[nodeId]!.onwardSegmentId;
    const onward =
      chosen !== null && node.childSegmentIds.includes(chosen)
        ? chosen
        : node.childSegmentIds.reduce<string | undefined>(
            (best, id) => (best === undefined || beyond(id) > beyond(best) + 1e-9 ? id : best),
            undefined,
          );
    if (onward === undefined) continue;
    segments[onward]!.onward = true;
    node.childSegmentIds = [onward, ...node.childSegmentIds.filter((id) => id !== onward)];
  }
}
