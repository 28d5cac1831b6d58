import { toSizeWords } from '../catalogue';
import { toColourWords } from '../model';
import type { LoomPlan, PlannedWire } from '../plan';
import { compareIds } from '../units';

/** All wires that come off one reel: same conductor, insulation and colour. */
export interface CutGroup {
  id: string;
  /** "AWG 22 ETFE red/white" */
  reel: string;
  table: PlannedWire['conductor']['table'];
  size: string;
  colour: PlannedWire['colour'];
  wires: PlannedWire[];
  /** wires that must not be cut yet */
  held: PlannedWire[];
  /** to take off the reel now, mm: rough lengths of the wires not held */
  roughMm: number;
  /** the same as they will be finished, mm */
  finalMm: number;
}

/** The cut list of a loom, reel by reel. Longest first within a reel, so that a miscut can still make a shorter wire. */
export function listCuts(plan: LoomPlan): CutGroup[] {
  const groups = new Map<string, PlannedWire[]>();
  for (const wire of plan.wires) {
    const key = `${wire.conductor.table} ${wire.conductor.size} ${toColourWords(wire.colour)}`;
    groups.set(key, [...(groups.get(key) ?? []), wire]);
  }
  return [...groups.keys()].sort(compareIds).map((key) => {
    const all = groups.get(key)!.sort((a, b) => b.cutMm - a.cutMm || compareIds(a.number, b.number));
    const { conductor, colour } = all[0]!;
    const wires = all.filter(({ heldBy }) => heldBy.length === 0);
    return {
      id: key.replaceAll(/[ /]/g, '-'),
      reel: `${toSizeWords(conductor)} ${conductor.table === 'etfe' ? 'ETFE' : 'thin-wall'} ${toColourWords(colour)}`,
      table: conductor.table,
      size: conductor.size,
      colour,
      wires,
      held: all.filter(({ heldBy }) => heldBy.length > 0),
      roughMm: wires.reduce((sum, { roughMm }) => sum + roughMm, 0),
      finalMm: wires.reduce((sum, { cutMm }) => sum + cutMm, 0),
    };
  });
}
