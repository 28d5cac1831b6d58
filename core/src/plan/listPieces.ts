import type { Piece, Place, Tree } from './types';

/**
 * The unique way along the tree between two places, as pieces of segments in order from a to b.
 * Pieces are given from near to far (fromMm < toMm) whatever the direction of travel; none where a and b are one place.
 */
export function listPieces(tree: Tree, a: Place, b: Place): Piece[] {
  const upA = listClimb(tree, a);
  const upB = listClimb(tree, b);
  const reachA = new Map(upA.map(({ segmentId, toMm }, index) => [segmentId, { toMm, index }]));
  const meeting = upB.findIndex(({ segmentId }) => reachA.has(segmentId));
  if (meeting < 0) return [...upA, ...upB.reverse()];
  const shared = upB[meeting]!;
  const { toMm, index } = reachA.get(shared.segmentId)!;
  const between: Piece[] =
    Math.abs(toMm - shared.toMm) < 1e-9
      ? []
      : [{ segmentId: shared.segmentId, fromMm: Math.min(toMm, shared.toMm), toMm: Math.max(toMm, shared.toMm) }];
  return [...upA.slice(0, index), ...between, ...upB.slice(0, meeting).reverse()];
}

function listClimb(tree: Tree, place: Place): Piece[] {
  const pieces: Piece[] = [];
  let nodeId: string;
  if ('nodeId' in place) nodeId = place.nodeId;
  else {
    pieces.push({ segmentId: place.segmentId, fromMm: 0, toMm: place.offsetMm });
    nodeId = tree.segments[place.segmentId]!.nearNodeId;
  }
  for (let node = tree.nodes[nodeId]!; node.parentSegmentId !== null; node = tree.nodes[node.parentNodeId!]!) {
    pieces.push({ segmentId: node.parentSegmentId, fromMm: 0, toMm: tree.segments[node.parentSegmentId]!.lengthMm });
  }
  return pieces;
}
