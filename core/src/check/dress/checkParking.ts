import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** DR4, check: what slides on has no room to stand back while the end, or those beyond the breakout, are made. */
export const checkParking: Rule = (context) => {
  const { plan, loom } = context;
  const toLine = ({ needMm, roomMm, pieces }: { needMm: number; roomMm: number; pieces: readonly { name: string; lengthMm: number }[] }) =>
    `${pieces.map(({ name, lengthMm }) => `${name} ${Math.ceil(lengthMm)} mm`).join(', ')}: ${Math.ceil(needMm)} mm, there are ${Math.floor(roomMm)}`;
  return [
    ...plan.endDress.flatMap(({ endId, segmentId, parking }): Finding[] =>
      parking.fits
        ? []
        : [
            createFinding(
              context,
              'DR4',
              [
                { kind: 'end', id: endId },
                { kind: 'segment', id: segmentId },
              ],
              `Nothing can stand back while ${loom.ends[endId]!.name} is made (${toLine(parking)} with room to strip). Leave a piece out, or make the leg longer.`,
              { measured: parking.needMm },
            ),
          ],
    ),
    ...plan.breakoutDress.flatMap(({ nodeId, trunkSegmentId, parking }): Finding[] =>
      parking === null || parking.fits
        ? []
        : [
            createFinding(
              context,
              'DR4',
              [{ kind: 'segment', id: trunkSegmentId }],
              `What goes over ${loom.nodes[nodeId]!.name} cannot stand back on the run before (${toLine(parking)}).`,
              { measured: parking.needMm },
            ),
          ],
    ),
  ];
};
