import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** BU3, check: at design currents the middle of a bundle comes too near to what its insulation stands, or runs away. */
export const checkBundleHeat: Rule = (context) =>
  context.plan.heats.flatMap(({ segmentId, middleC, limitC, ambientC, wattsPerM }): Finding[] => {
    if (limitC === null || wattsPerM === 0) return [];
    const limit = limitC - context.standard.heatMarginK;
    if (middleC !== null && middleC <= limit) return [];
    const { nearNodeId, farNodeId } = context.plan.tree.segments[segmentId]!;
    const run = `${context.loom.nodes[nearNodeId]!.name} to ${context.loom.nodes[farNodeId]!.name}`;
    return [
      createFinding(
        context,
        'BU3',
        'check',
        [{ kind: 'segment', id: segmentId }],
        middleC === null
          ? `${run} would heat up without end at its design currents in ${ambientC} °C.`
          : `The middle of ${run} reaches ${middleC.toFixed(0)} °C at its design currents in ${ambientC} °C; the shop keeps ${limit} °C, ${context.standard.heatMarginK} below the insulation.`,
        { measured: middleC, limit },
      ),
    ];
  });
