import type { Anchor, Job } from '../../model';
import type { LoomPlan } from '../types';

/** How many wires of all looms pass an anchor: of those each is held from cutting while it is open. */
export function countPassing(job: Job, looms: readonly Pick<LoomPlan, 'loomId' | 'wires'>[], { nodes }: Pick<Anchor, 'nodes'>): number {
  const at = new Set(nodes.map(({ loomId, nodeId }) => `${loomId} ${nodeId}`));
  let passing = 0;
  for (const { loomId, wires } of looms) {
    const runs = new Set(
      Object.entries(job.looms[loomId]?.segments ?? {}).flatMap(([id, { fromNodeId, toNodeId }]) =>
        at.has(`${loomId} ${fromNodeId}`) || at.has(`${loomId} ${toNodeId}`) ? [id] : [],
      ),
    );
    passing += wires.filter(({ pieces }) => pieces.some(({ segmentId }) => runs.has(segmentId))).length;
  }
  return passing;
}
