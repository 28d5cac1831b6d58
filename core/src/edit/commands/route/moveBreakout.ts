import type { Loom } from '../../../model';
import type { Tree } from '../../../plan';
import { toRun } from './toRun';

const LEAST_MM = 5;

/**
 * Slide a breakout or pass-through along its strip by so many mm (away from the datum: more): the run before it grows, the
 * one that goes on shrinks, so that everything beyond stays where it was; branches keep their lengths. Held to at least 5 mm
 * of run on either side. Changes the loom given.
 *
 * @returns the distance really moved
 */
export function moveBreakout(loom: Loom, tree: Tree, nodeId: string, byMm: number): number {
  const { parentSegmentId, childSegmentIds } = tree.nodes[nodeId]!;
  if (parentSegmentId === null) return 0;
  const onwardId = childSegmentIds[0];
  const before = tree.segments[parentSegmentId]!.lengthMm;
  const after = onwardId === undefined ? Infinity : tree.segments[onwardId]!.lengthMm;
  const moved = Math.round(Math.max(LEAST_MM - before, Math.min(byMm, after - LEAST_MM)));
  if (moved === 0) return 0;
  loom.segments[parentSegmentId] = toRun(loom.segments[parentSegmentId]!, before + moved);
  if (onwardId !== undefined) loom.segments[onwardId] = toRun(loom.segments[onwardId]!, after - moved);
  return moved;
}
