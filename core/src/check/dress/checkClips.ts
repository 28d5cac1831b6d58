import { findSurroundings } from '../../model';
import { planClips } from '../../plan';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/**
 * DR9, check: a run is to be held, and no clip of the shop holds so thick a bundle, or stands how hot it gets there; or clips chosen by hand lie
 * beyond the run, or too far apart.
 */
export const checkClips: Rule = (context) => {
  const { job, loom, plan, catalogue, standard } = context;
  return planClips(job, plan, catalogue).flatMap((held) => {
    const { segmentId, problem } = held;
    if (problem === null) return [];
    const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const { odOutsideMm } = plan.coverings.find((one) => one.segmentId === segmentId)!;
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC;
    if (problem === 'too-far' && held.free) {
      const { fromMm, toMm, mostMm } = held.free;
      const words = `${run}: clips were put by hand, and it hangs free from ${Math.round(fromMm)} to ${Math.round(toMm)} mm; at most ${Math.round(mostMm)} mm are asked there.`;
      return [createFinding(context, 'DR9', [{ kind: 'segment', id: segmentId }], words, { measured: toMm - fromMm, limit: mostMm })];
    }
    const sentences = {
      'no-size': `No clip of the shop holds ${odOutsideMm.toFixed(1)} mm from ${run}.`,
      'too-hot': `No clip of the shop that holds ${run} stands ${ambientC} °C.`,
      beyond: `A clip that was put on ${run} by hand lies beyond it: the run is ${Math.round(lengthMm)} mm long.`,
    };
    return [
      createFinding(context, 'DR9', [{ kind: 'segment', id: segmentId }], sentences[problem as keyof typeof sentences], {
        measured: odOutsideMm,
      }),
    ];
  });
};
