import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** MA2, check: no label goes over a wire and grips it. */
export const checkLabels: Rule = (context) =>
  context.plan.wires
    .filter(({ labelId }) => labelId === null)
    .map(({ id, number, conductor }) =>
      createFinding(context, 'MA2', [{ kind: 'wire', id }], `No marker sleeve fits ${number} (${conductor.odMm} mm).`, {
        measured: conductor.odMm,
      }),
    );
