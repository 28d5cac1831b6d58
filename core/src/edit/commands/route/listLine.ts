import type { Loom } from '../../../model';
import type { Tree } from '../../../plan';

/** One mark on a line that is read off a tape. */
export interface LineMark {
  nodeId: string;
  /** the run that ends at it */
  segmentId: string;
  /** from the zero of the line, mm */
  atMm: number;
}

/**
 * Marks along a line in their order: from its zero by its first run, then on by the run that a node says it goes on by, or by
 * the only one out of a hole. Legs that leave at its last breakout are lines of their own. A line that has not begun
 * (viaSegmentId null) has no marks; nor has one whose first run is gone.
 */
export function listLine(loom: Loom, tree: Tree, zeroNodeId: string, viaSegmentId: string | null): LineMark[] {
  const marks: LineMark[] = [];
  let segmentId: string | undefined = viaSegmentId ?? undefined;
  let atMm = 0;
  while (segmentId !== undefined) {
    const segment: Tree['segments'][string] | undefined = tree.segments[segmentId];
    if (!segment || (marks.length === 0 && segment.nearNodeId !== zeroNodeId)) return [];
    atMm += segment.lengthMm;
    marks.push({ nodeId: segment.farNodeId, segmentId, atMm });
    const { kind, onwardSegmentId } = loom.nodes[segment.farNodeId]!;
    const { childSegmentIds }: Tree['nodes'][string] = tree.nodes[segment.farNodeId]!;
    segmentId =
      onwardSegmentId !== null && childSegmentIds.includes(onwardSegmentId)
        ? onwardSegmentId
        : kind === 'pass'
          ? childSegmentIds[0]
          : undefined;
  }
  return marks;
}
