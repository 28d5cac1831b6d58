import type { Loom } from '../model';
import type { LoomPlan, PlannedWire } from '../plan';
import { compareIds } from '../units';

/** What comes off one wire after the trial fit. */
export interface Trim {
  wireId: string;
  number: string;
  /** as it was cut before the fit, mm */
  cutMm: number;
  /** as it has to be, mm; null while a run on its way is not fitted */
  finalMm: number | null;
  /** comes off here, mm; negative: it is too short by that; null with finalMm */
  offMm: number | null;
  /** names of the runs still to be fitted */
  waitsFor: string[];
}

export interface TrimGroup {
  /** the end that the wires are trimmed at; null: at a splice */
  endId: string | null;
  name: string;
  trims: Trim[];
}

/**
 * The trim sheet: per end, how much comes off each wire. A wire is trimmed at its end further from the datum, for the anchor
 * end is filled first; one from the anchor to a splice is trimmed at the splice. cutMm: lengths it was cut to, by wire number, where they are known; else its first cut by the readings.
 */
export function listTrims(loom: Loom, plan: LoomPlan, cutMm: ReadonlyMap<string, number> = new Map()): TrimGroup[] {
  const groups = new Map<string, TrimGroup>();
  for (const wire of plan.wires) {
    const endId = findTrimEnd(loom, plan, wire);
    const key = endId ?? '';
    if (!groups.has(key)) groups.set(key, { endId, name: endId === null ? 'at splices' : loom.ends[endId]!.name, trims: [] });
    const cut = cutMm.get(wire.number) ?? wire.firstCutMm;
    const isFinal = wire.unfittedIds.length === 0;
    groups.get(key)!.trims.push({
      wireId: wire.id,
      number: wire.number,
      cutMm: cut,
      finalMm: isFinal ? wire.cutMm : null,
      offMm: isFinal ? cut - wire.cutMm : null,
      waitsFor: wire.unfittedIds.map((id) => loom.nodes[plan.tree.segments[id]!.farNodeId]!.name),
    });
  }
  const distance = ({ endId }: TrimGroup) => (endId === null ? Infinity : plan.tree.nodes[loom.ends[endId]!.nodeId]!.distanceMm);
  return [...groups.values()].sort((a, b) => distance(a) - distance(b) || compareIds(a.name, b.name));
}

function findTrimEnd(loom: Loom, plan: LoomPlan, wire: PlannedWire): string | null {
  const ends = [wire.from, wire.to].flatMap((end) => (end.kind === 'cavity' ? [end.endId] : []));
  const isSpliced = ends.length < 2;
  const distance = (endId: string) => plan.tree.nodes[loom.ends[endId]!.nodeId]!.distanceMm;
  const [first, second] = ends;
  if (first === undefined || (isSpliced && distance(first) === 0)) return null;
  return second === undefined || distance(first) >= distance(second) ? first : second;
}
