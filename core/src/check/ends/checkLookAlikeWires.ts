import { listLookAlikes, listWireGroups, type LoomPlan } from '../../plan';
import { createKeeper } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, Rule, RuleContext } from '../types';

/** EN4, note: wires that are held beside one another, in a housing or close to a breakout, are taken for one another; only their numbers tell them apart. */
export const checkLookAlikeWires: Rule = (context) => remember(context.plan.terminations, listInputs(context), () => compareWires(context));

/** wires lie beside the same ones as long as none is another and no leg comes into reach */
const remember = createKeeper<LoomPlan['terminations'], Finding[]>();

function listInputs({ loomId, loom, plan, standard }: RuleContext): unknown[] {
  const { nodeIds, nodes } = plan.tree;
  const inputs: unknown[] = [loomId, loom.ends, loom.circuits, loom.nodes, standard];
  for (const { number, conductor, colour } of plan.wires) inputs.push(number, conductor, colour);
  for (const id of nodeIds) {
    const { parentNodeId, distanceMm, childSegmentIds } = nodes[id]!;
    const isNear = parentNodeId !== null && distanceMm - nodes[parentNodeId]!.distanceMm <= standard.colourReachMm;
    inputs.push(parentNodeId, isNear, childSegmentIds[0]);
  }
  return inputs;
}

function compareWires(context: RuleContext): Finding[] {
  const { loom, plan, standard } = context;
  // where all are of one colour they go by their print: the shop has said so
  if (standard.colourScheme === 'one-colour') return [];
  const told = new Set<string>();
  return listWireGroups(loom, plan, standard).flatMap((group) =>
    listLookAlikes(group, standard).flatMap(({ numbers, looks }): Finding[] => {
      const { place } = group;
      // at a breakout what is alike in a housing already is told there
      const words = [...numbers].sort().join(' ');
      if ('nodeId' in place && told.has(words)) return [];
      told.add(words);
      const where = 'endId' in place ? `in ${loom.ends[place.endId]!.name}` : `beside one another at ${loom.nodes[place.nodeId]!.name}`;
      const at: FindingPlace[] =
        'endId' in place
          ? [{ kind: 'end', id: place.endId }]
          : [{ kind: 'segment', id: plan.tree.nodes[place.nodeId]!.childSegmentIds[0]! }];
      return [
        createFinding(
          context,
          'EN4',
          [...at, { kind: 'loom', id: numbers[0]! }],
          `${numbers.join(', ')} look alike (${looks.join(', ')}) ${where}: go by the printed numbers.`,
          { measured: numbers.length, limit: 1 },
        ),
      ];
    }),
  );
}
