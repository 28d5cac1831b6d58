import type { Catalogue } from '../../catalogue';
import type { Job } from '../../model';
import type { LoomPlan } from '../../plan';
import { toDrawnOd, type BoardEnd, type BoardPoint, type BoardRun, type PlannedBoard } from '../../make';
import { FAINT, HAIR, INK, line, text, type Drawing, type Mark, type Point } from '../drawing';
import { measureText } from '../measureText';
import { drawCode } from '../sheets/addCodes';
import { LARGE, placeEndCards, SMALL } from './placeEndCards';

/** Layers of the DXF: what is cut or pinned by itself has one of its own. */
export const BOARD_LAYERS = {
  ...{
    edge: 'BOARD',
    runs: 'RUNS',
    widths: 'WIDTHS',
    pegs: 'PEGS',
    ties: 'TIES',
    ends: 'FIXTURES',
    bands: 'BANDS',
    cards: 'CARDS',
    words: 'WORDS',
  },
} as const;

const WIDE = '#dbe4e2';
const AMBER = '#9a5b00';

/**
 * A loom on its board at full scale: middle line and width of each run, pegs with their numbers, ties, housings, lengths and names. toAddress: of the
 * card of an end, where its code leads; without it no codes are drawn, and what is printed has the same fingerprint either way.
 */
export function drawBoard(
  job: Job,
  catalogue: Catalogue,
  plan: LoomPlan,
  planned: PlannedBoard,
  toAddress: ((card: string) => string) | null = null,
): Drawing {
  const { board, runs, ends, pegs, ties, nodes } = planned;
  const cards = placeEndCards(job, catalogue, plan, planned);
  const { widthMm, heightMm } = board;
  return {
    widthMm,
    heightMm,
    marks: [
      ...on(BOARD_LAYERS.edge, [{ kind: 'rect', x: 0, y: 0, w: widthMm, h: heightMm, fill: null, stroke: HAIR, width: 0.5 }]),
      ...on(BOARD_LAYERS.widths, runs.flatMap(drawWidth)),
      ...on(BOARD_LAYERS.bands, ends.filter(({ sigmaMm }) => sigmaMm >= 0.5).flatMap(drawBand)),
      ...on(BOARD_LAYERS.ties, ties.flatMap(drawTie)),
      ...on(
        BOARD_LAYERS.runs,
        runs.map(({ points, isFitted }): Mark => ({ ...toLine(points, 0.4), ...(isFitted ? {} : { dash: [6, 2] }) })),
      ),
      ...on(BOARD_LAYERS.ends, ends.flatMap(drawEnd)),
      ...on(
        BOARD_LAYERS.pegs,
        pegs.map(({ x, y, diameterMm }): Mark => ({ kind: 'circle', x, y, r: diameterMm / 2, fill: '#ffffff', stroke: INK, width: 0.35 })),
      ),
      ...on(BOARD_LAYERS.cards, [
        ...cards.marks,
        ...(toAddress === null ? [] : cards.codes.map(({ card, x, y, sizeMm }) => drawCode(toAddress(card), x, y, sizeMm))),
      ]),
      ...on(BOARD_LAYERS.words, [
        ...runs.flatMap((run) => drawLength(run)),
        ...ends.flatMap((end) => (cards.endIds.has(end.endId) ? [] : drawEndWords(job, planned, end))),
        ...nodes
          .filter(({ kind }) => kind !== 'end' && kind !== 'datum')
          .map(({ x, y, name }) => text(x + 3, y + 12, name, SMALL, { face: 'narrow-bold' })),
        ...pegs.map(({ x, y, diameterMm, number }) =>
          diameterMm > 14
            ? text(x, y + 1, `${number}, Ø ${diameterMm.toFixed(0)}`, SMALL, { anchor: 'middle', fill: FAINT })
            : text(x + diameterMm / 2 + 0.8, y + 1, number, 2.4, { fill: FAINT }),
        ),
      ]),
    ],
  };
}

const on = (layer: string, marks: readonly Mark[]): Mark[] => marks.map((mark) => ({ ...mark, layer }));

const round = (mm: number) => Math.round(mm * 1000) / 1000;
const toLine = (points: readonly BoardPoint[], width: number, stroke = INK): Mark => ({
  kind: 'path',
  d: points.map(({ x, y }, index) => `${index === 0 ? 'M' : 'L'}${round(x)} ${round(y)}`).join(''),
  fill: null,
  stroke,
  width,
});

/** What a run takes, by its edges. */
function drawWidth({ points, odMm }: BoardRun): Mark[] {
  if (odMm <= 0) return [];
  const wideMm = toDrawnOd(odMm);
  const edge = (side: number) =>
    points.map((at, index) => {
      const [before, after] = [points[index - 1] ?? at, points[index + 1] ?? at];
      const length = Math.hypot(after.x - before.x, after.y - before.y) || 1;
      return {
        x: at.x - (side * ((after.y - before.y) / length) * wideMm) / 2,
        y: at.y + (side * ((after.x - before.x) / length) * wideMm) / 2,
      };
    });
  const outline = [...edge(1), ...edge(-1).reverse()];
  const { d } = toLine(outline, 0) as Extract<Mark, { kind: 'path' }>;
  return [{ kind: 'path', d: `${d}Z`, fill: WIDE, stroke: null, width: 0 }];
}

const turn = ({ x, y, deg }: BoardPoint & { deg: number }, along: number, across: number): Point => {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  return [round(x + c * along - s * across), round(y + s * along + c * across)];
};

const drawTie = (tie: BoardPoint & { deg: number }): Mark[] => [line(turn(tie, 0, -5), turn(tie, 0, 5), 0.5, FAINT)];

/** Where the end may come to lie as long as its runs are not fitted: one sigma either way. */
function drawBand(end: BoardEnd): Mark[] {
  const { sigmaMm, widthMm } = end;
  const half = widthMm / 2 + 3;
  const corners = [turn(end, -sigmaMm, -half), turn(end, sigmaMm, -half), turn(end, sigmaMm, half), turn(end, -sigmaMm, half)];
  return [{ kind: 'path', d: toClosed(corners), fill: null, stroke: AMBER, width: 0.35, dash: [2, 1.5] }];
}

const toClosed = (corners: readonly Point[]) => `${corners.map(([x, y], index) => `${index === 0 ? 'M' : 'L'}${x} ${y}`).join('')}Z`;

function drawEnd(end: BoardEnd): Mark[] {
  const { depthMm, widthMm } = end;
  const corners = [
    turn(end, 0, -widthMm / 2),
    turn(end, depthMm, -widthMm / 2),
    turn(end, depthMm, widthMm / 2),
    turn(end, 0, widthMm / 2),
  ];
  return [
    { kind: 'path', d: toClosed(corners), fill: '#ffffff', stroke: INK, width: 0.5 },
    // where the wires come in
    line(turn(end, 0, -widthMm / 2), turn(end, 0, widthMm / 2), 1.2),
  ];
}

/** Length of a run along it, upright as far as it goes. */
function drawLength({ points, lengthMm, odMm, fold, isFitted }: BoardRun): Mark[] {
  const words = `${isFitted ? '' : '≈ '}${Math.round(lengthMm)}`;
  const wide = measureText(words, SMALL, 'mono');
  // on its longest straight part
  const parts = points
    .slice(1)
    .map((to, index) => ({ from: points[index]!, to, mm: Math.hypot(to.x - points[index]!.x, to.y - points[index]!.y) }));
  const part = parts.reduce((best, one) => (one.mm > best.mm ? one : best));
  if (part.mm < wide + 2 && !fold) return [];
  let deg = (Math.atan2(part.to.y - part.from.y, part.to.x - part.from.x) * 180) / Math.PI;
  if (deg > 90 || deg <= -90) deg += 180;
  // beside the middle, where no peg stands
  const share = 0.4;
  const middle = { x: part.from.x + (part.to.x - part.from.x) * share, y: part.from.y + (part.to.y - part.from.y) * share, deg };
  const [x, y] = turn(middle, 0, -(toDrawnOd(odMm) / 2 + 1.5));
  return [text(x, y, words, SMALL, { face: 'mono', anchor: 'middle', turn: round(deg) })];
}

/** Name of an end and what its housing is, as who stands before it reads it. */
function drawEndWords(job: Job, { loomId }: PlannedBoard, end: BoardEnd): Mark[] {
  const { familyId, key } = job.looms[loomId]!.ends[end.endId]!;
  const [across, down] = [Math.cos((end.deg * Math.PI) / 180), Math.sin((end.deg * Math.PI) / 180)];
  const isUpright = Math.abs(across) < 0.4;
  const anchor = isUpright ? 'middle' : across < 0 ? 'end' : 'start';
  const spread = end.sigmaMm >= 0.5 ? `± ${end.sigmaMm.toFixed(0)} mm, not fitted` : '';
  const second = [key === null || familyId === null ? '' : `key ${key}`, spread].filter(Boolean).join(', ');
  // clear of its corners, however it stands
  const [x, beyond] = turn(end, end.depthMm + 3 + (end.widthMm / 2) * Math.abs(across * down), 0);
  const y = beyond + (isUpright ? (down > 0 ? LARGE * 0.75 : second ? -4.4 : 0) : 0);
  return [
    text(x, y, end.name, LARGE, { face: 'narrow-bold', anchor }),
    ...(second ? [text(x, y + 4.4, second, SMALL, { anchor, fill: end.sigmaMm >= 0.5 ? AMBER : INK })] : []),
  ];
}
