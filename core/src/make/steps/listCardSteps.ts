import type { Operation, Step } from '../step';

/** Where each kind of work is done; null: at none of the posts that a card is for. */
const POST_OF: Readonly<Record<Operation, string | null>> = {
  undo: null,
  ...{ cut: 'cut', mark: 'cut' },
  ...{ screen: 'crimp', seal: 'crimp', thread: 'crimp', crimp: 'crimp', bunch: 'crimp', seat: 'crimp', plug: 'crimp' },
  ...{ ring: 'crimp', pot: 'crimp', wait: 'crimp' },
  ...{ lay: 'board', splice: 'board', fit: 'board', tie: 'board', photo: 'board' },
  ...{ twist: 'twist', layup: 'twist' },
  ...{ slide: 'sleeve', cover: 'sleeve', label: 'sleeve', boot: 'sleeve', shrink: 'sleeve', close: 'sleeve' },
  ...{ test: 'test', sign: 'test' },
  ...{ yes: null, visit: 'vehicle', fabricate: 'vehicle' },
  ...{ route: 'vehicle', clip: 'vehicle', torque: 'vehicle', depin: 'vehicle' },
};

export const toPost = (operation: Operation): string | null => POST_OF[operation];

/**
 * Steps that a card of the pack is about, in their order: `cut <reel>`, `end <end>`, `test <end>`, `fork <breakout>`, `dress <end>`, `late <end>` (closed in the vehicle),
 * `post <post>`, `step <id>`. Empty where there are none, as
 * on a card that is older than the revision.
 */
export function listCardSteps(steps: readonly Step[], card: string): Step[] {
  const space = card.indexOf(' ');
  const [kind, id] = [card.slice(0, space), card.slice(space + 1)];
  const at = (post: string, isHere: (step: Step) => boolean = () => true) =>
    steps.filter((step) => POST_OF[step.operation] === post && isHere(step));
  if (kind === 'step') return steps.filter((step) => step.id === id);
  if (kind === 'cut') return steps.filter((step) => step.id === `cut.${id}`);
  if (kind === 'end') return at('crimp', ({ endId }) => endId === id);
  if (kind === 'fork') return at('sleeve', (step) => step.id === `fork.${id}` || step.id === `forkclose.${id}`);
  if (kind === 'dress') return at('sleeve', ({ endId }) => endId === id);
  if (kind === 'late') return steps.filter(({ endId, operation }) => endId === id && POST_OF[operation] !== 'sleeve');
  if (kind === 'test') {
    const ofEnd = at('test', ({ endId }) => endId === id);
    return ofEnd.length > 0 ? ofEnd : at('test');
  }
  // a kit is complete when the cutting begins
  return kind === 'post' ? at(id === 'kit' ? 'cut' : id) : [];
}
