import type { Step } from 'wattograph-core';
import type { FloorProgress } from '../../../server/floorEvent';

/**
 * What is open again with crimps that are cut off: the crimps, and where they are in their housing already, their seats; the lock of that housing
 * too. Only what is ticked.
 */
export function listOpenedWith(
  steps: readonly Step[],
  crimp: Pick<Step, 'id' | 'endId' | 'items'>,
  itemIds: readonly string[],
  progress: ReadonlyMap<string, Pick<FloorProgress, 'ticked'>>,
): { stepId: string; itemId: string }[] {
  const cavities = new Set(crimp.items.filter(({ id }) => itemIds.includes(id)).map(({ cavity }) => cavity));
  const seats = steps.filter(({ operation, endId }) => operation === 'seat' && endId === crimp.endId);
  const opened = [
    ...itemIds.map((itemId) => ({ stepId: crimp.id, itemId })),
    ...seats.flatMap(({ id, items }) => {
      const taken = items.filter(({ cavity }) => cavity !== null && cavities.has(cavity));
      const isSeated = taken.some((item) => progress.get(id)?.ticked.has(item.id));
      const locks = isSeated ? items.filter(({ cavity }) => cavity === null) : [];
      return [...taken, ...locks].map((item) => ({ stepId: id, itemId: item.id }));
    }),
  ];
  return opened.filter(({ stepId, itemId }) => progress.get(stepId)?.ticked.has(itemId));
}
