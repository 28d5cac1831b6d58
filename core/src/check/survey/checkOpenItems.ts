import { isBlocking } from '../../model';
import { compareIds, toCount } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';
import { listHeld, toHeldWords } from './listHeld';

/** SC2: work rests on an open item. One finding an item; stop where wires are not cut for it, check where what comes later waits. */
export const checkOpenItems: Rule = (context) => {
  const held = listHeld(context.plan.wires, 'item').map(({ id, stops, numbers, grade }) => {
    const words = toHeldWords(toCount(numbers.length, 'wire'), numbers.length, stops);
    return toFinding(context, id, words, { grade, measured: numbers.length, limit: 0 });
  });
  const told = new Set(held.flatMap(({ places }) => places.map(({ id }) => id)));
  return [...held, ...checkCovers(context, told)];
};

/** What waits for its covering has perhaps no wire yet. */
function checkCovers(context: RuleContext, told: ReadonlySet<string>): Finding[] {
  const { job, loomId } = context;
  return Object.keys(job.openItems)
    .sort(compareIds)
    .filter((id) => {
      const item = job.openItems[id]!;
      return item.stops === 'cover' && !told.has(id) && isBlocking(item) && item.blocks.some((block) => block.loomId === loomId);
    })
    .map((id) => toFinding(context, id, 'what it blocks is held from covering', { grade: 'check' }));
}

function toFinding(context: RuleContext, id: string, held: string, rest: Parameters<typeof createFinding>[4]): Finding {
  const { question, answer, owner } = context.job.openItems[id]!;
  const state = answer === null ? 'is open' : `is answered by a guess only ("${answer}")`;
  const words = `"${question}" ${state}: ${held}.${owner ? ` ${owner} finds it out.` : ''}`;
  return createFinding(context, 'SC2', [{ kind: 'item', id }], words, rest);
}
