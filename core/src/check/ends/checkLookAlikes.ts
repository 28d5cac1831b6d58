import { findFamily } from '../../catalogue';
import { listWireRuns } from '../../plan';
import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** EN3, check: two like housings with like keys hang within reach of each other and could be swapped. Reach: from breakout to each end. */
export const checkLookAlikes: Rule = (context) => {
  const { job, loom, plan, catalogue, standard, loomId } = context;
  const groups = new Map<string, string[]>();
  for (const endId of Object.keys(loom.ends).sort(compareIds)) {
    const { familyId, key, kind } = loom.ends[endId]!;
    if (kind === 'connector' && familyId !== null) pushTo(groups, `${familyId} ${key}`, endId);
  }
  return [...groups.values()].flatMap((alike) =>
    alike.flatMap((a, index) =>
      alike.slice(index + 1).flatMap((b): Finding[] => {
        const apartMm = listWireRuns(plan.tree, { nodeId: loom.ends[a]!.nodeId }, { nodeId: loom.ends[b]!.nodeId }).reduce(
          (sum, { fromMm, toMm }) => sum + toMm - fromMm,
          0,
        );
        if (apartMm > standard.lookAlikeReachMm) return [];
        const family = findFamily(job, catalogue, loom.ends[b]!.familyId)!;
        const near = alike.filter((id) => id !== b && apart(context, id, b) <= standard.lookAlikeReachMm).map((id) => loom.ends[id]!.key);
        const key = family.keys.find((one) => one !== loom.ends[b]!.key && !near.includes(one));
        return [
          createFinding(
            context,
            'EN3',
            [
              { kind: 'end', id: a },
              { kind: 'end', id: b },
            ],
            `${loom.ends[a]!.name} and ${loom.ends[b]!.name} are alike (${family.name}) and ${Math.round(apartMm)} mm apart along the loom: they can be swapped.`,
            {
              measured: apartMm,
              limit: standard.lookAlikeReachMm,
              fix:
                key === undefined
                  ? null
                  : {
                      label: `Key ${loom.ends[b]!.name} ${key}`,
                      patch: [{ op: 'replace', path: `/looms/${loomId}/ends/${b}/key`, value: key }],
                    },
            },
          ),
        ];
      }),
    ),
  );
};

function apart({ loom, plan }: Parameters<Rule>[0], a: string, b: string): number {
  return listWireRuns(plan.tree, { nodeId: loom.ends[a]!.nodeId }, { nodeId: loom.ends[b]!.nodeId }).reduce(
    (sum, { fromMm, toMm }) => sum + toMm - fromMm,
    0,
  );
}
