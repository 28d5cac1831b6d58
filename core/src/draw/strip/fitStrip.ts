import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { createStrips, type Strip } from './createStrips';
import { packStrips } from './packStrips';
import { toX, type Detail, type StripOptions } from './stripDrawing';

/** The room that a strip should fit into. */
export interface StripRoom {
  width: number;
  height: number;
}

/**
 * How a loom is drawn so that it fits (docs/decisions/0018): as wide as its names allow, and with the most detail that its height allows.
 * details: the most first, each lower than the one before; the last is taken where none fits. before: how it was drawn until now in the same
 * room, which stays where it still fits, so that an edit does not throw branches about.
 */
export function fitStrip(
  loom: Loom,
  plan: LoomPlan,
  base: Pick<StripOptions, 'row' | 'left' | 'top' | 'text' | 'words' | 'zones'>,
  room: StripRoom,
  details: readonly Detail[],
  before: StripOptions | null = null,
): StripOptions {
  const strips = createStrips(plan);
  const scales = new Map<boolean, number>();
  const fit = (detail: Detail, given: StripOptions['sides'] = null) => {
    let scale = scales.get(detail.both);
    const options: StripOptions = { ...base, detail, sides: given, hint: detail.both ? before?.sides : null, scale: scale ?? 1 };
    if (scale === undefined) {
      scale = fitWidth(loom, plan, strips, options, room.width);
      scales.set(detail.both, scale);
    }
    options.scale = scale;
    const { bottom, sides } = packStrips(loom, plan, strips, options);
    return { bottom, options: { ...options, sides } };
  };
  if (before?.sides && strips.every(({ children }) => children.every(({ id }) => before.sides!.has(id)))) {
    const same = fit(before.detail, before.sides);
    if (same.bottom <= room.height) return same.options;
  }
  let [first, last] = [0, details.length - 1];
  while (first < last) {
    const middle = (first + last) >> 1;
    if (fit(details[middle]!).bottom <= room.height) last = middle;
    else first = middle + 1;
  }
  return fit(details[first]!).options;
}

/** Names never take more of the width than this. */
const MOST_NAMES = 0.75;

/**
 * Largest scale at which every strip and its name end within the width. The names do not shrink with it: what stands beyond the start and the
 * end of a strip at one scale does so at each.
 */
function fitWidth(loom: Loom, plan: LoomPlan, strips: readonly Strip[], options: StripOptions, width: number): number {
  const { rows } = packStrips(loom, plan, strips, options);
  const room = Math.max(1, width - options.left);
  const scales = rows.flatMap(({ strip, label }) => {
    const fromMm = label?.beside ? strip.startMm : strip.endMm;
    const beyond = label ? label.x + label.width - toX(options, fromMm) : 0;
    return [(room - beyond) / Math.max(1, fromMm), (room - options.text) / Math.max(1, strip.endMm)];
  });
  const reachMm = Math.max(1, ...rows.map(({ strip }) => strip.endMm));
  return Math.max(Math.min(room, ...scales), ((1 - MOST_NAMES) * room) / reachMm);
}
