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

/** How two ends of a loom reach one another's devices. */
export function measureReaches(loom: Loom, tree: Tree, idA: string, idB: string): Neighbours {
  const [a, b] = [loom.ends[idA]!, loom.ends[idB]!];
  const wayA = climb(tree, a.nodeId);
  const wayB = new Set(climb(tree, b.nodeId));
  const common = wayA.find((nodeId) => wayB.has(nodeId))!;
  const from = (nodeId: string) => tree.nodes[nodeId]!.distanceMm - tree.nodes[common]!.distanceMm;
  // where its own leg leaves, no further than where their ways part
  const fork = (nodeId: string) => (nodeId === common ? 0 : from(tree.nodes[nodeId]!.parentNodeId!));
  const loops = [a.serviceLoopMm, b.serviceLoopMm] as const;
  const [legA, legB] = [from(a.nodeId), from(b.nodeId)];
  const [ownA, ownB] = [legA - fork(a.nodeId), legB - fork(b.nodeId)];
  const betweenMm = fork(a.nodeId) + fork(b.nodeId);
  return {
    apartMm: legA + legB,
    clipped: judgeSwap({ legMm: ownA, loopMm: loops[0] }, { legMm: ownB, loopMm: loops[1] }, betweenMm),
  };
}

function climb(tree: Tree, nodeId: string): string[] {
  const way = [nodeId];
  for (let at = tree.nodes[nodeId]!.parentNodeId; at !== null; at = tree.nodes[at]!.parentNodeId) way.push(at);
  return way;
}
