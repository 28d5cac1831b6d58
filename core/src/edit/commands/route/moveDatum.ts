import type { Loom } from '../../../model';
import type { Tree } from '../../../plan';

const LEAST_MM = 5;

/**
 * Move the zero along the loom by so many mm (away from the ends: more). Every run at the datum grows by that, so every wire
 * that begins there does too. What was fitted or rough-cut there was so from the old zero: it counts as roped again until it
 * is fitted anew. Changes the loom given.
 *
 * @returns ids of the runs that lost their status
 * @throws RangeError while the datum is clamped, or where a run at it would be shorter than 5 mm
 */
export function moveDatum(loom: Loom, tree: Tree, byMm: number): string[] {
  if (loom.clampedBy !== null)
    throw new RangeError(`expected a datum that is not clamped, got one clamped by ${loom.clampedBy}: take the clamp off first`);
  const { childSegmentIds } = tree.nodes[tree.datumId]!;
  const shortest = Math.min(...childSegmentIds.map((id) => tree.segments[id]!.lengthMm));
  if (shortest + byMm < LEAST_MM)
    throw new RangeError(
      `expected a move of at least ${LEAST_MM - Math.floor(shortest)} mm, got ${byMm}: the first run is ${Math.round(shortest)} mm`,
    );
  return childSegmentIds.filter((id) => {
    const segment = loom.segments[id]!;
    const lost = segment.status === 'fitted' || segment.status === 'rough-cut';
    loom.segments[id] = {
      ...segment,
      lengthMm: tree.segments[id]!.lengthMm + byMm,
      secondLengthMm: null,
      fittedMm: null,
      status: lost ? 'roped' : segment.status,
      method: segment.method === 'fitted' ? 'tape' : segment.method,
    };
    return lost;
  });
}
