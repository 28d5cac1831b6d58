import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** SC1, stop: a wire to be cut rests on a length that is only guessed. One finding a segment. */
export const checkGuesses: Rule = (context) => {
  const { loom, plan } = context;
  const counts = new Map<string, number>();
  for (const wire of plan.wires) for (const id of wire.heldBy) counts.set(id, (counts.get(id) ?? 0) + 1);
  return [...counts.keys()].sort(compareIds).map((segmentId) => {
    const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
    const held = counts.get(segmentId)!;
    return createFinding(
      context,
      'SC1',
      'stop',
      [{ kind: 'segment', id: segmentId }],
      `${run} is only guessed at ${Math.round(lengthMm)} mm: ${held} ${held === 1 ? 'wire is' : 'wires are'} held from cutting until it is measured.`,
      { measured: held, limit: 0 },
    );
  });
};
