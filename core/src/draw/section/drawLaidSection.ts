import { listLaidCircles, type LaidStretch, type LoomPlan, type PlannedLayup } from '../../plan';
import { WIRE_HEX } from '../../model';
import { measureText } from '../measureText';
import { FAINT, INK, line, text, type Drawing, type Mark } from '../drawing';

/** How large the enlarged section is drawn, over all, mm: as the numbers ask for, within these. */
const [LEAST_LARGE_MM, MOST_LARGE_MM] = [62, 156];
/** up to which the hands of its layers stand beside it */
const BESIDE_MM = 106;
const GAP_MM = 10;
/** of the numbers, mm: 9 pt */
const WORDS_MM = 3.2;
const LEFT_MM = 14;

/**
 * A stretch of a lay-up cut through at its start: enlarged, every element with its number in its order from 12 o'clock, dead wire hatched, the hand
 * of each layer as an arrow; beside it at true size.
 */
export function drawLaidSection(layup: PlannedLayup, stretch: LaidStretch, plan: LoomPlan, numbers: ReadonlyMap<string, string>): Drawing {
  const circles = listLaidCircles(layup, layup.marks[stretch.fromMark]!.mm);
  const odMm = circles.reduce((most, { outerOdMm }) => Math.max(most, outerOdMm), 0);
  // on white within its element, without the letters of the loom
  const toWords = (id: string) => numbers.get(id)!.replace(/^[A-Z]+-/, '');
  const toRoom = (id: string) => measureText(toWords(id), WORDS_MM, 'narrow-bold') / 2 + 0.4;
  const asked = circles.flatMap(({ r, wireIds }) => wireIds.map((id) => (toRoom(id) * wireIds.length) / r));
  const scale = Math.min(Math.max(LEAST_LARGE_MM / odMm, ...asked), MOST_LARGE_MM / odMm);
  const largeMm = odMm * scale;
  const [cx, cy] = [largeMm / 2 + LEFT_MM, largeMm / 2 + 9];
  const colours = new Map(plan.wires.map(({ id, colour }) => [id, colour]));
  const marks: Mark[] = [
    { kind: 'circle', x: cx, y: cy, r: largeMm / 2, fill: null, stroke: FAINT, width: 0.15 },
    line([cx, cy - largeMm / 2 - 1], [cx, cy - largeMm / 2 - 5], 0.6),
    text(cx + 1.5, cy - largeMm / 2 - 2, '12 o’clock', 3.2),
  ];
  for (const { x, y, r, wireIds } of circles) {
    const [px, py, pr] = [cx + x * scale, cy + y * scale, r * scale];
    if (wireIds.length === 0) marks.push(...drawDead(px, py, pr));
    else {
      const inner = pr / wireIds.length;
      if (wireIds.length > 1) marks.push({ kind: 'circle', x: px, y: py, r: pr, fill: null, stroke: FAINT, width: 0.15, dash: [0.8, 0.5] });
      wireIds.forEach((id, index) => {
        const wx = px + (index - (wireIds.length - 1) / 2) * 2 * inner;
        const { base, stripe } = colours.get(id)!;
        marks.push({ kind: 'circle', x: wx, y: py, r: inner * 0.97, fill: WIRE_HEX[base], stroke: INK, width: 0.12 });
        if (stripe)
          marks.push(line([wx - inner * 0.7, py - inner * 0.6], [wx + inner * 0.7, py - inner * 0.6], inner * 0.3, WIRE_HEX[stripe]));
        const room = toRoom(id);
        if (room > inner + 0.01) return;
        marks.push({ kind: 'rect', x: wx - room, y: py - WORDS_MM / 2, w: 2 * room, h: WORDS_MM, fill: '#ffffff', stroke: null, width: 0 });
        marks.push(text(wx, py + WORDS_MM * 0.36, toWords(id), WORDS_MM, { face: 'narrow-bold', anchor: 'middle' }));
      });
    }
  }
  const isBeside = largeMm <= BESIDE_MM;
  const place = (index: number) =>
    isBeside ? [cx + largeMm / 2 + GAP_MM, 12 + index * 11] : [LEFT_MM + (index % 4) * 42, largeMm + 18 + Math.floor(index / 4) * 11];
  stretch.layers.forEach(({ hand }, index) => {
    if (hand === null || !circles.some(({ layer }) => layer === index)) return;
    const [x, y] = place(index) as [number, number];
    marks.push(...drawHand(x + 5, y, hand), text(x + 13, y + 1.2, `${index === 0 ? 'core' : `layer ${index}`}: ${hand}-hand`, 3.4));
  });
  const rows = isBeside ? stretch.layers.length : Math.ceil(stretch.layers.length / 4);
  const [x, top] = isBeside
    ? [cx + largeMm / 2 + GAP_MM, Math.max(12 + rows * 11, largeMm + 6 - odMm)]
    : [LEFT_MM, largeMm + 14 + rows * 11];
  const [tx, ty] = [x + 8 + odMm / 2, top + odMm / 2];
  for (const { x: dx, y: dy, r, wireIds } of circles)
    marks.push({ kind: 'circle', x: tx + dx, y: ty + dy, r, fill: wireIds.length ? null : '#dddddd', stroke: INK, width: 0.1 });
  marks.push(text(x + 12 + odMm, ty + 1.2, `true size: ${odMm.toFixed(1)} mm`, WORDS_MM));
  const foot = Math.max(largeMm + 17, ty + odMm / 2 + 6);
  marks.push(text(LEFT_MM, foot, `enlarged ${scale.toFixed(1)} : 1, seen from the datum`, WORDS_MM, { fill: FAINT }));
  return { widthMm: 182, heightMm: foot + 2, marks };
}

/** Hatched, so that it is told from wire without a colour. */
function drawDead(x: number, y: number, r: number): Mark[] {
  const marks: Mark[] = [{ kind: 'circle', x, y, r: r * 0.97, fill: null, stroke: INK, width: 0.2, dash: [0.7, 0.5] }];
  for (let at = -0.6; at <= 0.61; at += 0.4) {
    const half = Math.sqrt(1 - at * at) * r * 0.9;
    // along 45°, moved across it
    const [ox, oy] = [at * r * Math.SQRT1_2, at * r * Math.SQRT1_2];
    marks.push(
      line(
        [x + ox - half * Math.SQRT1_2, y + oy + half * Math.SQRT1_2],
        [x + ox + half * Math.SQRT1_2, y + oy - half * Math.SQRT1_2],
        0.12,
      ),
    );
  }
  return marks;
}

/** The way a layer turns as it goes away from the datum: clockwise is right-hand. */
function drawHand(x: number, y: number, hand: 'right' | 'left'): Mark[] {
  const r = 4;
  const sign = hand === 'right' ? 1 : -1;
  const at = (deg: number, radius = r) =>
    [x + sign * radius * Math.sin((deg * Math.PI) / 180), y - radius * Math.cos((deg * Math.PI) / 180)] as const;
  const points = Array.from({ length: 25 }, (_, index) => at(-120 + index * 10));
  const d = points.map(([px, py], index) => `${index ? 'L' : 'M'}${px.toFixed(2)} ${py.toFixed(2)}`).join('');
  const [tipX, tipY] = at(128);
  return [
    { kind: 'path', d, fill: null, stroke: INK, width: 0.5 },
    line([tipX, tipY], at(98, r + 1.4), 0.5),
    line([tipX, tipY], at(100, r - 1.6), 0.5),
  ];
}
