import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** DR1, stop: a closed sleeve is planned on after the ends beyond it are closed, and does not pass them. */
export const checkSlideOn: Rule = (context) =>
  context.plan.coverings
    .filter(({ problem }) => problem === 'cannot-pass')
    .map(({ segmentId, itemName, mustPassMm }) => {
      const { nearNodeId, farNodeId } = context.plan.tree.segments[segmentId]!;
      return createFinding(
        context,
        'DR1',
        'stop',
        [{ kind: 'segment', id: segmentId }],
        `The sleeve from ${context.loom.nodes[nearNodeId]!.name} to ${context.loom.nodes[farNodeId]!.name} (${itemName}) is planned after its end is closed and cannot pass ${mustPassMm.toFixed(0)} mm.`,
        {
          measured: mustPassMm,
          fix: {
            label: 'Slide it on before the end is closed',
            patch: [{ op: 'replace', path: `/looms/${context.loomId}/segments/${segmentId}/slideOn`, value: 'before-ends' }],
          },
        },
      );
    });
