import type { Loom } from '../../model';
import type { Tree } from '../types';
import { judgeSwap, type Swap } from './judgeSwap';

/** Two ends of a loom and how far they are from one another along it. */
export interface Neighbours {
  /** along the loom, mm */
  apartMm: number;
  /** once the bundle is clipped: of each only its own leg moves */
  clipped: Swap;
}

/** How two ends of a loom reach one another's devices. Asked for every pair of like ends: it makes nothing on its way. */
export function measureReaches(loom: Loom, tree: Tree, idA: string, idB: string): Neighbours {
  const [a, b] = [loom.ends[idA]!, loom.ends[idB]!];
  const common = findCommon(tree, a.nodeId, b.nodeId);
  const awayMm = tree.nodes[common]!.distanceMm;
  const legA = tree.nodes[a.nodeId]!.distanceMm - awayMm;
  const legB = tree.nodes[b.nodeId]!.distanceMm - awayMm;
  // where its own leg leaves, no further than where their ways part
  const forkA = a.nodeId === common ? 0 : tree.nodes[tree.nodes[a.nodeId]!.parentNodeId!]!.distanceMm - awayMm;
  const forkB = b.nodeId === common ? 0 : tree.nodes[tree.nodes[b.nodeId]!.parentNodeId!]!.distanceMm - awayMm;
  return {
    apartMm: legA + legB,
    clipped: judgeSwap({ legMm: legA - forkA, loopMm: a.serviceLoopMm }, { legMm: legB - forkB, loopMm: b.serviceLoopMm }, forkA + forkB),
  };
}

/** Node at which the ways of two nodes to the datum meet. */
function findCommon(tree: Tree, a: string, b: string): string {
  let [one, other] = [tree.nodes[a]!, tree.nodes[b]!];
  while (one.depth > other.depth) one = tree.nodes[one.parentNodeId!]!;
  while (other.depth > one.depth) other = tree.nodes[other.parentNodeId!]!;
  while (one !== other) {
    one = tree.nodes[one.parentNodeId!]!;
    other = tree.nodes[other.parentNodeId!]!;
  }
  return one.id;
}
