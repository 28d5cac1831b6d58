import { isOffered } from '../../model';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';
import { pushTo } from '../../units';

/** PO13, check: more functions than conductors in a cable; a screen lies in the cable's screen, where it has one. The fix takes one that has enough. */
export const checkCables: Rule = (context) => {
  const { loom, catalogue } = context;
  const groups = new Map<string, string[]>();
  for (const [id, { cable }] of Object.entries(loom.circuits)) if (cable) pushTo(groups, cable.groupId, id);
  return [...groups].flatMap(([groupId, ids]): Finding[] => {
    const item = catalogue.cables.find(({ id }) => id === loom.circuits[ids[0]!]!.cable!.itemId)!;
    const screens = ids.filter((id) => loom.circuits[id]!.kind === 'screen');
    const needed = ids.length - (item.screened ? screens.length : 0);
    if (needed <= item.conductors) return [];
    const larger = catalogue.cables.find(
      ({ id, conductors, screened, size }) =>
        isOffered(catalogue, 'cables', id) &&
        size === item.size &&
        screened === (item.screened || screens.length > 0) &&
        conductors >= ids.length - (screened ? screens.length : 0),
    );
    return [
      createFinding(
        context,
        'PO13',
        ids.map((id) => ({ kind: 'circuit', id })),
        `Cable ${groupId} (${item.name}) has ${item.conductors} ${item.conductors === 1 ? 'conductor' : 'conductors'} for ${needed} functions.`,
        {
          measured: needed,
          limit: item.conductors,
          fix: larger
            ? {
                label: `Take ${larger.name}`,
                patch: ids.map((id) => ({
                  op: 'replace' as const,
                  path: `/looms/${context.loomId}/circuits/${id}/cable/itemId`,
                  value: larger.id,
                })),
              }
            : null,
        },
      ),
    ];
  });
};
