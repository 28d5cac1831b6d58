import { findSurroundings } from '../../model';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** DR3, check: adhesive lining where it must be opened later, or none where it is wet. */
export const checkAdhesive: Rule = (context) =>
  context.plan.coverings.flatMap((covering): Finding[] => {
    const segment = context.loom.segments[covering.segmentId]!;
    const zone = findSurroundings(context.job.zones, segment, context.standard.hotTickC);
    if (zone === null || covering.kind === 'none') return [];
    const adhesive = covering.kind === 'adhesive-shrink';
    const sentence =
      adhesive && zone.reopen
        ? `Adhesive lining in ${zone.name}, which must be opened later.`
        : !adhesive && zone.wet && !zone.reopen
          ? `No adhesive lining in ${zone.name}, which is wet.`
          : null;
    if (sentence === null) return [];
    return [
      createFinding(context, 'DR3', [{ kind: 'segment', id: covering.segmentId }], sentence, {
        fix: segment.coveringPin
          ? {
              label: 'Let the zone choose the covering',
              patch: [{ op: 'replace', path: `/looms/${context.loomId}/segments/${covering.segmentId}/coveringPin`, value: null }],
            }
          : null,
      }),
    ];
  });
