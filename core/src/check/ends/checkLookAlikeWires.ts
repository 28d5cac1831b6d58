import { listLookAlikes, listWireGroups } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, Rule } from '../types';

/** EN4, note: wires that are held beside one another, in a housing or close to a breakout, are taken for one another; only their numbers tell them apart. */
export const checkLookAlikeWires: Rule = (context) => {
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
};
