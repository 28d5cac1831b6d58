import type { Colour, Loom } from '../../model';
import { pushTo } from '../../units';
import { findTurn } from '../route/findTurn';
import type { LoomPlan } from '../types';

/** Breakouts that a wire passes, where its bands are put on again on either side: it is taken up there beside its neighbours. */
export function listBandedBreakouts(loom: Loom, { wires, tree }: Pick<LoomPlan, 'wires' | 'tree'>): ReadonlyMap<string, string[]> {
  const byNode = new Map<string, string[]>();
  for (const { id, pieces } of wires)
    for (let at = 0; at + 1 < pieces.length; at += 1) {
      const nodeId = findTurn(tree.segments[pieces[at]!.segmentId]!, tree.segments[pieces[at + 1]!.segmentId]!);
      if (loom.nodes[nodeId]!.kind !== 'breakout') continue;
      pushTo(byNode, nodeId, id);
    }
  return byNode;
}

/** Rings of a loom, wires in those looks: each at both ends of its wire and on either side of every breakout (craft A6). Cores of a cable have none. */
export function countBands(loom: Loom, plan: Pick<LoomPlan, 'wires' | 'tree'>, lookOf: (circuitId: string) => Colour): number {
  const passed = new Map<string, number>();
  for (const ids of listBandedBreakouts(loom, plan).values()) for (const id of ids) passed.set(id, (passed.get(id) ?? 0) + 1);
  return plan.wires
    .filter(({ cable }) => !cable)
    .reduce((sum, { id, circuitId }) => sum + lookOf(circuitId).bands.length * (2 + 2 * (passed.get(id) ?? 0)), 0);
}
