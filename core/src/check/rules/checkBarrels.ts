import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** BU2, check: no crimp barrel holds the conductors of a splice. */
export const checkBarrels: Rule = (context) =>
  context.plan.barrels
    .filter(({ barrelId }) => barrelId === null)
    .map(({ spliceId, areaMm2, wireIds }) => {
      const label = context.plan.splices.find(({ id }) => id === spliceId)!.label;
      return createFinding(
        context,
        'BU2',
        'check',
        [{ kind: 'splice', id: spliceId }],
        `No barrel holds splice ${label}: ${wireIds.length} wires, ${areaMm2.toFixed(2)} mm² on the fuller side.`,
        { measured: areaMm2, limit: Math.max(...context.catalogue.barrels.map(({ maxAreaMm2 }) => maxAreaMm2)) },
      );
    });
