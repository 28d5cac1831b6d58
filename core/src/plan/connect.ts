import type { ShopStandard } from '../catalogue';
import type { Job, Loom } from '../model';
import { compareIds } from '../units';
import { listPieces } from './listPieces';
import { listStrands, type Strands } from './listStrands';
import { placeSplices } from './placeSplices';
import type { Place, PlannedSplice, RunWire, Tree, WireEnd } from './types';

/** Wires and splices of every circuit, in the order of the circuits' ids. */
export function connect(loom: Loom, tree: Tree, standard: ShopStandard): Strands {
  const all = Object.keys(loom.circuits)
    .sort(compareIds)
    .map((id) => listStrands(loom, tree, id, loom.circuits[id]!, standard));
  return { wires: all.flatMap(({ wires }) => wires), splices: all.flatMap(({ splices }) => splices) };
}

/** Put the splices in their places (those of the plan the wires were cut by where they were) and lead every wire along the tree. */
export function route(
  job: Job,
  loom: Loom,
  tree: Tree,
  strands: Strands,
  halfMm: (circuitId: string) => number,
  standard: ShopStandard,
  kept: readonly PlannedSplice[],
): { splices: PlannedSplice[]; wires: RunWire[] } {
  const junctions = new Map(strands.splices.map(({ id, nodeId }) => [id, nodeId]));
  const atJunction = (end: WireEnd): Place => ({
    nodeId: end.kind === 'cavity' ? loom.ends[end.endId]!.nodeId : junctions.get(end.spliceId)!,
  });
  const wiresIn = new Map<string, number>();
  if (strands.splices.length) {
    for (const { from, to } of strands.wires) {
      for (const { segmentId } of listPieces(tree, atJunction(from), atJunction(to)))
        wiresIn.set(segmentId, (wiresIn.get(segmentId) ?? 0) + 1);
    }
  }
  const splices = placeSplices(loom, job.zones, tree, strands.splices, wiresIn, halfMm, standard, kept);
  const places = new Map(splices.map(({ id, place }) => [id, place]));
  const toPlace = (end: WireEnd): Place => (end.kind === 'cavity' ? { nodeId: loom.ends[end.endId]!.nodeId } : places.get(end.spliceId)!);
  const count = new Map<string, number>();
  const wires = strands.wires.map((strand) => {
    const index = (count.get(strand.circuitId) ?? 0) + 1;
    count.set(strand.circuitId, index);
    return { id: `${strand.circuitId}.${index}`, ...strand, pieces: listPieces(tree, toPlace(strand.from), toPlace(strand.to)) };
  });
  return { splices, wires };
}
