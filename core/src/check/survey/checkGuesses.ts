import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

/** SC1, stop: a wire to be cut rests on a guess: a length, or what a pin is. One finding a segment or pin. */
export const checkGuesses: Rule = (context) => {
  const { loom, plan } = context;
  const counts = new Map<string, number>();
  for (const wire of plan.wires) for (const { kind, id } of wire.heldBy) if (kind === 'segment') counts.set(id, (counts.get(id) ?? 0) + 1);
  return [
    ...checkPins(context),
    ...[...counts.keys()].sort(compareIds).map((segmentId) => {
      const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
      const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
      const held = counts.get(segmentId)!;
      return createFinding(
        context,
        'SC1',
        [{ kind: 'segment', id: segmentId }],
        `${run} is only guessed at ${Math.round(lengthMm)} mm: ${held} ${held === 1 ? 'wire is' : 'wires are'} held from cutting until it is measured.`,
        { measured: held, limit: 0 },
      );
    }),
  ];
};

function checkPins(context: RuleContext): Finding[] {
  const pins = new Map<string, string[]>();
  for (const { number, heldBy } of context.plan.wires) for (const { kind, id } of heldBy) if (kind === 'pin') pushTo(pins, id, number);
  return [...pins].map(([id, numbers]) => {
    const [endId, cavity] = id.split(' ') as [string, string];
    const end = context.loom.ends[endId]!;
    return createFinding(
      context,
      'SC1',
      [
        { kind: 'end', id: endId },
        { kind: 'circuit', id: `${endId}-${cavity}` },
      ],
      `What ${end.name} has at pin ${cavity} (${end.pins[cavity]!.function}) is only guessed: ${numbers.join(', ')} ${numbers.length === 1 ? 'is' : 'are'} held from cutting.`,
      { measured: numbers.length, limit: 0 },
    );
  });
}
