import type { PlannedLoom } from '../../client/jobContext';
import type { Cursor } from '../cursor';

/** One step with the arrow keys: along the run, over its ends, into the next branch and back. */
export function walk({ plan }: PlannedLoom, at: Cursor, key: string, stepMm: number): Cursor | null {
  const { tree } = plan;
  const segment = tree.segments[at.segmentId];
  if (!segment) return null;
  const far = tree.nodes[segment.farNodeId]!;
  if (key === 'ArrowRight') {
    if (at.offsetMm + stepMm <= segment.lengthMm) return { ...at, offsetMm: at.offsetMm + stepMm };
    const next = far.childSegmentIds[0];
    return next
      ? { segmentId: next, offsetMm: Math.min(tree.segments[next]!.lengthMm, at.offsetMm + stepMm - segment.lengthMm) }
      : { ...at, offsetMm: segment.lengthMm };
  }
  if (key === 'ArrowLeft') {
    if (at.offsetMm >= stepMm) return { ...at, offsetMm: at.offsetMm - stepMm };
    const before = tree.nodes[segment.nearNodeId]!.parentSegmentId;
    return before
      ? { segmentId: before, offsetMm: Math.max(0, tree.segments[before]!.lengthMm + at.offsetMm - stepMm) }
      : { ...at, offsetMm: 0 };
  }
  if (key === 'ArrowDown') {
    const siblings = segment.onward ? [] : tree.nodes[segment.nearNodeId]!.childSegmentIds.slice(1);
    const branch = siblings[siblings.indexOf(at.segmentId) + 1] ?? far.childSegmentIds[1];
    return branch ? { segmentId: branch, offsetMm: 0 } : null;
  }
  if (key === 'ArrowUp') {
    const before = tree.nodes[segment.nearNodeId]!.parentSegmentId;
    return before ? { segmentId: before, offsetMm: tree.segments[before]!.lengthMm } : null;
  }
  return null;
}
