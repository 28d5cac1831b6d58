import { findFamily } from '../../catalogue';
import type { PlannedFeed } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, Rule, RuleContext } from '../types';

/** RO1, stop: a bundle does not pass a hole on the way, or no order leads all that has to go through it; note: nobody knows whether rings do. */
export const checkHoles: Rule = (context) =>
  context.plan.feeds.flatMap((feed) => [...checkBundle(context, feed), ...checkOrder(context, feed), ...checkUnknown(context, feed)]);

function checkBundle(context: RuleContext, { nodeId, boreMm, besideMm, wholeMm }: PlannedFeed): Finding[] {
  if (wholeMm + besideMm <= boreMm) return [];
  return [
    createFinding(
      context,
      'RO1',
      [toHole(nodeId)],
      `The bundle is ${wholeMm.toFixed(1)} mm over its covering and does not pass ${context.loom.nodes[nodeId]!.name} (${boreMm} mm${besideMm > 0 ? `, ${besideMm.toFixed(1)} of it taken by other looms` : ''}).`,
      { measured: wholeMm, limit: boreMm - besideMm },
    ),
  ];
}

function checkOrder(context: RuleContext, feed: PlannedFeed): Finding[] {
  const { loom, loomId } = context;
  const { nodeId, boreMm, leaveMm, wholeMm, offIds, leastBoreMm } = feed;
  if (offIds.length === 0) return [];
  const late = feed.pieces.filter(({ id }) => offIds.includes(id));
  const words = late.map((one) => `${loom.ends[one.id]!.name} (${toWhat(context, one.id)}, ${one.envelopeMm.toFixed(1)} mm)`);
  const isPinned = wholeMm <= boreMm - leaveMm;
  return [
    createFinding(
      context,
      'RO1',
      [...offIds.map((id): FindingPlace => ({ kind: 'end', id })), toHole(nodeId)],
      `In no order does all of it pass ${loom.nodes[nodeId]!.name} (${boreMm} mm): ${words.join(', ')} ${late.length === 1 ? 'is' : 'are'} left over. Close ${late.length === 1 ? 'it' : 'them'} in the vehicle, or make a hole of ${leastBoreMm} mm.`,
      {
        measured: Math.max(...late.map(({ needMm }) => needMm)),
        limit: boreMm - leaveMm,
        fix: isPinned
          ? {
              label: `Close ${late.map(({ id }) => loom.ends[id]!.name).join(', ')} in the vehicle`.slice(0, 120),
              patch: offIds.map((id) => ({ op: 'replace', path: `/looms/${loomId}/ends/${id}/pinAt`, value: 'vehicle' })),
            }
          : null,
      },
    ),
  ];
}

/** A housing still to be chosen is told by EN6. */
function checkUnknown(context: RuleContext, { nodeId, unknownIds }: PlannedFeed): Finding[] {
  const { loom } = context;
  return unknownIds
    .filter((id) => ['ring', 'blade'].includes(loom.ends[id]!.kind))
    .map((id) =>
      createFinding(
        context,
        'RO1',
        [{ kind: 'end', id }, toHole(nodeId)],
        `Whether ${loom.ends[id]!.name} passes ${loom.nodes[nodeId]!.name} is not known: the shop does not say how wide its ${loom.ends[id]!.kind === 'ring' ? 'rings' : 'blades'} are.`,
        { grade: 'note' },
      ),
    );
}

const toHole = (id: string): FindingPlace => ({ kind: 'node', id });

const toWhat = ({ job, loom, catalogue }: RuleContext, endId: string) =>
  findFamily(job, catalogue, loom.ends[endId]!.familyId)?.name ?? loom.ends[endId]!.kind;
