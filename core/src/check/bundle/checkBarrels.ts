import { isOffered } from '../../model';
import { createFinding } from '../createFinding';
import type { Finding, FindingPlace, Rule } from '../types';
import { toCount } from '../../units';

/** BU2, check: no crimp barrel holds the conductors of a splice, or more wires arrive on one side of it than the shop crimps. */
export const checkBarrels: Rule = (context) =>
  context.plan.barrels.flatMap(({ barrelId, spliceId, areaMm2, wireIds, sides }): Finding[] => {
    const label = context.plan.splices.find(({ id }) => id === spliceId)!.label;
    const { barrelKind, spliceMostWires } = context.standard;
    const most = Math.max(sides.near.length, sides.far.length);
    const places: FindingPlace[] = [{ kind: 'splice', id: spliceId }];
    if (barrelId === null) {
      const limit = Math.max(
        ...context.catalogue.barrels
          .filter(({ id, kind }) => kind === barrelKind && isOffered(context.catalogue, 'barrels', id))
          .map(({ maxAreaMm2 }) => maxAreaMm2),
      );
      const what = barrelKind === 'butt' ? 'on the fuller side' : 'in all';
      const words = `No barrel holds splice ${label}: ${toCount(wireIds.length, 'wire')}, ${areaMm2.toFixed(2)} mm² ${what}.`;
      return [createFinding(context, 'BU2', places, words, { measured: areaMm2, limit })];
    }
    if (most <= spliceMostWires) return [];
    const words = `${most} wires arrive on one side of splice ${label}; the shop crimps ${spliceMostWires}: make two splices of it, or a distribution stud.`;
    return [createFinding(context, 'BU2', places, words, { measured: most, limit: spliceMostWires })];
  });
