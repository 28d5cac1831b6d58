import type { LoomPlan } from '../../plan';
import { pushTo, roundUp, toLetters } from '../../units';
import type { BoardTree, Rod } from './boardTypes';
import type { Laid } from './layBoard';

export interface BoardPeg {
  /** of the run by which it is come to, with a letter where it stands along it: 7a, 7b, 7; one more along one run renames no other */
  number: string;
  kind: 'end' | 'breakout' | 'along' | 'fold';
  x: number;
  y: number;
  diameterMm: number;
  /** run or node that it holds */
  segmentId: string | null;
  nodeId: string | null;
  /** along its run, mm; null: at a node */
  atMm: number | null;
}

export interface BoardTie {
  x: number;
  y: number;
  /** direction of the run there, degrees */
  deg: number;
}

interface Pitch {
  everyMm: number;
  pegMm: number;
  tieEveryMm: number;
}

/**
 * As thick as a run is drawn, and pegs stand off it, mm: up to whole millimetres, so that a wire that comes out a size thicker somewhere else in the
 * vehicle does not make a print stale that nobody could tell from the new one.
 */
export const toDrawnOd = (odMm: number): number => roundUp(odMm, 1);
const toHeldRadius = ({ radiusMm }: { radiusMm: number }): number => toDrawnOd(2 * radiusMm) / 2;

/** Before the very end of a run a peg would stand in the way of its housing. */
const END_MM = 6;

type Unnumbered = Omit<BoardPeg, 'number'>;

/**
 * Pegs that a loom is laid between: one at each end, one in the widest fork of each breakout, by turns on either side along each run, and
 * inside each bend a former of its radius. Named along the way, as they are laid. And where it is tied.
 */
export function placePegs(
  planned: LoomPlan,
  tree: BoardTree,
  laid: Laid,
  { everyMm, pegMm, tieEveryMm }: Pitch,
): { pegs: BoardPeg[]; ties: BoardTie[] } {
  const pegs: Unnumbered[] = [];
  const ties: BoardTie[] = [];
  const atNode = new Map<string, { angle: number; radiusMm: number }[]>();
  tree.pieces.forEach((piece, index) => {
    const { nearNodeId, farNodeId } = planned.tree.segments[piece.segmentId]!;
    const rods = laid.rods[index]!.filter(({ isFixture }) => !isFixture);
    const [first, last] = [rods[0]!, rods.at(-1)!];
    pushTo(atNode, nearNodeId, { angle: Math.atan2(first.dy, first.dx), radiusMm: toHeldRadius(piece) });
    pushTo(atNode, farNodeId, { angle: Math.atan2(-last.dy, -last.dx), radiusMm: toHeldRadius(piece) });
  });
  const addNodePeg = (nodeId: string, x: number, y: number) => {
    const legs = atNode.get(nodeId) ?? [];
    if (legs.length >= 3)
      pegs.push({ kind: 'breakout', ...intoFork(legs, x, y, pegMm), diameterMm: pegMm, segmentId: null, nodeId, atMm: null });
  };
  addNodePeg(planned.tree.datumId, 0, 0);
  const named: BoardPeg[] = pegs.map((peg) => ({ number: '0', ...peg }));
  tree.pieces.forEach((piece, index) => {
    const before = pegs.length;
    const rods = laid.rods[index]!.filter(({ isFixture }) => !isFixture);
    const off = toHeldRadius(piece) + pegMm / 2;
    const beside = (atMm: number, side: number) => {
      const { x, y, dx, dy } = walk(rods, atMm, piece.lengthMm);
      return { x: x - dy * off * side, y: y + dx * off * side };
    };
    const arc = laid.arcs[index]!;
    // what a bend is laid round touches its inside
    if (arc) {
      const diameterMm = Math.max(pegMm, 2 * (arc.radiusMm - piece.radiusMm));
      pegs.push({ kind: 'fold', x: arc.x, y: arc.y, diameterMm, segmentId: piece.segmentId, nodeId: null, atMm: Math.round(arc.fromMm) });
    }
    const count = Math.max(0, Math.ceil(piece.lengthMm / everyMm) - 1);
    for (let nth = 1; nth <= count; nth += 1) {
      const atMm = (piece.lengthMm * nth) / (count + 1);
      if (arc && atMm > arc.fromMm - pegMm && atMm < arc.toMm + pegMm) continue;
      pegs.push({
        kind: 'along',
        ...beside(atMm, nth % 2 === 0 ? 1 : -1),
        diameterMm: pegMm,
        segmentId: piece.segmentId,
        nodeId: null,
        atMm: Math.round(atMm),
      });
    }
    const bands = Math.max(1, Math.ceil(piece.lengthMm / tieEveryMm));
    for (let nth = 0; nth < bands; nth += 1) {
      const { x, y, dx, dy } = walk(rods, (piece.lengthMm * (nth + 0.5)) / bands, piece.lengthMm);
      ties.push({ x, y, deg: (Math.atan2(dy, dx) * 180) / Math.PI });
    }
    const { farNodeId } = planned.tree.segments[piece.segmentId]!;
    if (piece.fixture)
      pegs.push({
        kind: 'end',
        ...beside(Math.max(0, piece.lengthMm - END_MM), 1),
        diameterMm: pegMm,
        segmentId: piece.segmentId,
        nodeId: farNodeId,
        atMm: null,
      });
    else addNodePeg(farNodeId, laid.ends[index]!.x, laid.ends[index]!.y);
    named.push(...nameAlong(pegs.slice(before), index + 1));
  });
  return { pegs: named, ties };
}

/** The pegs of a run and of the node that it leads to. */
function nameAlong(pegs: readonly Unnumbered[], run: number): BoardPeg[] {
  let along = 0;
  const inOrder = [...pegs].sort((a, b) => (a.atMm ?? 1e9) - (b.atMm ?? 1e9));
  return inOrder.map((peg) => ({ number: peg.nodeId === null ? `${run}${toLetters(along++)}` : String(run), ...peg }));
}

/** Pegs of a way in few words: "3, 7a–7d, 7". */
export function toPegWords(numbers: readonly string[]): string {
  const toStem = (number: string) => /^(\d+)[a-z]+$/.exec(number)?.[1] ?? null;
  const groups: string[][] = [];
  for (const number of numbers) {
    const last = groups.at(-1)?.at(-1);
    if (last !== undefined && toStem(number) !== null && toStem(last) === toStem(number)) groups.at(-1)!.push(number);
    else groups.push([number]);
  }
  return groups.map((group) => (group.length > 2 ? `${group[0]}–${group.at(-1)}` : group.join(', '))).join(', ');
}

/** A place along a run, and its direction there. */
function walk(rods: readonly Rod[], atMm: number, lengthMm: number): Pick<Rod, 'x' | 'y' | 'dx' | 'dy'> {
  const at = rods.findLastIndex(({ fromMm }) => fromMm <= atMm + 1e-9);
  const rod = rods[Math.max(0, at)]!;
  // chords of a bend are a little shorter than their share of its way
  const wayMm = (rods[at + 1]?.fromMm ?? lengthMm) - rod.fromMm;
  const along = wayMm > 0 ? ((atMm - rod.fromMm) / wayMm) * rod.lengthMm : 0;
  return { x: rod.x + rod.dx * along, y: rod.y + rod.dy * along, dx: rod.dx, dy: rod.dy };
}

/** In the widest fork at a breakout, touching what parts there. */
function intoFork(legs: readonly { angle: number; radiusMm: number }[], x: number, y: number, pegMm: number): { x: number; y: number } {
  const sorted = [...legs].sort((a, b) => a.angle - b.angle);
  const gaps = sorted.map((leg, index) => {
    const next = sorted[(index + 1) % sorted.length]!;
    const gap = next.angle - leg.angle + (index + 1 === sorted.length ? 2 * Math.PI : 0);
    return { from: leg.angle, gap, radiusMm: Math.max(leg.radiusMm, next.radiusMm) };
  });
  const { from, gap, radiusMm } = gaps.reduce((best, one) => (one.gap > best.gap ? one : best));
  // clear of what ends at the node, however thick
  const thickest = Math.max(...legs.map((leg) => leg.radiusMm));
  const away = Math.max(thickest + pegMm / 2, (radiusMm + pegMm / 2) / Math.sin(Math.min(gap, Math.PI) / 2));
  return { x: x + Math.cos(from + gap / 2) * away, y: y + Math.sin(from + gap / 2) * away };
}
