import type { Loom } from '../model';
import type { Tree } from '../plan';

/** Take an end off: its leg goes with it, and every circuit loses its pins there. Changes the loom given. */
export function removeEnd(loom: Loom, tree: Tree, endId: string): void {
  const { nodeId } = loom.ends[endId]!;
  for (const [id, circuit] of Object.entries(loom.circuits)) {
    if (circuit.terminations.some((one) => one.endId === endId))
      loom.circuits[id] = { ...circuit, terminations: circuit.terminations.filter((one) => one.endId !== endId) };
  }
  delete loom.ends[endId];
  const { parentSegmentId, parentNodeId, childSegmentIds } = tree.nodes[nodeId]!;
  if (parentSegmentId === null || childSegmentIds.length) return;
  const parent = loom.nodes[parentNodeId!]!;
  if (parent.onwardSegmentId === parentSegmentId) loom.nodes[parentNodeId!] = { ...parent, onwardSegmentId: null };
  for (const [id, pin] of Object.entries(loom.splicePins)) if (pin.segmentId === parentSegmentId) delete loom.splicePins[id];
  delete loom.segments[parentSegmentId];
  delete loom.nodes[nodeId];
}
