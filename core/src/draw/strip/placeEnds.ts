import type { Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { measureText } from '../measureText';

/** of a name on the tape, px; with the room that a finger or an unsteady hand needs (WCAG 2.2, 2.5.8) */
const SIZE = 14;
export const TAPE_ROW = 24;
const PAD = 7;
const GAP = 3;
/** more rows of names than this would take the room of what is below the tape */
const MOST_NAMED_ROWS = 5;
/** a narrower band is one of a page that is higher than wide: what is below it has room */
const UPRIGHT_PX = 720;
const MOST_UPRIGHT_ROWS = 8;
const MOST_BARE_ROWS = 3;

export interface PlacedEnd {
  endId: string;
  name: string;
  /** along the tape, mm */
  atMm: number;
  /** where its branch leaves the trunk, mm */
  leavesMm: number;
  /** left edge of its mark, px */
  x: number;
  width: number;
  row: number;
}

export interface TapePlaces {
  ends: PlacedEnd[];
  rows: number;
  /** do the marks hold their names, or is there room for boxes only? */
  isNamed: boolean;
}

/** Runs of the trunk, the datum first. */
export function listTrunk({ tree }: LoomPlan): string[] {
  const way: string[] = [];
  for (
    let at = tree.nodes[tree.datumId]!;
    at.childSegmentIds[0] !== undefined;
    at = tree.nodes[tree.segments[at.childSegmentIds[0]]!.farNodeId]!
  )
    way.push(at.childSegmentIds[0]);
  return way;
}

/**
 * The ends of a loom as marks below its tape, as near as may be to where they lie: with their names in as few rows as hold them all, none on
 * another; where five rows (eight of an upright page) do not, as boxes without. toX: px along the tape of so many mm.
 */
export function placeEnds(loom: Loom, plan: LoomPlan, widthPx: number, toX: (mm: number) => number): TapePlaces {
  const { nodes, segments, datumId } = plan.tree;
  const trunk = new Set([datumId, ...listTrunk(plan).map((id) => segments[id]!.farNodeId)]);
  const ends = Object.entries(loom.ends)
    .map(([endId, { name, nodeId }]) => {
      let leaves = nodes[nodeId]!;
      while (!trunk.has(leaves.id)) leaves = nodes[leaves.parentNodeId!]!;
      return { endId, name, atMm: nodes[nodeId]!.distanceMm, leavesMm: leaves.distanceMm };
    })
    .sort((a, b) => a.atMm - b.atMm || (a.name < b.name ? -1 : 1));
  const named = ends.map((end) => ({ ...end, width: Math.max(TAPE_ROW, Math.ceil(measureText(end.name, SIZE, 'narrow-bold')) + PAD) }));
  const most = widthPx < UPRIGHT_PX ? MOST_UPRIGHT_ROWS : MOST_NAMED_ROWS;
  for (let rows = 1; rows <= most; rows += 1) {
    const placed = pack(named, rows, widthPx, toX);
    if (placed) return { ends: placed, rows, isNamed: true };
  }
  const bare = ends.map((end) => ({ ...end, width: TAPE_ROW }));
  return { ends: pack(bare, MOST_BARE_ROWS, Infinity, toX)!, rows: MOST_BARE_ROWS, isNamed: false };
}

/** Each in the row with most room, pushed on by the one before it and back by the edge; null where a row does not hold its own. */
function pack(
  ends: readonly Omit<PlacedEnd, 'x' | 'row'>[],
  rows: number,
  widthPx: number,
  toX: (mm: number) => number,
): PlacedEnd[] | null {
  const free = Array.from({ length: rows }, () => 0);
  const placed = ends.map((end): PlacedEnd => {
    const wanted = Math.max(0, toX(end.atMm) - end.width / 2);
    const fitting = free.findIndex((edge) => edge <= wanted);
    const row = fitting === -1 ? free.indexOf(Math.min(...free)) : fitting;
    const x = Math.max(wanted, free[row]!);
    free[row] = x + end.width + GAP;
    return { ...end, x, row };
  });
  const edge = Array.from({ length: rows }, () => widthPx);
  for (const end of [...placed].reverse()) {
    end.x = Math.min(end.x, edge[end.row]! - end.width);
    edge[end.row] = end.x - GAP;
    if (end.x < 0) return null;
  }
  return placed;
}
