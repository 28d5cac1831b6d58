import type { Job } from '../../../model';
import type { Tree } from '../../../plan';

/**
 * Take an end off a loom: its leg goes with it, every circuit loses its pins there, the inline parts there go, its device is on
 * no loom any more, and nothing mates with it. Changes the job given.
 */
export function removeEnd(job: Job, loomId: string, tree: Tree, endId: string): void {
  const loom = job.looms[loomId]!;
  const isHere = (at: { loomId: string; endId: string } | null) => at !== null && at.loomId === loomId && at.endId === endId;
  for (const device of Object.values(job.devices)) if (isHere(device.at)) device.at = null;
  for (const [id, mate] of Object.entries(job.mates)) if (isHere(mate.a) || isHere(mate.b)) delete job.mates[id];
  for (const [id, part] of Object.entries(job.parts)) if (isHere(part.at)) delete job.parts[id];
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
