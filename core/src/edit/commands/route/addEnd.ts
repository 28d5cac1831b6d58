import { createEnd, createNode, createSegment, type End, type Loom, type Segment } from '../../../model';
import { createId } from '../../createId';

/**
 * Put a new end on the loom: at the datum where that is free and asked for, else on a leg of its own from a node.
 * Changes the loom given.
 *
 * @returns the id of the end
 * @throws RangeError where the datum has its end already, where the place without a leg is neither the datum nor a free end, or where
 * the leg would leave from an end
 */
export function addEnd(
  loom: Loom,
  place: { nodeId: string; legMm: number | null },
  name: string,
  familyId: string | null,
  end: Partial<End> = {},
  segment: Partial<Segment> = {},
): string {
  const endId = createId(loom.ends, 'e');
  const node = loom.nodes[place.nodeId]!;
  if (place.legMm === null) {
    const taken = Object.values(loom.ends).find(({ nodeId }) => nodeId === place.nodeId);
    if (node.kind !== 'datum' && node.kind !== 'end') throw new RangeError(`expected the datum or a free end, got ${node.name}`);
    if (taken) throw new RangeError(`expected a free place at ${node.name}, got ${taken.name} there`);
    loom.ends[endId] = createEnd(place.nodeId, name, familyId, end);
    return endId;
  }
  if (node.kind === 'end') throw new RangeError(`expected a breakout, a hole or the datum, got the end ${node.name}`);
  const nodeId = createId(loom.nodes, 'n');
  const segmentId = createId(loom.segments, 's');
  loom.nodes[nodeId] = createNode('end', name);
  loom.segments[segmentId] = createSegment(place.nodeId, nodeId, place.legMm, segment);
  loom.ends[endId] = createEnd(nodeId, name, familyId, end);
  return endId;
}
