import { DOUBT_WORDS } from '../../model';
import { toCount } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';
import { listHeld, toHeldWords } from './listHeld';

/**
 * SC1: work rests on a guess: a length, or what a pin is. One finding a segment, or pin; stop where wires are not cut for it, check where
 * they are and what comes later waits.
 */
export const checkGuesses: Rule = (context) => {
  const { loom, plan } = context;
  return [
    ...checkPins(context),
    ...checkCoiled(context),
    ...listHeld(plan.wires, 'segment').map(({ id: segmentId, stops, numbers, grade }) => {
      const { nearNodeId, farNodeId, lengthMm } = plan.tree.segments[segmentId]!;
      const run = `${loom.nodes[nearNodeId]!.name} to ${loom.nodes[farNodeId]!.name}`;
      const held = toHeldWords(toCount(numbers.length, 'wire'), numbers.length, stops);
      return createFinding(
        context,
        'SC1',
        [{ kind: 'segment', id: segmentId }],
        `${run} is only guessed at ${Math.round(lengthMm)} mm: ${held} until it is measured.`,
        { grade, measured: numbers.length, limit: 0 },
      );
    }),
  ];
};

function checkCoiled(context: RuleContext): Finding[] {
  return listHeld(context.plan.wires, 'device').map(({ id, numbers, grade, stops }) => {
    const { name, at } = context.job.devices[id]!;
    return createFinding(
      context,
      'SC1',
      [{ kind: 'end', id: at!.endId }],
      `Where ${name} goes is not known, its leg is left coiled: ${toHeldWords(numbers.join(', '), numbers.length, stops)}.`,
      { grade, measured: numbers.length, limit: 0 },
    );
  });
}

function checkPins(context: RuleContext): Finding[] {
  return listHeld(context.plan.wires, 'pin').map(({ id, stops, numbers, grade }) => {
    const [endId, cavity] = id.split(' ') as [string, string];
    const end = context.loom.ends[endId]!;
    const pin = end.pins[cavity]!;
    const what = pin.doubts.length === 0 ? '' : ` (${pin.doubts.map((doubt) => DOUBT_WORDS[doubt]).join(', ')})`;
    return createFinding(
      context,
      'SC1',
      [
        { kind: 'end', id: endId },
        { kind: 'circuit', id: `${endId}-${cavity}` },
      ],
      `What ${end.name} has at pin ${cavity} (${pin.function}) is only guessed${what}: ${toHeldWords(numbers.join(', '), numbers.length, stops)}.`,
      { grade, measured: numbers.length, limit: 0 },
    );
  });
}
