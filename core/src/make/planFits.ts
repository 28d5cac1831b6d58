import type { Loom } from '../model';
import type { LoomPlan, PlannedWire } from '../plan';
import type { Step } from './step';

type Need = Step['needs'][number];

/** Which step of the trial fit each piece of work waits for: all of it, or what was fitted before the rest (craft G1, A2). */
export interface Fits {
  /** runs fitted from the datum on while others are open, and wires that are final with that; null: all are, or none */
  first: { segmentIds: readonly string[]; wires: readonly PlannedWire[] } | null;
  /** of a covering: nothing of the wires in it moves any more on the way to it */
  ofRun: (segmentId: string, because: string) => Need;
  /** of an end: all its wires are final */
  ofEnd: (endId: string, because: string) => Need;
  /** of a joint in a run, of these wires */
  ofJoint: (segmentId: string, wireIds: readonly string[], because: string) => Need;
}

export const FIRST_FIT = 'fit.first';

/**
 * The trial fit in two parts where only some of a loom is fitted. A run is covered once it and all runs from the datum to it are fitted: wires
 * that run on find their length at the device end, which is open still. An end is closed once every run of its wires is.
 */
export function planFits(loom: Loom, { tree, wires, terminations }: Pick<LoomPlan, 'tree' | 'wires' | 'terminations'>): Fits {
  const isFitted = (id: string) => loom.segments[id]!.fittedMm !== null;
  const segmentIds = tree.nodeIds.flatMap((id) => tree.nodes[id]!.parentSegmentId ?? []);
  const ready = new Set<string>();
  for (const id of segmentIds) {
    const nearer = tree.nodes[tree.segments[id]!.nearNodeId]!.parentSegmentId;
    if (isFitted(id) && (nearer === null || ready.has(nearer))) ready.add(id);
  }
  const isSplit = ready.size > 0 && !segmentIds.every(isFitted);
  const final = new Set(isSplit ? wires.filter(({ unfittedIds }) => unfittedIds.length === 0).map(({ id }) => id) : []);
  const atEnd = new Map<string, string[]>();
  for (const { endId, wireIds } of terminations) atEnd.set(endId, [...(atEnd.get(endId) ?? []), ...wireIds]);
  const toNeed = (isFirst: boolean, because: string): Need => ({ stepId: isSplit && isFirst ? FIRST_FIT : 'fit', because });
  return {
    first: isSplit ? { segmentIds: segmentIds.filter((id) => ready.has(id)), wires: wires.filter(({ id }) => final.has(id)) } : null,
    ofRun: (segmentId, because) => toNeed(ready.has(segmentId), because),
    ofEnd: (endId, because) =>
      toNeed(
        (atEnd.get(endId) ?? ['']).every((id) => final.has(id)),
        because,
      ),
    ofJoint: (segmentId, wireIds, because) => toNeed(ready.has(segmentId) && wireIds.every((id) => final.has(id)), because),
  };
}
