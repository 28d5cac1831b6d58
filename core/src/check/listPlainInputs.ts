import type { Job, Segment } from '../model';
import type { PlainContext } from './types';

/** All that a PlainRule goes by: the job, the loom and its plan, what is of lengths left out. */
export function listPlainInputs({ job, loom, plan, standard }: PlainContext): unknown[] {
  const inputs: unknown[] = [plan.terminations, plan.plugs, plan.currents, plan.heats, standard];
  for (const [key, value] of Object.entries(job) as [keyof Job, unknown][]) if (key !== 'looms') inputs.push(value);
  for (const [key, value] of Object.entries(loom)) if (key !== 'segments') inputs.push(value);
  for (const [id, segment] of Object.entries(loom.segments)) {
    inputs.push(id);
    for (const key of Object.keys(segment) as (keyof Segment)[]) if (!LENGTHS.has(key)) inputs.push(segment[key]);
  }
  for (const { id, number, labelId, conductor } of plan.wires) inputs.push(id, number, labelId, conductor);
  for (const { segmentId, kind, odOutsideMm } of plan.coverings) inputs.push(segmentId, kind, odOutsideMm);
  for (const { endId, segmentId, leadMm, pieces } of plan.endDress) inputs.push(endId, segmentId, leadMm, pieces);
  // by a length the trunk may go on by another run
  for (const nodeId of plan.tree.nodeIds) inputs.push(nodeId, plan.tree.nodes[nodeId]!.childSegmentIds[0]);
  return inputs;
}

const LENGTHS: ReadonlySet<keyof Segment> = new Set(['lengthMm', 'secondLengthMm', 'fittedMm', 'method', 'status', 'clipsAtMm']);
