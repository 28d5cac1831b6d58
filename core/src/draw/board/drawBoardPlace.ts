import type { BoardPlace, PlannedBoard } from '../../make';
import { FAINT, HAIR, INK, text, type Drawing, type Mark } from '../drawing';

const WIDE_MM = 240;
const SIZE = 6;
/** numbers of pegs nearer to one another are left out, mm on the picture */
const APART_MM = 9;

/** A board small, with the way of the next wire heavy and the pegs along it by their numbers. */
export function drawBoardPlace({ board, box, runs, ends, pegs }: PlannedBoard, { segmentIds, pegs: numbers }: BoardPlace): Drawing {
  const [left, top] = [Math.max(0, box.x - 60), Math.max(0, box.y - 60)];
  const wide = Math.min(board.widthMm, box.x + box.widthMm + 60) - left;
  const tall = Math.min(board.heightMm, box.y + box.heightMm + 60) - top;
  const scale = WIDE_MM / wide;
  const heavy = new Set(segmentIds);
  const lit = new Set(numbers);
  const x = (mm: number) => (mm - left) * scale;
  const y = (mm: number) => (mm - top) * scale;
  const toLine = ({ points }: PlannedBoard['runs'][number], width: number, stroke: string): Mark => ({
    ...{
      kind: 'path',
      d: `M${points.map((point) => `${x(point.x).toFixed(2)} ${y(point.y).toFixed(2)}`).join('L')}`,
      fill: null,
      stroke,
      width,
    },
  });
  const named: { x: number; y: number }[] = [];
  const marks: Mark[] = [
    { kind: 'rect', x: 0.2, y: 0.2, w: WIDE_MM - 0.4, h: tall * scale - 0.4, fill: null, stroke: HAIR, width: 0.4 },
    ...runs.filter(({ segmentId }) => !heavy.has(segmentId)).map((run) => toLine(run, 0.6, FAINT)),
    ...runs.filter(({ segmentId }) => heavy.has(segmentId)).map((run) => toLine(run, 2.2, INK)),
  ];
  for (const peg of pegs) {
    const [px, py] = [x(peg.x), y(peg.y)];
    const isLit = lit.has(peg.number);
    marks.push({
      kind: 'circle',
      x: px,
      y: py,
      r: isLit ? 2 : 1,
      fill: '#ffffff',
      stroke: isLit ? INK : FAINT,
      width: isLit ? 0.6 : 0.3,
    });
    if (!isLit || named.some((one) => Math.hypot(one.x - px, one.y - py) < APART_MM)) continue;
    named.push({ x: px, y: py });
    marks.push(text(px + 2.4, py - 1.6, peg.number, SIZE, { face: 'narrow-bold' }));
  }
  for (const end of ends) {
    const run = runs.find(({ segmentId, points }) => {
      const last = points.at(-1)!;
      return heavy.has(segmentId) && Math.hypot(last.x - end.x, last.y - end.y) < 1;
    });
    if (run)
      marks.push(text(x(end.x), y(end.y) + 7.5, end.name, SIZE, { face: 'narrow-bold', anchor: x(end.x) > WIDE_MM / 2 ? 'end' : 'start' }));
  }
  return { widthMm: WIDE_MM, heightMm: tall * scale, marks };
}
