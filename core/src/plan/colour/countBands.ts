import { COLOUR_NAMES, type Colour, type ColourName, type Loom } from '../../model';
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
export const countBands = (loom: Loom, plan: Pick<LoomPlan, 'wires' | 'tree'>, lookOf: (circuitId: string) => Colour): number =>
  [...countEach(loom, plan, lookOf).values()].reduce((sum, pieces) => sum + pieces, 0);

/** The same by their colour, as the circuits are now; in the order of the colours. */
export const countBandsByColour = (loom: Loom, plan: Pick<LoomPlan, 'wires' | 'tree'>): ReadonlyMap<ColourName, number> =>
  countEach(loom, plan, (circuitId) => loom.circuits[circuitId]!.colour);

function countEach(loom: Loom, plan: Pick<LoomPlan, 'wires' | 'tree'>, lookOf: (circuitId: string) => Colour): Map<ColourName, number> {
  const passed = new Map<string, number>();
  for (const ids of listBandedBreakouts(loom, plan).values()) for (const id of ids) passed.set(id, (passed.get(id) ?? 0) + 1);
  const pieces = new Map<ColourName, number>();
  for (const { id, circuitId, cable } of plan.wires) {
    if (cable) continue;
    for (const band of lookOf(circuitId).bands) pieces.set(band, (pieces.get(band) ?? 0) + 2 + 2 * (passed.get(id) ?? 0));
  }
  return new Map([...pieces].sort(([a], [b]) => COLOUR_NAMES.indexOf(a) - COLOUR_NAMES.indexOf(b)));
}
