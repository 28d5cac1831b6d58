import { listSlid, type DressPiece, type Parking } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

/** DR4, check: what slides on has no room to stand back while the end, or those beyond the breakout, are made. */
export const checkParking: Rule = (context) => {
  const { plan, loom } = context;
  const toLine = ({ needMm, roomMm, pieces }: { needMm: number; roomMm: number; pieces: readonly { name: string; lengthMm: number }[] }) =>
    `${pieces.map(({ name, lengthMm }) => `${name} ${Math.ceil(lengthMm)} mm`).join(', ')}: ${Math.ceil(needMm)} mm, there are ${Math.floor(roomMm)}`;
  return [
    ...plan.endDress.flatMap(({ endId, segmentId, pieces, parking }): Finding[] =>
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
              { measured: parking.needMm, fix: toBareEnd(context, endId, pieces, parking) },
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
              {
                measured: parking.needMm,
                fix: {
                  label: `Nothing over ${loom.nodes[nodeId]!.name}`.slice(0, 120),
                  patch: [{ op: 'replace', path: `/looms/${context.loomId}/nodes/${nodeId}/transitionPin`, value: NO_ROOM }],
                },
              },
            ),
          ],
    ),
  ];
};

const NO_ROOM = { itemId: null, reason: 'no room to stand back while ends are made' };

/** Without its boot what is left may stand back; null: it has none, or the rest has no room either. */
function toBareEnd({ loom, loomId }: RuleContext, endId: string, pieces: readonly DressPiece[], parking: Parking): Finding['fix'] {
  const slid = listSlid(pieces).reduce((sum, { cutMm }) => sum + cutMm, 0);
  if (slid === 0 || parking.needMm - slid > parking.roomMm) return null;
  const label = `Nothing over the rear of ${loom.ends[endId]!.name}`.slice(0, 120);
  return { label, patch: [{ op: 'replace', path: `/looms/${loomId}/ends/${endId}/bootPin`, value: NO_ROOM }] };
}
