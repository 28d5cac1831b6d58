import fc from 'fast-check';
import { chooseSplices, type SpliceTree } from './chooseSplices';

/** Every way to give each edge a number of wires, priced one by one: an independent optimum for small trees. */
function findLeastByForce(root: SpliceTree, spliceCost: number, mostWires: number): number {
  const price = (node: SpliceTree): Map<number, number> => {
    let sums = new Map<number, number>([[node.terminals, 0]]);
    for (const child of node.children) {
      const next = new Map<number, number>();
      for (const [have, cost] of sums)
        for (const [k, more] of price(child)) next.set(have + k, Math.min(next.get(have + k) ?? Infinity, cost + more));
      sums = next;
    }
    const out = new Map<number, number>();
    for (const [arriving, cost] of sums) {
      for (let leaving = 1; leaving <= arriving; leaving += 1) {
        let splices = 0;
        for (let left = arriving; left > leaving; splices += 1) left -= Math.min(mostWires, left - leaving + 1) - 1;
        const total = cost + splices * spliceCost + leaving * node.edgeMm;
        out.set(leaving, Math.min(out.get(leaving) ?? Infinity, total));
      }
    }
    return out;
  };
  return price(root).get(1)!;
}

const anyTree: fc.Arbitrary<SpliceTree> = fc.letrec<{ node: SpliceTree }>((tie) => ({
  node: fc
    .record({
      nodeId: fc.uuid(),
      edgeMm: fc.integer({ min: 1, max: 900 }),
      terminals: fc.integer({ min: 0, max: 2 }),
      children: fc.oneof({ depthSize: 'small' }, fc.constant([] as SpliceTree[]), fc.array(tie('node'), { minLength: 1, maxLength: 3 })),
    })
    .map((node) => ({ ...node, terminals: node.children.length === 0 ? Math.max(1, node.terminals) : node.terminals })),
})).node;

test('the programme finds the same least cost as trying everything', () => {
  fc.assert(
    fc.property(anyTree, fc.constantFrom(0, 60, 250, 800), fc.constantFrom(3, 5), (tree, cost, most) => {
      const root = { nodeId: 'source', edgeMm: 0, terminals: 0, children: [tree] };
      expect(chooseSplices(root, cost, most).costMm).toBeCloseTo(findLeastByForce(root, cost, most), 6);
    }),
    { numRuns: 500 },
  );
});

test('the wires it gives each edge cost what it says', () => {
  fc.assert(
    fc.property(anyTree, fc.constantFrom(0, 100, 250), (tree, cost) => {
      const root = { nodeId: 'source', edgeMm: 0, terminals: 0, children: [tree] };
      const { costMm, wiresToParent } = chooseSplices(root, cost, 5);
      const add = (node: SpliceTree): number => {
        const arriving = node.terminals + node.children.reduce((sum, child) => sum + wiresToParent.get(child.nodeId)!, 0);
        const leaving = wiresToParent.get(node.nodeId)!;
        return (
          leaving * node.edgeMm + Math.ceil((arriving - leaving) / 4) * cost + node.children.reduce((sum, child) => sum + add(child), 0)
        );
      };
      expect(add(root)).toBeCloseTo(costMm, 6);
    }),
    { numRuns: 200 },
  );
});

test('on a stud as many wires may enter as are cheapest', () => {
  const root: SpliceTree = { nodeId: 's', edgeMm: 0, terminals: 0, children: [{ nodeId: 'a', edgeMm: 50, terminals: 2, children: [] }] };
  expect(chooseSplices(root, 250, 5, 1).costMm).toBe(300);
  expect(chooseSplices(root, 250, 5, 4).costMm).toBe(100);
});
