import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** DR1, stop: a closed sleeve does not pass what it has to: an end that is closed before it, or a splice that lies under it. */
export const checkSlideOn: Rule = (context) =>
  context.plan.coverings
    .filter(({ problem }) => problem === 'cannot-pass')
    .map(({ segmentId, itemName, mustPassMm, kind }) => {
      const isEnd = context.loom.segments[segmentId]!.slideOn === 'after-ends';
      const { nearNodeId, farNodeId } = context.plan.tree.segments[segmentId]!;
      return createFinding(
        context,
        'DR1',
        [{ kind: 'segment', id: segmentId }],
        `The sleeve from ${context.loom.nodes[nearNodeId]!.name} to ${context.loom.nodes[farNodeId]!.name} (${itemName}) ${isEnd ? 'is planned after its end is closed and' : 'lies over a splice and'} cannot pass ${mustPassMm.toFixed(0)} mm.`,
        {
          measured: mustPassMm,
          fix: isEnd
            ? {
                label: 'Slide it on before the end is closed',
                patch: [{ op: 'replace', path: `/looms/${context.loomId}/segments/${segmentId}/slideOn`, value: 'before-ends' }],
              }
            : kind === 'braid'
              ? null
              : {
                  label: 'Take braid there',
                  patch: [
                    {
                      op: 'replace',
                      path: `/looms/${context.loomId}/segments/${segmentId}/coveringPin`,
                      value: { kind: 'braid', itemId: null, reason: 'no sleeve passes the splice under it' },
                    },
                  ],
                },
        },
      );
    });
