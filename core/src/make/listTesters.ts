import { dropOvertaken, type SeenTick } from './dropOvertaken';
import type { Step } from './step';

/** Who has tested the loom, as far as it stands: whoever looks it over and signs is somebody else. */
export function listTesters(
  steps: readonly Pick<Step, 'id' | 'operation'>[],
  events: readonly (SeenTick & { author: string })[],
): string[] {
  const tests = new Set(steps.filter(({ operation }) => operation === 'test').map(({ id }) => id));
  const standing = new Map<string, string>();
  for (const { itemId, kind, author } of dropOvertaken(events.filter((event) => tests.has(event.stepId)))) {
    if (kind === 'tick') standing.set(itemId, author);
    else if (kind === 'untick') standing.delete(itemId);
  }
  return [...new Set(standing.values())];
}
