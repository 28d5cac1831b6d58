import type { Problem } from '../model';
import type { JobPlan, LoomPlan } from '../plan';

/** Where a command writes; the terminal unless a test says otherwise. */
export interface Output {
  out(text: string): void;
  error(text: string): void;
}

/** An input that is not as expected, with its place; ends the command with exit code 2. */
export class BadInput extends Error {
  constructor(readonly problems: Problem[]) {
    super('bad input');
  }
}

/** The loom that is asked for, the first where none is. */
export function findLoom({ looms }: JobPlan, loomId: string | undefined): LoomPlan {
  const found = loomId === undefined ? looms[0] : looms.find((one) => one.loomId === loomId);
  if (!found)
    throw new BadInput([{ path: '--loom', message: `expected one of ${looms.map((one) => one.loomId).join(', ')}, got "${loomId}"` }]);
  return found;
}
