import { findSurroundings } from '../../model';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** RO2, check: where it lies is hotter than the covering stands. */
export const checkHeat: Rule = (context) =>
  context.plan.coverings.flatMap((covering): Finding[] => {
    const zone = findSurroundings(context.job.zones, context.loom.segments[covering.segmentId]!, context.standard.hotTickC);
    const item = context.catalogue.coverings.find(({ id }) => id === covering.itemId);
    if (!item || zone === null || zone.ambientC === null || zone.ambientC <= item.limitC) return [];
    return [
      createFinding(
        context,
        'RO2',
        [{ kind: 'segment', id: covering.segmentId }],
        `${item.name} stands ${item.limitC} °C; ${zone.name} reaches ${zone.ambientC} °C.`,
        { measured: zone.ambientC, limit: item.limitC },
      ),
    ];
  });
