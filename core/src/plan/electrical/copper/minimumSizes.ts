import type { MinimumSize } from '../../size/chooseConductors';

/** Thicker conductors, by loom and wire. */
export type MinimumSizes = ReadonlyMap<string, ReadonlyMap<string, MinimumSize>>;

/** The same sizes by the same rules, in the same order: the words may differ by a figure. */
export function isSameMinimum(
  one: ReadonlyMap<string, MinimumSize> | undefined,
  other: ReadonlyMap<string, MinimumSize> | undefined,
): boolean {
  if (one === other) return true;
  if ((one?.size ?? 0) !== (other?.size ?? 0)) return false;
  for (const [wireId, { conductor, ruledBy }] of one ?? []) {
    const same = other!.get(wireId);
    if (!same || same.conductor !== conductor || same.ruledBy !== ruledBy) return false;
  }
  return true;
}
