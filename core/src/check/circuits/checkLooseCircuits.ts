import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** CI2, stop: a circuit that does not join two pins is not a circuit yet. */
export const checkLooseCircuits: Rule = (context) =>
  Object.keys(context.loom.circuits)
    .sort(compareIds)
    .flatMap((id) => {
      const { name, number, terminations } = context.loom.circuits[id]!;
      if (terminations.length >= 2) return [];
      return [
        createFinding(
          context,
          'CI2',
          [{ kind: 'circuit', id }],
          `Circuit ${number} (${name}) joins ${terminations.length} of at least 2 pins.`,
          { measured: terminations.length, limit: 2 },
        ),
      ];
    });
