import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** PO1, check: more rings on one stud than the shop allows. */
export const checkStuds: Rule = (context) => {
  const rings = new Map<string, number>();
  for (const { endId } of context.plan.terminations) {
    if (context.loom.ends[endId]!.kind === 'ring') rings.set(endId, (rings.get(endId) ?? 0) + 1);
  }
  return [...rings]
    .filter(([, count]) => count > context.standard.ringsOnStud)
    .map(([endId, count]) =>
      createFinding(
        context,
        'PO1',
        [{ kind: 'end', id: endId }],
        `${count} rings on ${context.loom.ends[endId]!.name}; the shop stacks ${context.standard.ringsOnStud}: fit a distribution post.`,
        { measured: count, limit: context.standard.ringsOnStud },
      ),
    );
};
