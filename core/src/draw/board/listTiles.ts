import { placeTiles, type PlannedBoard, type Tile, type TileMap } from '../../make';
import { toDigest } from '../../make/toDigest';
import type { Drawing, Mark, Point } from '../drawing';
import { flattenPath } from '../flattenPath';
import { measureText } from '../measureText';

type Window = Pick<Tile, 'x' | 'y' | 'widthMm' | 'heightMm'>;

/** Pages of the print of a board, each with the fingerprint of what is drawn on it: two prints with the same one are the same. */
export function listTiles(drawing: Drawing, planned: PlannedBoard, scale: number): TileMap {
  const { tiles, ...map } = placeTiles(planned, measureDrawn(drawing.marks, planned.box), scale);
  return { ...map, tiles: tiles.map((tile) => ({ ...tile, fingerprint: toFingerprint(drawing.marks, tile, scale) })) };
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

/** What is drawn in a window, to half a millimetre. */
function toFingerprint(marks: readonly Mark[], window: Window, scale: number): string {
  const at = (x: number, y: number) => `${near(x - window.x)} ${near(y - window.y)}`;
  const isIn = (x: number, y: number, roomX: number, roomY = roomX) =>
    x > window.x - roomX && x < window.x + window.widthMm + roomX && y > window.y - roomY && y < window.y + window.heightMm + roomY;
  const said = marks.flatMap((mark): string[] => {
    switch (mark.kind) {
      case 'text': {
        const room = measureText(mark.text, mark.size, mark.face);
        return isIn(mark.x, mark.y, room) ? [`${mark.text} ${at(mark.x, mark.y)} ${mark.turn ?? 0}`] : [];
      }
      case 'circle':
        return isIn(mark.x, mark.y, mark.r) ? [`o ${at(mark.x, mark.y)} ${near(mark.r)} ${mark.fill}`] : [];
      case 'rect': {
        const [x, y] = [mark.x + mark.w / 2, mark.y + mark.h / 2];
        return isIn(x, y, mark.w / 2, mark.h / 2) ? [`r ${at(mark.x, mark.y)} ${near(mark.w)} ${near(mark.h)} ${mark.fill}`] : [];
      }
      case 'path':
        return flattenPath(mark.d).flatMap(({ points, isClosed }) => listClipped(isClosed ? [...points, points[0]!] : points, window, at));
      case 'window':
        return [];
    }
  });
  return toDigest([scale.toFixed(4), ...said].join('\n'));
}

function listClipped(points: readonly Point[], window: Window, at: (x: number, y: number) => string): string[] {
  return points.slice(1).flatMap((to, index) => {
    const clipped = clipLine(points[index]!, to, window);
    return clipped ? [`${at(...clipped[0])} ${at(...clipped[1])}`] : [];
  });
}

/** The part of a line within a window; null: it passes by. */
function clipLine(a: Point, b: Point, { x, y, widthMm, heightMm }: Window): readonly [Point, Point] | null {
  let [from, to] = [0, 1];
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  for (const [step, room] of [
    [-dx, a[0] - x],
    [dx, x + widthMm - a[0]],
    [-dy, a[1] - y],
    [dy, y + heightMm - a[1]],
  ] as const) {
    if (Math.abs(step) < 1e-12) {
      if (room < 0) return null;
    } else if (step < 0) from = Math.max(from, room / step);
    else to = Math.min(to, room / step);
  }
  if (from > to) return null;
  const point = (share: number): Point => [a[0] + dx * share, a[1] + dy * share];
  return [point(from), point(to)];
}
