import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** RO2, check: the zone is hotter than the covering stands. */
export const checkHeat: Rule = (context) =>
  context.plan.coverings.flatMap((covering): Finding[] => {
    const { zoneId } = context.loom.segments[covering.segmentId]!;
    const item = context.catalogue.coverings.find(({ id }) => id === covering.itemId);
    if (zoneId === null || !item) return [];
    const zone = context.job.zones[zoneId]!;
    if (zone.ambientC <= item.limitC) return [];
    return [
      createFinding(
        context,
        'RO2',
        'check',
        [{ kind: 'segment', id: covering.segmentId }],
        `${item.name} stands ${item.limitC} °C; ${zone.name} reaches ${zone.ambientC} °C.`,
        { measured: zone.ambientC, limit: item.limitC },
      ),
    ];
  });
