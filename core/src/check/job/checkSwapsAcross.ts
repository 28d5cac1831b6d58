import { findFamily } from '../../catalogue';
import { judgeSwap, listWireRuns, type LoomPlan, type Swap } from '../../plan';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, JobContext, JobRule } from '../types';

/**
 * EN3, check, and EN9, note, over two looms that are mated: like housings with like keys on either side of the connection, close to each other
 * along both looms, or in reach.
 */
export const checkSwapsAcross: JobRule = (context) =>
  Object.keys(context.job.mates)
    .sort(compareIds)
    .flatMap((mateId) => {
      const { a, b } = context.job.mates[mateId]!;
      if (a.loomId === b.loomId) return [];
      const beyond = listReaches(context, b);
      return listReaches(context, a).flatMap((one) =>
        beyond.flatMap((other) => (one.looks === other.looks ? judgePair(context, one, other) : [])),
      );
    });

interface Reached {
  loomId: string;
  endId: string;
  /** housing and key */
  looks: string;
  /** from the connection along its loom, mm */
  awayMm: number;
  /** of that its own leg */
  ownMm: number;
  loopMm: number;
}

/** Connectors of a loom with how far they are from one of them, which is mated. */
function listReaches({ job, plan }: JobContext, { loomId, endId: matedId }: { loomId: string; endId: string }): Reached[] {
  const { ends } = job.looms[loomId]!;
  const { tree } = plan.looms.find((one) => one.loomId === loomId) as LoomPlan;
  return Object.keys(ends)
    .sort(compareIds)
    .flatMap((endId) => {
      const { kind, familyId, key, nodeId, serviceLoopMm } = ends[endId]!;
      if (kind !== 'connector' || familyId === null || endId === matedId) return [];
      const runs = listWireRuns(tree, { nodeId: ends[matedId]!.nodeId }, { nodeId });
      const lengths = runs.map(({ fromMm, toMm }) => toMm - fromMm);
      const awayMm = lengths.reduce((sum, mm) => sum + mm, 0);
      return [{ loomId, endId, looks: `${familyId} ${key}`, awayMm, ownMm: lengths.at(-1) ?? 0, loopMm: serviceLoopMm }];
    });
}

function judgePair(context: JobContext, a: Reached, b: Reached): Finding[] {
  const apartMm = a.awayMm + b.awayMm;
  const toReach = ({ ownMm, loopMm }: Reached) => ({ legMm: ownMm, loopMm });
  const swap = judgeSwap(toReach(a), toReach(b), apartMm - a.ownMm - b.ownMm);
  const limit = context.standard.lookAlikeReachMm;
  const isClose = apartMm <= limit || swap.kind === 'swap';
  if (!isClose && swap.kind === null) return [];
  const end = ({ loomId, endId }: Reached) => context.job.looms[loomId]!.ends[endId]!;
  const family = findFamily(context.job, context.catalogue, end(a).familyId)!;
  const key = family.keys.find((one) => one !== end(b).key);
  return [
    createFinding(
      a,
      isClose ? 'EN3' : 'EN9',
      [
        { kind: 'end', id: a.endId },
        { kind: 'item', id: `${b.loomId}.${b.endId}` },
      ],
      `${end(a).name} and ${end(b).name} of ${context.job.looms[b.loomId]!.name} are alike (${family.name}) and ${Math.round(apartMm)} mm apart along both looms${toWords(swap, end(a).name, end(b).name)}: they can be swapped.`,
      {
        measured: apartMm,
        limit,
        fix:
          key === undefined
            ? null
            : {
                label: `Key ${end(b).name} ${key}`,
                patch: [{ op: 'replace', path: `/looms/${b.loomId}/ends/${b.endId}/key`, value: key }],
              },
      },
    ),
  ];
}

const toWords = ({ kind, reaches }: Swap, a: string, b: string) =>
  kind === 'swap'
    ? ', each reaches the device of the other'
    : kind === 'mis-plug'
      ? `, ${reaches === 'a' ? `${a} reaches the device of ${b}` : `${b} that of ${a}`}`
      : '';
