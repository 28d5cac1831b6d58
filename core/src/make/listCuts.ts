import { toWireWords } from '../catalogue';
import { toInsulationWords } from '../model';
import { isHeldFromCutting, type LoomPlan, type PlannedWire } from '../plan';
import { compareIds, pushTo } from '../units';

/** All wires that come off one reel: same conductor, insulation and colour; or all that lie in one piece of cable. */
export interface CutGroup {
  id: string;
  /** item of the cable that is cut as one piece, as long as the longest in it; null: single wires */
  cableId: string | null;
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

/** What is cut off a reel at one stroke: a wire, or a cable with all its conductors, as long as the longest of them. */
export interface CutPiece {
  wires: PlannedWire[];
  isHeld: boolean;
  roughMm: number;
  cutMm: number;
}

/** The pieces of a reel in the order of its list: a cable is one. */
export function listCutPieces({ cableId, wires, held }: CutGroup): CutPiece[] {
  const toPiece = (ones: PlannedWire[], isHeld: boolean): CutPiece => ({
    wires: ones,
    isHeld,
    roughMm: Math.max(...ones.map(({ roughMm }) => roughMm)),
    cutMm: Math.max(...ones.map(({ cutMm }) => cutMm)),
  });
  if (cableId !== null) return [toPiece([...wires, ...held], held.length > 0)];
  return [...wires.map((wire) => toPiece([wire], false)), ...held.map((wire) => toPiece([wire], true))];
}

/** The cut list of a loom, reel by reel. Longest first within a reel, so that a miscut can still make a shorter wire. */
export function listCuts(plan: LoomPlan): CutGroup[] {
  const groups = new Map<string, PlannedWire[]>();
  for (const wire of plan.wires) {
    const key = wire.cable
      ? `cable ${wire.cable.groupId}`
      : `${wire.conductor.table} ${wire.conductor.size} ${toInsulationWords(wire.colour)}`;
    pushTo(groups, key, wire);
  }
  return [...groups.keys()].sort(compareIds).map((key) => {
    const all = groups.get(key)!.sort((a, b) => b.cutMm - a.cutMm || compareIds(a.number, b.number));
    const { conductor, colour, cable } = all[0]!;
    // one wire that is held holds the whole cable
    const isHeld = (wire: PlannedWire) => (cable ? all.some(isHeldFromCutting) : isHeldFromCutting(wire));
    const wires = all.filter((wire) => !isHeld(wire));
    const measure = (of: 'roughMm' | 'cutMm') => wires.reduce((sum, wire) => (cable ? Math.max(sum, wire[of]) : sum + wire[of]), 0);
    return {
      id: key.replaceAll(/[ /]/g, '-'),
      cableId: cable?.itemId ?? null,
      reel: cable ? `cable ${cable.groupId}, ${cable.name}` : `${toWireWords(conductor)} ${toInsulationWords(colour)}`,
      table: conductor.table,
      size: conductor.size,
      colour: { ...colour, bands: [] },
      wires,
      held: all.filter(isHeld),
      roughMm: measure('roughMm'),
      finalMm: measure('cutMm'),
    };
  });
}
