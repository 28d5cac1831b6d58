import type { Colour } from '../../model';
import type { DressPiece, PlannedBreakoutDress, PlannedEndDress } from '../../plan';
import { WIRE_HEX } from '../../model';
import { FAINT, INK, line, text, type Drawing, type Mark, type Point } from '../drawing';

const WIDTH_MM = 182;
const EDGE_MM = 6;
/** numbers above what is drawn, the scale below it */
const HEAD_MM = 13;
const FOOT_MM = 11;
/** of what is drawn, over all */
const TALL_MM = 52;
const MOST_SCALE = 5;
/** how much of a leg is drawn beyond what lies on it, mm */
const BEYOND_MM = 20;
const MOST_WIRES = 9;

const FILLS: Readonly<Record<DressPiece['role'], string>> = {
  ...{ 'build-up': '#e3cf9c', boot: '#c9d3d5', step: '#c9d3d5', label: '#ffffff', transition: '#c9d3d5', 'over-sleeve': '#c9d3d5' },
  wrap: '#d8dfc9',
};
const SLEEVE = '#8d989b';
const BUNDLE = '#f4efe2';
const LINED = '#1f7a80';

/** What of a loom a stack is drawn on: bare and over its covering, mm, with the colours of its wires. */
export interface StackedRun {
  bareMm: number;
  overMm: number;
  colours: readonly Colour[];
}

/** Where mm of the loom stand on the paper. */
interface View {
  scale: number;
  middle: number;
  x: (mm: number) => number;
}

/** A scale of quarters with which so many mm fit. */
const toScale = (longMm: number, tallMm: number) =>
  Math.max(0.25, Math.min(MOST_SCALE, Math.floor(4 * Math.min((WIDTH_MM - 2 * EDGE_MM) / longMm, TALL_MM / tallMm)) / 4));

const toReach = (pieces: readonly DressPiece[]) => Math.max(25, ...pieces.map(({ toMm }) => toMm)) + BEYOND_MM;

/** The end of a leg cut lengthwise, housing to the right: wires, covering, build-up, boot; numbered from the wire outwards. */
export function drawEndStack({ leadMm, bodyMm, pieces }: PlannedEndDress, leg: StackedRun): Drawing {
  const reachMm = toReach(pieces);
  const rearMm = Math.max(12, ...pieces.map(({ fromMm }) => 2 - fromMm));
  const wideMm = bodyMm ?? leadMm;
  const tallMm = Math.max(wideMm * 1.3, ...pieces.map(({ overMm }) => overMm));
  const scale = toScale(reachMm + 1.8 * rearMm, tallMm);
  const rear = WIDTH_MM - EDGE_MM - 1.8 * rearMm * scale;
  const view: View = { scale, middle: HEAD_MM + (tallMm / 2) * scale, x: (mm) => rear - mm * scale };
  const { x, middle } = view;
  const half = (mm: number) => (mm / 2) * scale;
  const box = (from: number, to: number, mm: number, fill: string): Mark => ({
    ...{ kind: 'rect', x: x(from), y: middle - half(mm), w: x(to) - x(from), h: mm * scale, fill, stroke: INK, width: 0.2 },
  });
  const grip = Math.max(0, ...pieces.map(({ fromMm }) => -fromMm));
  const marks: Mark[] = [
    box(-rearMm, -1.8 * rearMm, wideMm * 1.3, '#dfe4e3'),
    box(0, -rearMm, wideMm, '#eef1f0'),
    ...drawFan(view, leg, wideMm, rearMm),
    ...drawLeg([x(reachMm), middle], [x(reachMm / 2), middle], [x(0), middle], leg, scale),
    ...pieces.flatMap((piece) => {
      const wall = half(piece.overMm - piece.underMm);
      const ends: Point[] = [
        [x(Math.max(piece.fromMm, 0)), half(piece.underMm)],
        [x(piece.toMm), half(piece.underMm)],
      ];
      const over: Point[] = [
        [x(piece.fromMm), half(wideMm)],
        [x(0), half(wideMm)],
        [x(Math.max(piece.toMm - grip, 1)), half(piece.underMm)],
        [x(piece.toMm), half(piece.underMm)],
      ];
      return drawWall(middle, piece.fromMm < 0 && bodyMm !== null ? over : ends, wall, piece);
    }),
    ...drawBubbles(view, pieces, ({ fromMm, toMm }) => (fromMm < 0 ? toMm - grip / 2 : (fromMm + toMm) / 2)),
  ];
  const rearWords = bodyMm === null ? '' : `, rear of the housing ${bodyMm.toFixed(1)} mm`;
  return finish(marks, tallMm, scale, `leg ${leadMm.toFixed(1)} mm over its covering${rearWords}`);
}

/** A breakout cut lengthwise, the datum to the left: trunk, legs, and what goes over them. */
export function drawBreakoutStack(
  { trunkMm, legsMm, togetherMm, pieces }: PlannedBreakoutDress,
  trunk: StackedRun,
  legs: readonly StackedRun[],
): Drawing {
  const reachMm = toReach(pieces);
  const tallMm = 1.5 * Math.max(trunkMm, togetherMm);
  const scale = toScale(2 * reachMm, tallMm);
  const view: View = { scale, middle: HEAD_MM + (tallMm / 2) * scale, x: (mm) => WIDTH_MM / 2 + mm * scale };
  const { x, middle } = view;
  const half = (mm: number) => (mm / 2) * scale;
  // side by side within the round that holds them, the first above; apart from one another where nothing holds them
  const place = (at: number, withinMm: number) => {
    const share = legs.length > 1 ? at / (legs.length - 1) : 0.5;
    return middle - half(withinMm - legsMm[0]!) + share * half(2 * withinMm - legsMm[0]! - legsMm.at(-1)!);
  };
  const thickestFirst = legs.map((leg, at) => ({ leg, at })).sort((a, b) => legsMm[b.at]! - legsMm[a.at]!);
  const marks: Mark[] = [
    ...drawLeg([x(-reachMm), middle], [x(-reachMm / 2), middle], [x(0), middle], trunk, scale),
    ...thickestFirst.flatMap(({ leg, at }) => {
      const near = place(at, togetherMm);
      return drawLeg([x(0), near], [x(reachMm * 0.55), near], [x(reachMm), place(at, tallMm)], leg, scale);
    }),
    ...pieces.flatMap((piece) => {
      const isOver = piece.role !== 'build-up';
      // over the joint it lies on the thin side as that is built up, and on the thick one as it is
      const sides = trunkMm <= togetherMm ? [piece.underMm, togetherMm] : [trunkMm, piece.underMm];
      const [left, right] = (isOver ? sides : [piece.underMm, piece.underMm]) as [number, number];
      const inner: Point[] = [
        [x(piece.fromMm), half(left)],
        [x((piece.fromMm + piece.toMm) / 2 - 2), half(left)],
        [x((piece.fromMm + piece.toMm) / 2 + 2), half(right)],
        [x(piece.toMm), half(right)],
      ];
      return drawWall(middle, inner, half(piece.overMm - piece.underMm), piece);
    }),
    // on the thin side, where what is over a piece is what is drawn there
    ...drawBubbles(view, pieces, ({ role, fromMm, toMm }) =>
      role !== 'build-up' ? (trunkMm <= togetherMm ? fromMm : toMm) * 0.6 : (fromMm + toMm) / 2,
    ),
  ];
  const words = `trunk ${trunkMm.toFixed(1)} mm, legs ${legsMm.map((mm) => mm.toFixed(1)).join(', ')} mm, together ${togetherMm.toFixed(1)} mm`;
  return finish(marks, tallMm, scale, words);
}

/** Bare wires from the end of the sleeve into the housing. */
function drawFan({ x, middle, scale }: View, { bareMm, colours }: StackedRun, wideMm: number, rearMm: number): Mark[] {
  const shown = colours.slice(0, MOST_WIRES);
  return shown.map(({ base }, at): Mark => {
    const share = (at - (shown.length - 1) / 2) / shown.length;
    const [near, far] = [middle + share * bareMm * scale, middle + share * wideMm * 0.8 * scale];
    const d = `M${x(0)} ${near}L${x(-rearMm * 0.6)} ${far}L${x(-rearMm)} ${far}`;
    return { kind: 'path', d, fill: null, stroke: WIRE_HEX[base], width: 0.5 };
  });
}

/** A run through three points: its covering, the bundle in it, its wires. */
function drawLeg(a: Point, b: Point, c: Point, { bareMm, overMm, colours }: StackedRun, scale: number): Mark[] {
  const band = (halfMm: number, fill: string, width: number): Mark => ({
    kind: 'path',
    d: `M${[a, b, c].map(([px, py]) => `${px} ${py - halfMm}`).join('L')}L${[c, b, a].map(([px, py]) => `${px} ${py + halfMm}`).join('L')}Z`,
    ...{ fill, stroke: INK, width },
  });
  const shown = colours.slice(0, MOST_WIRES);
  const pitch = (bareMm * scale) / Math.max(1, shown.length);
  return [
    ...(overMm > bareMm ? [band((overMm / 2) * scale, SLEEVE, 0.2)] : []),
    band((bareMm / 2) * scale, BUNDLE, 0.1),
    ...shown.map(({ base }, at): Mark => {
      const off = (at - (shown.length - 1) / 2) * pitch;
      const d = `M${[a, b, c].map(([px, py]) => `${px} ${py + off}`).join('L')}`;
      return { kind: 'path', d, fill: null, stroke: WIRE_HEX[base], width: Math.min(1, pitch * 0.55) };
    }),
  ];
}

/** The wall of a piece above and below the middle, over an inner edge; lined with adhesive on that edge. */
function drawWall(middle: number, inner: readonly Point[], wall: number, { role, isLined }: DressPiece): Mark[] {
  const thick = Math.max(wall, 0.5);
  return [-1, 1].flatMap((side): Mark[] => {
    const edge = inner.map(([px, off]) => [px, middle + side * off] as const);
    const outer = inner.map(([px, off]) => [px, middle + side * (off + thick)] as const);
    const path = (points: readonly Point[]) => points.map(([px, py]) => `${px} ${py}`).join('L');
    return [
      { kind: 'path', d: `M${path(edge)}L${path([...outer].reverse())}Z`, fill: FILLS[role], stroke: INK, width: 0.2 },
      ...(isLined ? [{ kind: 'path', d: `M${path(edge)}`, fill: null, stroke: LINED, width: 0.6 } as const] : []),
    ];
  });
}

/** Numbers in the order in which the pieces slide on, each with a line to its piece. */
function drawBubbles({ x, middle, scale }: View, pieces: readonly DressPiece[], toAim: (piece: DressPiece) => number): Mark[] {
  const aims = pieces.map((piece) => x(toAim(piece)));
  // side by side where they would stand on one another
  const mean = aims.reduce((sum, aim) => sum + aim, 0) / Math.max(1, aims.length);
  const isTight = aims.some((aim, at) => aims.some((other, place) => place < at && Math.abs(aim - other) < 6));
  return pieces.flatMap(({ overMm }, at): Mark[] => {
    const px = isTight ? mean + (at - (pieces.length - 1) / 2) * 7 : aims[at]!;
    return [
      line([px, 6.4], [aims[at]! + (isTight ? (px - mean) * 0.3 : 0), middle - (overMm / 2) * scale + 0.2], 0.15, FAINT),
      { kind: 'circle', x: px, y: 4, r: 2.4, fill: '#ffffff', stroke: INK, width: 0.25 },
      text(px, 5.2, String(at + 1), 3.2, { face: 'narrow-bold', anchor: 'middle' }),
    ];
  });
}

/** The picture with its scale, a bar of 10 mm, and what is measured. */
function finish(marks: readonly Mark[], tallMm: number, scale: number, words: string): Drawing {
  const heightMm = HEAD_MM + tallMm * scale + FOOT_MM;
  const y = heightMm - 3;
  const bar = 10 * scale;
  return {
    widthMm: WIDTH_MM,
    heightMm,
    marks: [
      ...marks,
      line([EDGE_MM, y], [EDGE_MM + bar, y], 0.5),
      line([EDGE_MM, y - 1], [EDGE_MM, y + 1], 0.5),
      line([EDGE_MM + bar, y - 1], [EDGE_MM + bar, y + 1], 0.5),
      text(EDGE_MM + bar + 3, y + 1, `10 mm, drawn ${scale} : 1, cut lengthwise; ${words}`, 3.2, { fill: FAINT }),
    ],
  };
}
