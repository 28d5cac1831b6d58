import type { Step } from '../step';
import { TOUCHING } from './listProofs';

/**
 * Of every step that changes copper the tests and signatures that it voids when it is done over: all but those that it waits for itself, for
 * what is pinned after the test in the vehicle is tested there.
 */
export function listVoidedTests(steps: readonly Pick<Step, 'id' | 'operation' | 'needs'>[]): Map<string, string[]> {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const proofs = steps.filter(({ operation }) => operation === 'test' || operation === 'sign').map(({ id }) => id);
  const known = new Map<string, ReadonlySet<string>>();
  // steps come after what they need: each is known before it is asked for
  const before = (stepId: string): ReadonlySet<string> => {
    const found = known.get(stepId);
    if (found) return found;
    const made = new Set<string>();
    known.set(stepId, made);
    for (const need of byId.get(stepId)?.needs ?? []) {
      if (proofs.includes(need.stepId)) made.add(need.stepId);
      for (const one of before(need.stepId)) made.add(one);
    }
    return made;
  };
  for (const { id } of steps) before(id);
  return new Map(
    steps.flatMap(({ id, operation }) =>
      TOUCHING.has(operation) ? [[id, proofs.filter((proof) => !known.get(id)!.has(proof))] as const] : [],
    ),
  );
}
