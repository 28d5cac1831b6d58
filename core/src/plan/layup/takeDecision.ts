import type { Loom } from '../../model';
import type { LayupDecision, LayupStrip, Stretch } from './layupTypes';
import { listPresent } from './listPresent';

/** Stretches as a job keeps them. */
type Kept = Loom['laidUp'][string];

/**
 * A lay-up that was found before, for a strip as it is now; null where it does not fit: another wire lies there, one is gone, one was pinned
 * elsewhere since, or a breakout is no more.
 */
export function takeDecision(strip: LayupStrip, kept: Kept | undefined, pins: ReadonlyMap<string, number>): LayupDecision | null {
  if (!kept) return null;
  const starts = kept.map(({ fromNodeId }) =>
    fromNodeId === null ? 0 : strip.marks.findIndex(({ nodeId, kind }) => kind === 'breakout' && nodeId === fromNodeId),
  );
  const isInOrder = starts[0] === 0 && starts.every((start, at) => at === 0 || start > starts[at - 1]!);
  if (!isInOrder) return null;
  const stretches = kept.map(({ coreFillers, layers }, at): Stretch => {
    return { fromMark: starts[at]!, toMark: starts[at + 1] ?? strip.marks.length - 1, coreFillers, layers };
  });
  return stretches.every((stretch, at) => isFit(strip, stretch, pins, new Set(kept[at]!.unpinned))) ? { stretches } : null;
}

function isFit(
  strip: LayupStrip,
  { fromMark, toMark, layers, coreFillers }: Stretch,
  pins: ReadonlyMap<string, number>,
  unpinned: ReadonlySet<string>,
): boolean {
  const here = new Set(listPresent(strip, fromMark, toMark).map(({ thread }) => thread.id));
  const laid = layers.flat();
  const isSame = laid.length === here.size && new Set(laid).size === laid.length && laid.every((id) => here.has(id));
  const core = layers[0]!.length + coreFillers;
  const isSound = core >= 1 && core <= 5 && layers.slice(1).every((ids) => ids.length > 0);
  // what could not be put where it is pinned is known; a pin that came later is not
  return isSame && isSound && layers.every((ids, layer) => ids.every((id) => unpinned.has(id) || (pins.get(id) ?? layer) === layer));
}

/** A decision as a job keeps it. */
export const toKept = ({ marks }: LayupStrip, { stretches }: LayupDecision, pins: ReadonlyMap<string, number>): Kept =>
  stretches.map(({ fromMark, coreFillers, layers }) => ({
    fromNodeId: fromMark === 0 ? null : marks[fromMark]!.nodeId,
    coreFillers,
    layers: layers.map((ids) => [...ids]),
    unpinned: layers.flatMap((ids, layer) => ids.filter((id) => (pins.get(id) ?? layer) !== layer)),
  }));
