import type { ShopStandard } from '../../catalogue';
import type { Loom } from '../../model';
import type { CrimpDeed } from './followCrimps';
import type { CrimpSeries } from './types';

/** A crimp that was made more often than length was kept for. */
export interface ShortCrimp {
  /** of its step and item */
  key: string;
  /** made in all */
  times: number;
  /** kept for it at its end */
  kept: number;
  shortMm: number;
}

/**
 * Crimps that used up what was kept for new terminations at their end (craft D3): each time one is opened and made again its wires lose a length.
 * Opened by mistake counts as opened: whoever ticks says what was done.
 */
export function listShort(
  series: readonly CrimpSeries[],
  deeds: readonly CrimpDeed[],
  { ends }: Pick<Loom, 'ends'>,
  { reterminations, reterminationMm }: Pick<ShopStandard, 'reterminations' | 'reterminationMm'>,
): ShortCrimp[] {
  const endOf = new Map<string, string>(
    series.flatMap(({ places }) =>
      // nothing is kept in the middle of a loom
      places.flatMap(({ stepId, itemId, endId }) => (endId === null ? [] : [[`${stepId} ${itemId}`, endId] as const])),
    ),
  );
  const loomIds = new Set(series.flatMap(({ places }) => places.map(({ loomId }) => loomId)));
  const times = new Map<string, number>();
  const made = new Set<string>();
  for (const { kind, loomId, stepId, itemId } of deeds) {
    const key = `${stepId} ${itemId}`;
    if (!endOf.has(key) || !loomIds.has(loomId)) continue;
    if (kind === 'untick') made.delete(key);
    if (kind !== 'tick' || made.has(key)) continue;
    made.add(key);
    times.set(key, (times.get(key) ?? 0) + 1);
  }
  return [...times].flatMap(([key, count]) => {
    const kept = ends[endOf.get(key)!]?.reterminations ?? reterminations;
    const over = count - 1 - kept;
    return over > 0 ? [{ key, times: count, kept, shortMm: over * reterminationMm }] : [];
  });
}

/** "crimped 4 times, length was kept for 2 new terminations: now short by 8 mm" */
export const toShortWords = ({ times, kept, shortMm }: ShortCrimp): string =>
  `crimped ${times} times, length was kept for ${kept} new ${kept === 1 ? 'termination' : 'terminations'}: now short by ${shortMm} mm`;
