import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** DR2, check: no size of the covering grips the bundle (or the size pinned by hand does not). */
export const checkCoveringSizes: Rule = (context) =>
  context.plan.coverings.flatMap((covering): Finding[] => {
    if (covering.problem !== 'no-size') return [];
    const { segmentId, kind, itemId, itemName, alsoFits } = covering;
    const { odMm } = context.plan.bundles.find((bundle) => bundle.segmentId === segmentId)!;
    const { nearNodeId, farNodeId } = context.plan.tree.segments[segmentId]!;
    const run = `${context.loom.nodes[nearNodeId]!.name} to ${context.loom.nodes[farNodeId]!.name}`;
    const pin = context.loom.segments[segmentId]!.coveringPin;
    const base = `/looms/${context.loomId}/segments/${segmentId}`;
    return [
      createFinding(
        context,
        'DR2',
        [{ kind: 'segment', id: segmentId }],
        itemId === null
          ? `No ${kind} in the catalogue fits ${odMm.toFixed(1)} mm from ${run}.`
          : `${itemName} does not fit ${odMm.toFixed(1)} mm from ${run}.`,
        {
          measured: odMm,
          fix:
            pin?.itemId && alsoFits[0]
              ? { label: `Use ${alsoFits[0]} instead`, patch: [{ op: 'replace', path: `${base}/coveringPin/itemId`, value: alsoFits[0] }] }
              : null,
        },
      ),
    ];
  });
