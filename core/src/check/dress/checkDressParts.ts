import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';

/** DR5, check: an end or breakout is to be closed, and no part of the shop closes it. */
export const checkDressParts: Rule = (context) => {
  const { plan, loom } = context;
  return [
    ...plan.endDress.flatMap(({ endId, bodyMm, leadMm, problem }): Finding[] =>
      problem === null
        ? []
        : [
            createFinding(
              context,
              'DR5',
              [{ kind: 'end', id: endId }],
              `Nothing of the shop closes ${loom.ends[endId]!.name}: ${bodyMm!.toFixed(1)} mm at its rear, ${leadMm.toFixed(1)} mm over the leg.`,
              { measured: leadMm },
            ),
          ],
    ),
    ...plan.breakoutDress.flatMap(({ nodeId, trunkSegmentId, trunkMm, legsMm, problem }): Finding[] =>
      problem === null
        ? []
        : [
            createFinding(
              context,
              'DR5',
              [{ kind: 'segment', id: trunkSegmentId }],
              `Nothing of the shop closes ${loom.nodes[nodeId]!.name}: ${trunkMm.toFixed(1)} mm over the trunk, legs of ${legsMm.map((mm) => mm.toFixed(1)).join(', ')} mm.`,
              { measured: trunkMm },
            ),
          ],
    ),
  ];
};

/** DR6, note: the leg is too thin for what closes on it and is built up; the pieces. */
export const checkBuildUps: Rule = (context) =>
  context.plan.endDress.flatMap(({ endId, leadMm, pieces }): Finding[] => {
    const built = pieces.filter(({ role }) => role === 'build-up');
    if (built.length === 0) return [];
    const over = pieces.at(-1)!;
    const words = built.map(({ itemName, cutMm, overMm }) => `${itemName}, ${cutMm} mm → ${overMm.toFixed(2)} mm`).join('; ');
    return [
      createFinding(
        context,
        'DR6',
        [{ kind: 'end', id: endId }],
        `The leg of ${context.loom.ends[endId]!.name}, ${leadMm.toFixed(1)} mm, is too thin for ${over.itemName}: built up with ${words}.`,
        { measured: leadMm },
      ),
    ];
  });
