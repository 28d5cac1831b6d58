import type { ShopStandard } from '../../catalogue';
import type { Circuit, Loom, Termination } from '../../model';
import { chooseSplices, type SpliceTree } from '../splice/chooseSplices';
import { listWireRuns } from './listWireRuns';
import type { Tree } from '../types';
import type { WireEnd } from '../../netlist';

/** A wire between two ends, before splices have a place; and the splices with the node each was planned at. */
export interface UnroutedWires {
  wires: { circuitId: string; from: WireEnd; to: WireEnd }[];
  splices: {
    id: string;
    circuitId: string;
    nodeId: string;
    segmentIds: string[];
    /** run towards its circuit's source; null: the source is at its node */
    sourceSegmentId: string | null;
    /** splice of the same junction that it takes up: that one lies further from the source; null: none */
    afterId: string | null;
  }[];
}

const toEnd = ({ endId, cavity }: Termination): WireEnd => ({ kind: 'cavity', endId, cavity });

/** Wires of one circuit by the way it is joined: one wire for two terminations, else splices, a chain, or a stud. */
export function listUnroutedWires(loom: Loom, tree: Tree, circuitId: string, circuit: Circuit, standard: ShopStandard): UnroutedWires {
  const [source, ...others] = circuit.terminations;
  if (source === undefined || others.length === 0) return { wires: [], splices: [] };
  const wire = (from: Termination, to: Termination) => ({ circuitId, from: toEnd(from), to: toEnd(to) });
  if (others.length === 1 || circuit.join === 'stud') return { wires: others.map((to) => wire(source, to)), splices: [] };
  // in a loom without a run there is nowhere for a splice to lie: pins of one housing go from one to the next
  const hasRuns = listRunsAt(tree, loom.ends[source.endId]!.nodeId).length > 0;
  if (circuit.join === 'chain' || !hasRuns)
    return { wires: others.map((to, index) => wire(circuit.terminations[index]!, to)), splices: [] };
  return listSpliced(loom, tree, circuitId, source, others, standard);
}

interface Branch extends SpliceTree {
  segmentId: string | null;
  ends: Termination[];
  children: Branch[];
}

function listSpliced(
  loom: Loom,
  tree: Tree,
  circuitId: string,
  source: Termination,
  others: Termination[],
  standard: ShopStandard,
): UnroutedWires {
  const root = createBranches(loom, tree, source, others);
  const { wiresToParent } = chooseSplices(root, standard.spliceCostMm, standard.spliceMostWires);
  const unrouted: UnroutedWires = { wires: [], splices: [] };

  const collect = (branch: Branch): WireEnd[] => {
    const arriving: WireEnd[] = [...branch.ends.map(toEnd), ...branch.children.flatMap(collect)];
    const leaving = wiresToParent.get(branch.nodeId)!;
    const own = [branch.segmentId, ...branch.children.map((child) => child.segmentId)].filter((one) => one !== null);
    // pins of one housing joined to each other: the splice lies out in a run beside it, and all its wires arrive on one side
    const segmentIds = own.length ? own : listRunsAt(tree, branch.nodeId);
    const most = own.length ? standard.spliceMostWires : standard.spliceMostWires - 1;
    let afterId: string | null = null;
    for (let made = 1; arriving.length > leaving; made += 1) {
      const merged = arriving.splice(0, Math.min(most, arriving.length - leaving + 1));
      const id = `${circuitId}@${branch.nodeId}${made > 1 ? `.${made}` : ''}`;
      unrouted.splices.push({ id, circuitId, nodeId: branch.nodeId, segmentIds, sourceSegmentId: branch.segmentId, afterId });
      afterId = id;
      for (const to of merged) unrouted.wires.push({ circuitId, from: { kind: 'splice', spliceId: id }, to });
      arriving.unshift({ kind: 'splice', spliceId: id });
    }
    return arriving;
  };
  for (const to of collect(root)) unrouted.wires.push({ circuitId, from: toEnd(source), to });
  unrouted.wires.reverse();
  unrouted.splices.reverse();
  return unrouted;
}

function listRunsAt(tree: Tree, nodeId: string): string[] {
  const { parentSegmentId, childSegmentIds } = tree.nodes[nodeId]!;
  return parentSegmentId === null ? childSegmentIds : [parentSegmentId, ...childSegmentIds];
}

/** The part of the route that joins the terminations, rooted at the source. */
function createBranches(loom: Loom, tree: Tree, source: Termination, others: Termination[]): Branch {
  const rootId = loom.ends[source.endId]!.nodeId;
  const root: Branch = { nodeId: rootId, edgeMm: 0, terminals: 0, children: [], segmentId: null, ends: [] };
  const branches = new Map<string, Branch>([[rootId, root]]);
  for (const termination of others) {
    let at = root;
    for (const { segmentId } of listWireRuns(tree, { nodeId: rootId }, { nodeId: loom.ends[termination.endId]!.nodeId })) {
      const segment = tree.segments[segmentId]!;
      const nodeId = segment.nearNodeId === at.nodeId ? segment.farNodeId : segment.nearNodeId;
      let next = branches.get(nodeId);
      if (!next) {
        next = { nodeId, edgeMm: segment.lengthMm, terminals: 0, children: [], segmentId, ends: [] };
        branches.set(nodeId, next);
        at.children.push(next);
      }
      at = next;
    }
    at.terminals += 1;
    at.ends.push(termination);
  }
  return root;
}
