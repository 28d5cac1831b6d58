import type { Loom } from '../../../model';
import type { Tree } from '../../../plan';

/**
 * Take out a breakout or pass-through that nothing leaves any more: its two segments become one, as long as both.
 * Changes the loom given.
 *
 * @throws RangeError where more (or less) than one segment goes on from it
 */
export function joinSegments(loom: Loom, tree: Tree, nodeId: string): void {
  const { parentSegmentId, childSegmentIds } = tree.nodes[nodeId]!;
  const [childId, ...others] = childSegmentIds;
  if (parentSegmentId === null || childId === undefined || others.length) {
    throw new RangeError(
      `${loom.nodes[nodeId]!.name}: expected one run in and one out, got ${childSegmentIds.length} out: take its branches off first`,
    );
  }
  const parent = loom.segments[parentSegmentId]!;
  const farNodeId = tree.segments[childId]!.farNodeId;
  const nearMm = tree.segments[parentSegmentId]!.lengthMm;
  const child = loom.segments[childId]!;
  const lengthMm = nearMm + tree.segments[childId]!.lengthMm;
  const isFitted = parent.fittedMm !== null && child.fittedMm !== null;
  // what is fitted on one side alone is as good as the other side's reading
  const worse = parent.fittedMm === null ? parent : child;
  loom.segments[parentSegmentId] = {
    ...parent,
    method: worse.method,
    status: isFitted ? 'fitted' : worse.status,
    fittedMm: isFitted ? lengthMm : null,
    fromNodeId: tree.segments[parentSegmentId]!.nearNodeId,
    toNodeId: farNodeId,
    secondLengthMm: null,
    lengthMm,
  };
  for (const [id, pin] of Object.entries(loom.splicePins)) {
    if (pin.segmentId === childId) loom.splicePins[id] = { ...pin, segmentId: parentSegmentId, offsetMm: nearMm + pin.offsetMm };
  }
  for (const [id, node] of Object.entries(loom.nodes)) {
    if (node.onwardSegmentId === childId) loom.nodes[id] = { ...node, onwardSegmentId: id === farNodeId ? parentSegmentId : null };
  }
  delete loom.segments[childId];
  delete loom.nodes[nodeId];
}
