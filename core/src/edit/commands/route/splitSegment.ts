import { createNode, createSegment, type Loom } from '../../../model';
import type { Tree } from '../../../plan';
import { createId } from '../../createId';
import { toRun } from './toRun';

/**
 * Put a breakout or a pass-through into a segment, so far from its near side (mm, as planned). What lay beyond stays where
 * it is from the datum; splice places beyond move to the new segment with their distance kept. Changes the loom given.
 *
 * @returns the ids of the new node and of the new far segment
 * @throws RangeError where the place is not inside the segment
 */
export function splitSegment(
  loom: Loom,
  tree: Tree,
  { segmentId, offsetMm }: { segmentId: string; offsetMm: number },
  { kind, name, holeMm = null }: { kind: 'breakout' | 'pass'; name: string; holeMm?: number | null },
  ids: { nodeId?: string; segmentId?: string } = {},
): { nodeId: string; segmentId: string } {
  const segment = loom.segments[segmentId]!;
  const planned = tree.segments[segmentId]!;
  if (!(offsetMm > 0 && offsetMm < planned.lengthMm)) {
    throw new RangeError(`expected a place between 0 and ${Math.round(planned.lengthMm)} mm of this run, got ${offsetMm}`);
  }
  const nodeId = ids.nodeId ?? createId(loom.nodes, kind === 'pass' ? 'h' : 'b');
  const farId = ids.segmentId ?? createId(loom.segments, 's');
  loom.nodes[nodeId] = createNode(kind, name, { onwardSegmentId: farId, holeMm });
  loom.segments[farId] = createSegment(nodeId, planned.farNodeId, planned.lengthMm - offsetMm, {
    method: segment.method,
    status: segment.status,
    ticks: segment.ticks,
    zoneId: segment.zoneId,
    coveringPin: segment.coveringPin,
    slideOn: segment.slideOn,
  });
  loom.segments[segmentId] = {
    ...toRun({ ...segment, lengthMm: offsetMm, secondLengthMm: null }, offsetMm),
    fromNodeId: planned.nearNodeId,
    toNodeId: nodeId,
  };
  const far = loom.nodes[planned.farNodeId]!;
  if (far.onwardSegmentId === segmentId) loom.nodes[planned.farNodeId] = { ...far, onwardSegmentId: farId };
  for (const [id, pin] of Object.entries(loom.splicePins)) {
    if (pin.segmentId === segmentId && pin.offsetMm > offsetMm)
      loom.splicePins[id] = { ...pin, segmentId: farId, offsetMm: pin.offsetMm - offsetMm };
  }
  return { nodeId, segmentId: farId };
}
