import type { WireRun, Place, Tree } from '../types';

const climbs = new WeakMap<Tree, Map<string, readonly WireRun[]>>();

/**
 * The unique way along the tree between two places, as pieces of segments in order from a to b.
 * Pieces are given from near to far (fromMm < toMm) whatever the direction of travel; none where a and b are one place.
 */
export function listWireRuns(tree: Tree, a: Place, b: Place): WireRun[] {
  const upA = listClimb(tree, a);
  const upB = listClimb(tree, b);
  let left = upA.length;
  let right = upB.length;
  // both climbs end at the datum: what they share at that end is not on the way
  while (left > 0 && right > 0 && upA[left - 1]!.segmentId === upB[right - 1]!.segmentId && upA[left - 1]!.toMm === upB[right - 1]!.toMm) {
    left -= 1;
    right -= 1;
  }
  const lastA = upA[left - 1];
  const lastB = upB[right - 1];
  const pieces: WireRun[] = [];
  if (lastA && lastB && lastA.segmentId === lastB.segmentId) {
    for (let index = 0; index < left - 1; index += 1) pieces.push(upA[index]!);
    pieces.push({ segmentId: lastA.segmentId, fromMm: Math.min(lastA.toMm, lastB.toMm), toMm: Math.max(lastA.toMm, lastB.toMm) });
    for (let index = right - 2; index >= 0; index -= 1) pieces.push(upB[index]!);
    return pieces;
  }
  for (let index = 0; index < left; index += 1) pieces.push(upA[index]!);
  for (let index = right - 1; index >= 0; index -= 1) pieces.push(upB[index]!);
  return pieces;
}

/** Pieces from a place to the datum. Those of a node are made once for a tree and shared. */
function listClimb(tree: Tree, place: Place): readonly WireRun[] {
  if ('nodeId' in place) return climbNode(tree, place.nodeId);
  const { nearNodeId } = tree.segments[place.segmentId]!;
  return [{ segmentId: place.segmentId, fromMm: 0, toMm: place.offsetMm }, ...climbNode(tree, nearNodeId)];
}

function climbNode(tree: Tree, nodeId: string): readonly WireRun[] {
  let known = climbs.get(tree);
  if (!known) climbs.set(tree, (known = new Map()));
  const made = known.get(nodeId);
  if (made) return made;
  const pieces: WireRun[] = [];
  for (let node = tree.nodes[nodeId]!; node.parentSegmentId !== null; node = tree.nodes[node.parentNodeId!]!) {
    pieces.push({ segmentId: node.parentSegmentId, fromMm: 0, toMm: tree.segments[node.parentSegmentId]!.lengthMm });
  }
  known.set(nodeId, pieces);
  return pieces;
}
