import type { ShopStandard } from '../../catalogue';
import type { Loom } from '../../model';
import { compareIds } from '../../units';
import { listWireRuns } from './listWireRuns';
import { listUnroutedWires, type UnroutedWires } from './listUnroutedWires';
import { placeSplices, type PlacingContext } from '../splice/placeSplices';
import type { Place, PlannedSplice, RoutedWire, Tree } from '../types';
import type { WireEnd } from '../../netlist';

/** Wires and splices of every circuit, in the order of the circuits' ids. */
export function connect(loom: Loom, tree: Tree, standard: ShopStandard): UnroutedWires {
  const all = Object.keys(loom.circuits)
    .sort(compareIds)
    .map((id) => listUnroutedWires(loom, tree, id, loom.circuits[id]!, standard));
  return { wires: all.flatMap(({ wires }) => wires), splices: all.flatMap(({ splices }) => splices) };
}

/** Put the splices in their places (those of the plan the wires were cut by where they were) and lead every wire along the tree. */
export function route(
  context: Omit<PlacingContext, 'wiresIn'>,
  unrouted: UnroutedWires,
): { splices: PlannedSplice[]; wires: RoutedWire[] } {
  const { loom, tree } = context;
  const junctions = new Map(unrouted.splices.map(({ id, nodeId }) => [id, nodeId]));
  const atJunction = (end: WireEnd): Place => ({
    nodeId: end.kind === 'cavity' ? loom.ends[end.endId]!.nodeId : junctions.get(end.spliceId)!,
  });
  const wiresIn = new Map<string, number>();
  if (unrouted.splices.length) {
    for (const { from, to } of unrouted.wires) {
      for (const { segmentId } of listWireRuns(tree, atJunction(from), atJunction(to)))
        wiresIn.set(segmentId, (wiresIn.get(segmentId) ?? 0) + 1);
    }
  }
  const splices = placeSplices({ ...context, wiresIn }, unrouted.splices);
  const places = new Map(splices.map(({ id, place }) => [id, place]));
  const toPlace = (end: WireEnd): Place => (end.kind === 'cavity' ? { nodeId: loom.ends[end.endId]!.nodeId } : places.get(end.spliceId)!);
  const count = new Map<string, number>();
  const wires = unrouted.wires.map((wire) => {
    const index = (count.get(wire.circuitId) ?? 0) + 1;
    count.set(wire.circuitId, index);
    return { id: `${wire.circuitId}.${index}`, ...wire, pieces: listWireRuns(tree, toPlace(wire.from), toPlace(wire.to)) };
  });
  return { splices, wires };
}
