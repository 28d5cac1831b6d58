import { toCount } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule } from '../types';
import { listHeld, toHeldWords } from './listHeld';

/** SC7, stop: wires of a loom pass an anchor that is not fixed. One finding an anchor; what does not pass it may be cut (craft G2). */
export const checkOpenAnchors: Rule = (context) =>
  listHeld(context.plan.wires, 'anchor').map(({ id, numbers, stops }) => {
    const { name, nodes } = context.job.anchors[id]!;
    const here = nodes.filter(({ loomId }) => loomId === context.loomId).map(({ nodeId }) => nodeId);
    const all = context.plan.wires.length;
    const rest = numbers.length === all ? '' : ` The other ${all - numbers.length} do not pass it.`;
    return createFinding(
      context,
      'SC7',
      [...here.map((nodeId) => ({ kind: 'node' as const, id: nodeId })), { kind: 'item', id }],
      `The place of the ${name} is open: ${toHeldWords(`${toCount(numbers.length, 'wire')} of ${context.loom.name}`, numbers.length, stops)}.${rest}`,
      { measured: numbers.length, limit: 0 },
    );
  });

/**
 * Does a stop finding stand only for wires that the plan holds anyway? Then the rest of the job can be released without it: the crew is
 * given what is held as held.
 */
export const isHeldInPlan = ({ code, loomId }: Pick<Finding, 'code' | 'loomId'>): boolean =>
  code === 'SC1' || code === 'SC2' || (code === 'SC7' && loomId !== '');
