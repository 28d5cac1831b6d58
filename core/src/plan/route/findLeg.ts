import type { Tree } from '../types';

/** The run by which the wires of an end leave it: the one that leads to it, at the datum the first that goes on; null: there is none. */
export function findLeg(tree: Tree, nodeId: string): string | null {
  const { parentSegmentId, childSegmentIds } = tree.nodes[nodeId]!;
  return parentSegmentId ?? childSegmentIds[0] ?? null;
}

/** Nodes beyond some runs of a loom, as far as it goes. */
export function listNodesBeyond(tree: Tree, segmentIds: readonly string[]): Set<string> {
  const nodes = new Set<string>();
  const open = [...segmentIds];
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    const { farNodeId } = tree.segments[id]!;
    nodes.add(farNodeId);
    open.push(...tree.nodes[farNodeId]!.childSegmentIds);
  }
  return nodes;
}
