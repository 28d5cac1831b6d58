import type { Loom } from '../../../model';
import type { Tree } from '../../../plan';

/**
 * Let a branch leave from another node; it keeps its length and everything beyond. Changes the loom given.
 *
 * @throws RangeError where the node is an end, or lies on the branch itself
 */
export function moveBranch(loom: Loom, tree: Tree, segmentId: string, toNodeId: string): void {
  const { nearNodeId, farNodeId } = tree.segments[segmentId]!;
  if (nearNodeId === toNodeId) return;
  const target = loom.nodes[toNodeId]!;
  if (target.kind === 'end') throw new RangeError(`expected a breakout, a hole or the datum, got the end ${target.name}`);
  for (let at: string | null = toNodeId; at !== null; at = tree.nodes[at]!.parentNodeId)
    if (at === farNodeId) throw new RangeError(`expected a node that is not on the branch itself, got ${target.name}`);
  loom.segments[segmentId] = { ...loom.segments[segmentId]!, fromNodeId: toNodeId, toNodeId: farNodeId };
  const near = loom.nodes[nearNodeId]!;
  if (near.onwardSegmentId === segmentId) loom.nodes[nearNodeId] = { ...near, onwardSegmentId: null };
}
