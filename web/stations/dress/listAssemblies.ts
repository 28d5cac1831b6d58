import { compareIds } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';

/** Something that is covered, finished or led through: a run, a hole, a breakout or an end, in the order of the loom. */
export interface Assembly {
  kind: 'run' | 'hole' | 'breakout' | 'end';
  id: string;
  name: string;
  /** as it stands in the list, where the part before it is above */
  short: string;
  /** from the datum, mm */
  atMm: number;
  /** how far from the trunk, for the list */
  depth: number;
  /** what stands there, in a word or two */
  words: string;
  /** something about it has to be looked at */
  isWrong: boolean;
}

export const toKey = ({ kind, id }: Pick<Assembly, 'kind' | 'id'>) => `${kind}:${id}`;

/** Along the loom from the datum: each run, then what is at its far end. */
export function listAssemblies({ loom, plan }: PlannedLoom): Assembly[] {
  const { tree } = plan;
  const coverings = new Map(plan.coverings.map((one) => [one.segmentId, one]));
  const breakouts = new Map(plan.breakoutDress.map((one) => [one.nodeId, one]));
  const feeds = new Map(plan.feeds.map((one) => [one.nodeId, one]));
  const ends = Object.keys(loom.ends).sort(compareIds);
  const depthOf = new Map<string, number>();
  return tree.nodeIds.flatMap((nodeId): Assembly[] => {
    const node = tree.nodes[nodeId]!;
    const parent = node.parentSegmentId === null ? null : tree.segments[node.parentSegmentId]!;
    const depth = parent === null ? 0 : (depthOf.get(parent.nearNodeId) ?? 0) + (parent.onward ? 0 : 1);
    depthOf.set(nodeId, depth);
    const base = { atMm: node.distanceMm, depth };
    const covering = node.parentSegmentId === null ? undefined : coverings.get(node.parentSegmentId);
    const breakout = breakouts.get(nodeId);
    const feed = feeds.get(nodeId);
    const run = parent && {
      ...base,
      ...{ kind: 'run' as const, id: parent.id, name: `${loom.nodes[parent.nearNodeId]!.name} to ${loom.nodes[nodeId]!.name}` },
      ...{
        short: `to ${loom.nodes[nodeId]!.name}`,
        atMm: parent.startMm,
        words: covering!.itemName,
        isWrong: covering!.problem !== null || covering!.unmet.length > 0,
      },
    };
    return [
      ...(run ? [run] : []),
      ...(feed
        ? [
            {
              ...{ ...base, kind: 'hole' as const, id: nodeId, name: loom.nodes[nodeId]!.name, short: loom.nodes[nodeId]!.name },
              ...{ words: `hole ${feed.boreMm} mm`, isWrong: feed.offIds.length > 0 || feed.wholeMm > feed.boreMm },
            },
          ]
        : []),
      ...(breakout
        ? [
            {
              ...{ ...base, kind: 'breakout' as const, id: nodeId, name: loom.nodes[nodeId]!.name, short: loom.nodes[nodeId]!.name },
              ...{
                words: breakout.pieces.at(-1)?.itemName ?? 'open',
                isWrong: breakout.problem !== null || breakout.parking?.fits === false,
              },
            },
          ]
        : []),
      ...ends
        .filter((id) => loom.ends[id]!.nodeId === nodeId)
        .flatMap((id) => {
          const dress = plan.endDress.find(({ endId }) => endId === id);
          if (!dress) return [];
          return [
            {
              ...{ ...base, kind: 'end' as const, id, name: loom.ends[id]!.name, short: loom.ends[id]!.name },
              ...{ words: dress.pieces.at(-1)?.itemName ?? 'open', isWrong: dress.problem !== null || !dress.parking.fits },
            },
          ];
        }),
    ];
  });
}
