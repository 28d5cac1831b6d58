import type { Operation, Step } from '../step';

/** Which work is done at a post. */
const AT_POST: Readonly<Record<string, readonly Operation[]>> = {
  kit: ['cut'],
  cut: ['cut', 'mark'],
  crimp: ['screen', 'seal', 'thread', 'crimp', 'bunch', 'seat', 'plug', 'ring', 'pot', 'wait'],
  board: ['lay', 'splice', 'fit'],
  twist: ['twist', 'layup'],
  sleeve: ['slide', 'cover', 'label', 'boot', 'shrink', 'close'],
  test: ['test', 'sign'],
  vehicle: ['route', 'clip', 'torque', 'depin'],
};

/**
 * Steps that a card of the pack is about, in their order: `cut <reel>`, `end <end>`, `test <end>`, `post <post>`. Empty where there are none, as
 * on a card that is older than the revision.
 */
export function listCardSteps(steps: readonly Step[], card: string): Step[] {
  const space = card.indexOf(' ');
  const [kind, id] = [card.slice(0, space), card.slice(space + 1)];
  const at = (post: string, isHere: (step: Step) => boolean = () => true) =>
    steps.filter((step) => (AT_POST[post] ?? []).includes(step.operation) && isHere(step));
  if (kind === 'cut') return steps.filter((step) => step.id === `cut.${id}`);
  if (kind === 'end') return at('crimp', ({ endId }) => endId === id);
  if (kind === 'test') {
    const ofEnd = at('test', ({ endId }) => endId === id);
    return ofEnd.length > 0 ? ofEnd : at('test');
  }
  return kind === 'post' && Object.hasOwn(AT_POST, id) ? at(id) : [];
}
