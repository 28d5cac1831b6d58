import type { Job, LoomNode } from '../../model';
import { listSharing } from '../../plan';
import { compareIds, pushTo, toCount } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, WiringRule } from '../types';

interface Hole {
  loomId: string;
  nodeId: string;
  node: LoomNode;
}

/**
 * RO4, check: holes of two looms have one name and nobody said whether they are one hole; or a hole is said to be one that is not there, or is
 * no hole of its own (craft I2).
 */
export const checkSharedHoles: WiringRule = ({ job }) => {
  const holes = listHoles(job);
  const sharing = new Set(listSharing(job).map(({ loomId, nodeId }) => `${loomId} ${nodeId}`));
  const astray = holes
    .filter(({ loomId, nodeId, node }) => node.beside !== null && node.holeMm !== null && !sharing.has(`${loomId} ${nodeId}`))
    .map(({ loomId, nodeId, node }) =>
      createFinding(
        { loomId },
        'RO4',
        [{ kind: 'node', id: nodeId }],
        `${node.name} is said to be the hole of another loom, which is not there any more or is said to be another’s itself.`,
        {
          fix: {
            label: `${node.name} is a hole of its own`.slice(0, 120),
            patch: [{ op: 'replace', path: toPath({ loomId, nodeId }), value: null }],
          },
        },
      ),
    );
  return [
    ...astray,
    ...checkNames(
      job,
      holes.filter(({ node }) => node.holeMm !== null && node.beside === null),
    ),
  ];
};

/** Holes of one name in several looms, none of them said to be that of another. */
function checkNames(job: Job, own: readonly Hole[]): Finding[] {
  const byName = new Map<string, Hole[]>();
  for (const one of own) pushTo(byName, one.node.name.trim().toLowerCase(), one);
  return [...byName.values()].flatMap(([first, ...others]): Finding[] => {
    const rest = others.filter(({ loomId }) => loomId !== first!.loomId);
    if (rest.length === 0) return [];
    const looms = [first!, ...rest].map(({ loomId }) => job.looms[loomId]!.name);
    const beside = { loomId: first!.loomId, nodeId: first!.nodeId };
    return [
      createFinding(
        { loomId: first!.loomId },
        'RO4',
        [first!, ...rest].map(({ nodeId }) => ({ kind: 'node' as const, id: nodeId })),
        `${toCount(looms.length, 'loom')} pass a hole called ${first!.node.name} (${looms.join(', ')}): is it one hole, each has to leave room for the others.`,
        {
          measured: looms.length,
          limit: 1,
          fix: {
            label: `It is one hole; ${looms[0]} is led through first`.slice(0, 120),
            patch: rest.map((one) => ({ op: 'replace' as const, path: toPath(one), value: beside })),
          },
        },
      ),
    ];
  });
}

const toPath = ({ loomId, nodeId }: Pick<Hole, 'loomId' | 'nodeId'>) => `/looms/${loomId}/nodes/${nodeId}/beside`;

const listHoles = ({ looms }: Job): Hole[] =>
  Object.keys(looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(looms[loomId]!.nodes)
        .sort(compareIds)
        .map((nodeId) => ({ loomId, nodeId, node: looms[loomId]!.nodes[nodeId]! })),
    );
