import type { PlannedLoom } from '../../client/jobContext';

/** "dash hoop to pedal box". */
export function nameRun({ loom, plan }: PlannedLoom, segmentId: string): string {
  const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
  return `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
}
