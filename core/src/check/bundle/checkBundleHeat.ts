import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** BU3, check: in its worst mode the middle of a bundle comes too near to what its insulation stands, or runs away. */
export const checkBundleHeat: Rule = (context) =>
  context.plan.heats.flatMap(({ segmentId, middleC, limitC, ambientC, wattsPerM, modeId }): Finding[] => {
    if (limitC === null || wattsPerM === 0) return [];
    const limit = limitC - context.standard.heatMarginK;
    if (middleC !== null && middleC <= limit) return [];
    const { nearNodeId, farNodeId } = context.plan.tree.segments[segmentId]!;
    const run = `${context.loom.nodes[nearNodeId]!.name} to ${context.loom.nodes[farNodeId]!.name}`;
    const mode = modeId === null ? 'its worst mode' : `"${context.job.modes[modeId]!.name}"`;
    return [
      createFinding(
        context,
        'BU3',
        [{ kind: 'segment', id: segmentId }],
        middleC === null
          ? `${run} would heat up without end in ${mode}, at ${ambientC} °C.`
          : `The middle of ${run} reaches ${middleC.toFixed(0)} °C in ${mode}, ${ambientC} °C around it; the shop keeps ${limit} °C, ${context.standard.heatMarginK} below the insulation.`,
        { measured: middleC, limit },
      ),
    ];
  });
