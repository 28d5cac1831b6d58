import type { Loom } from '../../model';
import type { LoomPlan, Section } from '../../plan';

/** Wires of a section that leave its trunk at one place. */
export interface LeavingGroup {
  /** where: the name of a breakout, an end or a splice */
  name: string;
  kind: 'breakout' | 'end' | 'splice';
  distanceMm: number;
  wireIds: string[];
}

/** The wires of a section by where they leave the line that the bundle goes on along, the nearest first. */
export function listLeaving(loom: Loom, plan: LoomPlan, segmentId: string, section: Section): LeavingGroup[] {
  const { tree } = plan;
  const onward: string[] = [];
  for (let id: string | undefined = segmentId; id !== undefined; id = tree.nodes[tree.segments[id]!.farNodeId]!.childSegmentIds[0])
    onward.push(id);
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const groups = new Map<string, LeavingGroup>();
  for (const wireId of section.elements.flat()) {
    const { pieces, from, to } = wires.get(wireId)!;
    const pieceAt = new Map(pieces.map((piece) => [piece.segmentId, piece]));
    let last = segmentId;
    for (const id of onward) {
      if (!pieceAt.has(id)) break;
      last = id;
    }
    const { toMm } = pieceAt.get(last)!;
    const { farNodeId, startMm, lengthMm } = tree.segments[last]!;
    const isWithin = toMm < lengthMm - 1e-6;
    const ends = isWithin ? [from, to].flatMap((end) => (end.kind === 'splice' ? [end.spliceId] : [])) : [];
    const splice = plan.splices.find(
      ({ id, place }) => ends.includes(id) && place.segmentId === last && Math.abs(place.offsetMm - toMm) < 1,
    );
    const { kind, name } = loom.nodes[farNodeId]!;
    const place = splice
      ? ({ key: `s ${splice.id}`, kind: 'splice', name: splice.label, distanceMm: splice.distanceMm } as const)
      : ({ key: `n ${farNodeId}`, kind: kind === 'end' ? 'end' : 'breakout', name, distanceMm: startMm + lengthMm } as const);
    const { key, ...rest } = place;
    const group = groups.get(key);
    if (group) group.wireIds.push(wireId);
    else groups.set(key, { ...rest, wireIds: [wireId] });
  }
  return [...groups.values()].sort((a, b) => a.distanceMm - b.distanceMm);
}
