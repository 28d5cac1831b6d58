import { createFinding } from '../createFinding';
import type { Rule } from '../types';

/** SC2, stop: wires to be cut rest on an open item. One finding an item. */
export const checkOpenItems: Rule = (context) => {
  const counts = new Map<string, number>();
  for (const wire of context.plan.wires)
    for (const { kind, id } of wire.heldBy) if (kind === 'item') counts.set(id, (counts.get(id) ?? 0) + 1);
  return [...counts].map(([id, held]) => {
    const { question, answer, owner } = context.job.openItems[id]!;
    const state = answer === null ? 'is open' : `is answered by a guess only ("${answer}")`;
    return createFinding(
      context,
      'SC2',
      [{ kind: 'item', id }],
      `"${question}" ${state}: ${held} ${held === 1 ? 'wire is' : 'wires are'} held from cutting.${owner ? ` ${owner} finds it out.` : ''}`,
      { measured: held, limit: 0 },
    );
  });
};
