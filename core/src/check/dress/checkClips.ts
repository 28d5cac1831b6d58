import { findSurroundings } from '../../model';
import { planClips } from '../../plan';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** DR9, check: a run is to be held, and no clip of the shop holds so thick a bundle, or stands how hot it gets there. */
export const checkClips: Rule = (context) => {
  const { job, loom, plan, catalogue, standard } = context;
  return planClips(job, plan, catalogue).flatMap(({ segmentId, problem }) => {
    if (problem === null) return [];
    const { nearNodeId, farNodeId } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const { odOutsideMm } = plan.coverings.find((one) => one.segmentId === segmentId)!;
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC;
    const sentence =
      problem === 'no-size'
        ? `No clip of the shop holds ${odOutsideMm.toFixed(1)} mm from ${run}.`
        : `No clip of the shop that holds ${run} stands ${ambientC} °C.`;
    return [createFinding(context, 'DR9', [{ kind: 'segment', id: segmentId }], sentence, { measured: odOutsideMm })];
  });
};
