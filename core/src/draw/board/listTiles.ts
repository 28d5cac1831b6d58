import { placeTiles, type BoardTileMap, type PlacedTile, type PlannedBoard } from '../../make';
import { toDigest } from '../../make/toDigest';
import type { Drawing, Mark } from '../drawing';
import { flattenPath } from '../flattenPath';
import { measureText } from '../measureText';
import { clipLine, type Rect } from './clipLine';

/**
 * Pages of the print of a board, each with the fingerprint of what is drawn on it: two prints with the same one are the same. They lie as the
 * pages that hang do, as long as one of those still shows what is so.
 */
export function listTiles(drawing: Drawing, planned: PlannedBoard, scale: number): BoardTileMap {
  const told = drawing.marks.map(toTold);
  const box = measureDrawn(drawing.marks, planned.box);
  const toMark = (lines: readonly string[]) => toDigest([scale.toFixed(4), ...lines].join('\n'));
  const mark = ({ tiles, ...map }: ReturnType<typeof placeTiles>): BoardTileMap => ({
    ...map,
    tiles: tiles.map((tile: PlacedTile) => ({ ...tile, fingerprint: toMark(told.flatMap((tell) => tell(tile))) })),
  });
  const map = mark(placeTiles(planned, box, scale));
  if (!planned.printed) return map;
  const blank = toMark([]);
  const hung = new Map(planned.printed.tiles.map(({ number, fingerprint }) => [number, fingerprint]));
  const holds = map.tiles.some(({ number, fingerprint }) => fingerprint !== blank && hung.get(number) === fingerprint);
  return holds ? dropBlank(map, hung, blank) : mark(placeTiles({ ...planned, printed: null }, box, scale));
}

/** Beside a print that hangs no page is added that would show nothing. */
function dropBlank(map: BoardTileMap, hung: ReadonlyMap<number, string>, blank: string): BoardTileMap {
  let next = 1 + Math.max(...hung.keys());
  const kept = map.tiles.filter(({ number, fingerprint }) => hung.has(number) || fingerprint !== blank);
  return { ...map, tiles: kept.map((tile) => (hung.has(tile.number) ? tile : { ...tile, number: next++ })) };
}

/** The box of a loom with what is written beside it. */
function measureDrawn(marks: readonly Mark[], { x, y, widthMm, heightMm }: PlannedBoard['box']): PlannedBoard['box'] {
  let [left, top, right, bottom] = [x, y, x + widthMm, y + heightMm];
  for (const mark of marks) {
    if (mark.kind !== 'text' || mark.turn) continue;
    const wide = measureText(mark.text, mark.size, mark.face);
    const from = mark.anchor === 'end' ? mark.x - wide : mark.anchor === 'middle' ? mark.x - wide / 2 : mark.x;
    left = Math.min(left, from);
    right = Math.max(right, from + wide);
    top = Math.min(top, mark.y - mark.size);
    bottom = Math.max(bottom, mark.y + mark.size * 0.3);
  }
  return { x: left, y: top, widthMm: right - left, heightMm: bottom - top };
}

const near = (mm: number) => Math.round(mm * 2) / 2;

/** What of a mark is drawn in a window, to half a millimetre. Measured and cut into lines once: a page is one of many. */
function toTold(mark: Mark): (window: Rect) => string[] {
  const at = (window: Rect, x: number, y: number) => `${near(x - window.x)} ${near(y - window.y)}`;
  const place = (x: number, y: number, roomX: number, roomY: number, words: string) => (window: Rect) =>
    x > window.x - roomX && x < window.x + window.widthMm + roomX && y > window.y - roomY && y < window.y + window.heightMm + roomY
      ? [`${words} ${at(window, x, y)}`]
      : [];
  // a part of another drawing has no place on a board
  if (mark.kind === 'window') throw new RangeError('pages of a board: expected a whole drawing, got pages of one');
  if (mark.kind === 'text') {
    const wide = measureText(mark.text, mark.size, mark.face);
    // turned it may reach as far to any side; else it lies as it is anchored, on its line
    const roomX = mark.anchor === 'middle' && !mark.turn ? wide / 2 : wide;
    const roomY = mark.turn ? wide : mark.size;
    return place(mark.x, mark.y, roomX, roomY, `${mark.text} ${mark.size} ${mark.turn ?? 0} ${mark.fill}`);
  }
  const look = `${mark.fill} ${mark.stroke} ${mark.width} ${'dash' in mark ? String(mark.dash) : ''}`;
  if (mark.kind === 'circle') return place(mark.x, mark.y, mark.r, mark.r, `o ${near(mark.r)} ${look}`);
  if (mark.kind === 'rect') {
    const [w, h] = [mark.w / 2, mark.h / 2];
    return place(mark.x + w, mark.y + h, w, h, `r ${near(mark.w)} ${near(mark.h)} ${look}`);
  }
  const lines = flattenPath(mark.d).flatMap(({ points, isClosed }) =>
    (isClosed ? [...points.slice(1), points[0]!] : points.slice(1)).map((to, index) => [points[index]!, to] as const),
  );
  return (window) =>
    lines.flatMap(([from, to]) => {
      const clipped = clipLine(from, to, window);
      return clipped ? [`${look} ${at(window, ...clipped[0])} ${at(window, ...clipped[1])}`] : [];
    });
}
