import { measureSegment } from '../../plan';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** SC3, check: two readings of one run differ by more than twice the spread of one. */
export const checkReadings: Rule = (context) => {
  const { loom, standard } = context;
  return Object.keys(loom.segments)
    .sort(compareIds)
    .flatMap((id) => {
      const segment = loom.segments[id]!;
      if (segment.secondLengthMm === null) return [];
      const apart = Math.abs(segment.lengthMm - segment.secondLengthMm);
      const limit = 2 * measureSegment({ ...segment, secondLengthMm: null }, standard).sigmaMm;
      if (apart <= limit) return [];
      const run = `${loom.nodes[segment.fromNodeId]!.name} to ${loom.nodes[segment.toNodeId]!.name}`;
      return [
        createFinding(
          context,
          'SC3',
          [{ kind: 'segment', id }],
          `Two readings of ${run}, ${segment.lengthMm} and ${segment.secondLengthMm} mm, are further apart than ${limit.toFixed(0)} mm: read it again.`,
          { measured: apart, limit },
        ),
      ];
    });
};
