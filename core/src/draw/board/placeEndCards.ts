import { findFamily, type Catalogue } from '../../catalogue';
import { toColourWords, type Job } from '../../model';
import type { LoomPlan } from '../../plan';
import type { CardCode } from '../drawing';
import { toDrawnOd, type BoardEnd, type BoardPoint, type PlannedBoard } from '../../make';
import { moveMark, text, type Mark } from '../drawing';
import { drawFacePicture } from '../drawFacePicture';
import { measureText } from '../measureText';
import { clipLine, type Rect } from './clipLine';

/** Words that are read at arm's length, and the rest, mm: 14 pt and 9 pt. */
export const LARGE = 4.9;
export const SMALL = 3.2;
const LEADING = 4.2;
/** of the names of cavities in a face, mm: small, so that more cards find room */
const FACE_WORDS_MM = 2.4;
/** side of a code, and the white beside it */
const CODE_MM = 15;
const CODE_GAP_MM = 3;
/** lines of a table side by side, and room for a cavity and a wire before its colour */
const MOST_LINES = 10;
const CAVITY_MM = 8;
const WIRE_MM = 16;
const GAP_MM = 4;
/** turned out of the way of the leg, degrees, and further away, mm */
const TURNS = [0, 30, -30, 60, -60, 90, -90, 120, -120];
const STEPS = [4, 14, 28, 45];
/** a card keeps so far from runs and housings, mm */
const CLEAR_MM = 4;

/** What stands beside an end: its face, and which wire goes into which cavity. */
interface Card {
  widthMm: number;
  heightMm: number;
  marks: Mark[];
  /** where the code of its end has room, from the left, mm */
  codeXMm: number;
}

/**
 * Beside each end its name, its face from the wire side, and its cavities with their wires, upright for who stands before the board. A card
 * that has no room without lying on a run, a housing or another card is left out, and its end has its name alone.
 *
 * @returns marks, ids of the ends that have one, and where the code of each has its place: it is drawn when it is printed
 */
export function placeEndCards(
  job: Job,
  catalogue: Catalogue,
  plan: LoomPlan,
  board: PlannedBoard,
): { marks: Mark[]; endIds: Set<string>; codes: CardCode[] } {
  const taken: Rect[] = board.ends.map(toBox);
  const marks: Mark[] = [];
  const endIds = new Set<string>();
  const codes: CardCode[] = [];
  // the largest first: the small ones find room between them
  const cards = board.ends
    .flatMap((end) => {
      const card = drawCard(job, catalogue, plan, board, end);
      return card ? [{ end, card }] : [];
    })
    .sort((a, b) => b.card.widthMm * b.card.heightMm - a.card.widthMm * a.card.heightMm || (a.end.endId < b.end.endId ? -1 : 1));
  for (const { end, card } of cards) {
    const found = findRoom(board, taken, end, card);
    if (!found) continue;
    taken.push(found);
    endIds.add(end.endId);
    codes.push({ card: `end ${end.endId}`, x: found.x + card.codeXMm, y: found.y, sizeMm: CODE_MM });
    marks.push(...card.marks.map((mark) => moveMark(mark, found.x, found.y)));
  }
  return { marks, endIds, codes };
}

function drawCard(job: Job, catalogue: Catalogue, plan: LoomPlan, { loomId }: PlannedBoard, end: BoardEnd): Card | null {
  const { familyId, key } = job.looms[loomId]!.ends[end.endId]!;
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const rows = plan.terminations
    .filter(({ endId, wireIds }) => endId === end.endId && wireIds.length > 0)
    .flatMap(({ cavity, wireIds }) => wireIds.map((id) => ({ cavity, wire: wires.get(id)! })));
  if (rows.length === 0) return null;
  const family = findFamily(job, catalogue, familyId);
  const spread = end.sigmaMm >= 0.5 ? `± ${end.sigmaMm.toFixed(0)} mm, not fitted` : '';
  const second = [family ? `${family.name}${key === null ? '' : `, key ${key}`}` : '', spread].filter(Boolean).join(', ');
  const marks: Mark[] = [text(0, LARGE * 0.8, end.name, LARGE, { face: 'narrow-bold' }), text(0, LARGE + LEADING, second, SMALL)];
  let y = LARGE + LEADING + 2;
  const face = family && drawFacePicture(family, (cavity) => rows.find((one) => one.cavity === cavity)?.wire.colour ?? null, FACE_WORDS_MM);
  if (face) {
    marks.push(...face.marks.map((mark) => moveMark(mark, 0, y)));
    y += face.heightMm + 1;
  }
  const columnMm =
    Math.max(...rows.map(({ wire }) => CAVITY_MM + WIRE_MM + measureText(toColourWords(wire.colour), SMALL, 'narrow'))) + GAP_MM;
  rows.forEach(({ cavity, wire }, index) => {
    const x = Math.floor(index / MOST_LINES) * columnMm;
    const line = y + ((index % MOST_LINES) + 1) * LEADING;
    marks.push(
      text(x, line, cavity, SMALL, { face: 'mono' }),
      text(x + CAVITY_MM, line, wire.number, SMALL, { face: 'mono' }),
      text(x + CAVITY_MM + WIRE_MM, line, toColourWords(wire.colour), SMALL),
    );
  });
  // beside what stands above the table, which is wider than that more often than not
  const besideMm = y + LEADING > CODE_MM ? 0 : Math.ceil(rows.length / MOST_LINES) * columnMm - GAP_MM;
  const codeXMm =
    Math.max(measureText(end.name, LARGE, 'narrow-bold'), measureText(second, SMALL, 'narrow'), face?.widthMm ?? 0, besideMm) + CODE_GAP_MM;
  const widthMm = Math.max(codeXMm + CODE_MM, Math.ceil(rows.length / MOST_LINES) * columnMm - GAP_MM);
  return { widthMm, heightMm: Math.max(CODE_MM, y + Math.min(MOST_LINES, rows.length) * LEADING + 1), marks, codeXMm };
}

function findRoom(board: PlannedBoard, taken: readonly Rect[], end: BoardEnd, { widthMm: w, heightMm: h }: Card): Rect | null {
  const { board: size } = board;
  for (const step of STEPS)
    for (const turn of TURNS) {
      const angle = ((end.deg + turn) * Math.PI) / 180;
      const [c, s] = [Math.cos(angle), Math.sin(angle)];
      const away = step + (Math.abs(turn) >= 90 ? end.widthMm / 2 : end.depthMm) + (Math.abs(c) * w) / 2 + (Math.abs(s) * h) / 2;
      const rect = { x: end.x + c * away - w / 2, y: end.y + s * away - h / 2, widthMm: w, heightMm: h };
      if (
        rect.x < size.edgeMm ||
        rect.y < size.edgeMm ||
        rect.x + w > size.widthMm - size.edgeMm ||
        rect.y + h > size.heightMm - size.edgeMm
      )
        continue;
      if (taken.some((one) => overlaps(rect, one))) continue;
      if (
        board.runs.some(({ points, odMm }) =>
          points.slice(1).some((to, index) => passes(rect, points[index]!, to, toDrawnOd(odMm) / 2 + CLEAR_MM)),
        )
      )
        continue;
      return rect;
    }
  return null;
}

const overlaps = (a: Rect, b: Rect): boolean =>
  a.x < b.x + b.widthMm + CLEAR_MM &&
  b.x < a.x + a.widthMm + CLEAR_MM &&
  a.y < b.y + b.heightMm + CLEAR_MM &&
  b.y < a.y + a.heightMm + CLEAR_MM;

/** The box of a housing, however it stands. */
function toBox({ x, y, deg, depthMm, widthMm }: BoardEnd): Rect {
  const [c, s] = [Math.cos((deg * Math.PI) / 180), Math.sin((deg * Math.PI) / 180)];
  const [cx, cy] = [x + (c * depthMm) / 2, y + (s * depthMm) / 2];
  const w = Math.abs(c) * depthMm + Math.abs(s) * widthMm;
  const h = Math.abs(s) * depthMm + Math.abs(c) * widthMm;
  return { x: cx - w / 2, y: cy - h / 2, widthMm: w, heightMm: h };
}

/** Does a line come nearer to a rectangle than so? */
const passes = ({ x, y, widthMm, heightMm }: Rect, a: BoardPoint, b: BoardPoint, room: number): boolean =>
  clipLine([a.x, a.y], [b.x, b.y], { x: x - room, y: y - room, widthMm: widthMm + 2 * room, heightMm: heightMm + 2 * room }) !== null;
