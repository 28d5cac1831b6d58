import type { Step } from '../step';
import type { Claim } from './listClaims';
import type { Work } from './listWork';
import type { StepProgress } from './measureProgress';

/** The next step that can be done now, after another one or from the first: of a lane of one's own before one that nobody has. null: none. */
export function findNext(
  work: readonly Work[],
  claims: ReadonlyMap<string, readonly Claim[]>,
  author: string,
  after: string | null,
): Work | null {
  const from = after === null ? 0 : work.findIndex(({ step }) => step.id === after) + 1;
  const ready = [...work.slice(from), ...work.slice(0, from)].filter(({ state, step }) => state === 'ready' && step.id !== after);
  const who = ({ lane }: Work) => (lane === null ? [] : (claims.get(lane) ?? []).map((claim) => claim.author));
  const here = after === null ? null : work[from - 1]!.lane;
  return (
    ready.find((one) => one.lane !== null && one.lane === here) ??
    ready.find((one) => who(one).includes(author)) ??
    ready.find((one) => who(one).length === 0) ??
    null
  );
}

/** Where to go on: the first step with something left that can be done now; the last where nothing is left. */
export function findResume(steps: readonly Step[], progress: ReadonlyMap<string, Pick<StepProgress, 'ticked' | 'failed'>>): number {
  const at = steps.findIndex((step) =>
    step.items.some(({ id, heldBecause }) => {
      const { ticked, failed } = progress.get(step.id)!;
      return heldBecause === null && (!ticked.has(id) || failed.has(id));
    }),
  );
  return at < 0 ? Math.max(0, steps.length - 1) : at;
}
