import { toColourWords } from '../../model';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** EN4, note: wires of one colour and size go into one housing; only their numbers tell them apart. */
export const checkLookAlikeWires: Rule = (context) => {
  const wires = new Map(context.plan.wires.map((wire) => [wire.id, wire]));
  return Object.keys(context.loom.ends)
    .sort(compareIds)
    .flatMap((endId) => {
      const alike = new Map<string, string[]>();
      for (const { wireIds } of context.plan.terminations.filter((one) => one.endId === endId)) {
        for (const id of wireIds) {
          const { colour, conductor, number } = wires.get(id)!;
          const look = `${toColourWords(colour)}`;
          alike.set(`${look} ${conductor.odMm}`, [...new Set([...(alike.get(`${look} ${conductor.odMm}`) ?? [look]), number])]);
        }
      }
      return [...alike.values()]
        .filter(([, ...numbers]) => numbers.length > 1)
        .map(([look, ...numbers]) =>
          createFinding(
            context,
            'EN4',
            [
              { kind: 'end', id: endId },
              { kind: 'loom', id: numbers[0]! },
            ],
            `${numbers.join(', ')} look alike (${look}) in ${context.loom.ends[endId]!.name}: go by the printed numbers.`,
            { measured: numbers.length, limit: 1 },
          ),
        );
    });
};
