/** A tree rooted at the source of a circuit: the length of the edge to the parent, and terminations at the node itself. */
export interface SpliceTree {
  nodeId: string;
  /** to the parent; 0 at the source */
  edgeMm: number;
  /** terminations that sit at this node, the source's own not counted */
  terminals: number;
  children: SpliceTree[];
}

export interface SpliceChoice {
  /** wire plus splices, in mm of wire */
  costMm: number;
  /** node → wires of the circuit that leave it towards the source */
  wiresToParent: Map<string, number>;
}

interface Table {
  /** index k: least cost of everything below with k wires on the edge to the parent, that edge included */
  cost: number[];
  /** index k: how many wires arrive at the node when k leave it */
  arriving: number[];
  /** for each number that arrives, how many each child sends */
  split: number[][];
}

/**
 * Least wire for a circuit of more than two terminations: dynamic programme over the tree, a table per node of the
 * best cost for each number k of parallel wires on its edge, children combined by min-plus convolution.
 * A merge of m wires into one takes ceil((m − 1) / (mostWires − 1)) splices, so that no barrel has more than mostWires on one side.
 *
 * @param spliceCostMm wire that one splice must save to be worth it
 * @param sourceWires how many wires may enter at the source (1, or more on a stud)
 */
export function chooseSplices(root: SpliceTree, spliceCostMm: number, mostWires: number, sourceWires = 1): SpliceChoice {
  const tables = new Map<SpliceTree, Table>();
  const fill = (node: SpliceTree): Table => {
    let sums = [0];
    let splits: number[][] = [[]];
    sums = node.terminals ? [...Array<number>(node.terminals).fill(Infinity), 0] : sums;
    splits = sums.map(() => []);
    for (const child of node.children) {
      const { cost } = fill(child);
      const next = Array<number>(sums.length + cost.length - 1).fill(Infinity);
      const nextSplits: number[][] = next.map(() => []);
      sums.forEach((sum, have) =>
        cost.forEach((more, k) => {
          if (sum + more < next[have + k]! - 1e-9) {
            next[have + k] = sum + more;
            nextSplits[have + k] = [...splits[have]!, k];
          }
        }),
      );
      sums = next;
      splits = nextSplits;
    }
    const cost = Array<number>(sums.length).fill(Infinity);
    const arriving = Array<number>(sums.length).fill(0);
    for (let k = 1; k < sums.length; k += 1) {
      for (let all = k; all < sums.length; all += 1) {
        const merges = all === k ? 0 : Math.ceil((all - k) / (mostWires - 1));
        const total = sums[all]! + merges * spliceCostMm + k * node.edgeMm;
        if (total < cost[k]! - 1e-9) {
          cost[k] = total;
          arriving[k] = all;
        }
      }
    }
    const table = { cost, arriving, split: splits };
    tables.set(node, table);
    return table;
  };
  const { cost } = fill(root);
  let atSource = 1;
  for (let k = 2; k <= Math.min(sourceWires, cost.length - 1); k += 1) if (cost[k]! < cost[atSource]! - 1e-9) atSource = k;
  const wiresToParent = new Map<string, number>();
  const walk = (node: SpliceTree, k: number): void => {
    wiresToParent.set(node.nodeId, k);
    const { arriving, split } = tables.get(node)!;
    split[arriving[k]!]!.forEach((count, index) => walk(node.children[index]!, count));
  };
  walk(root, atSource);
  return { costMm: cost[atSource]!, wiresToParent };
}
