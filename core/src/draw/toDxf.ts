import { DxfWriter, LWPolylineFlags, point2d, point3d, TextHorizontalAlignment, TrueColor, Units } from '@tarikjabiri/dxf';
import type { Drawing, Mark } from './drawing';
import { flattenPath } from './flattenPath';

/** Layers of the file: what is drawn, areas that are only filled, words. */
export const DXF_LAYERS = { lines: 'LINES', fills: 'FILLS', words: 'WORDS' } as const;

/** between two pages side by side, mm */
const GAP_MM = 20;
/** colour of a layer whose marks have their own: white on black, black on white */
const BY_PAPER = 7;

/**
 * Drawings side by side as one DXF (R2007, millimetres, y upwards), at true size: lines and outlines as polylines, curves as polylines of a
 * tenth of a millimetre at most beside the curve, words as text. What is filled is drawn by its outline.
 */
export function toDxf(drawings: readonly Drawing[]): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  const own = drawings.flatMap(({ marks }) => marks.flatMap(({ layer }) => layer ?? []));
  for (const name of new Set([...Object.values(DXF_LAYERS), ...own])) dxf.addLayer(name, BY_PAPER, 'CONTINUOUS');
  let left = 0;
  for (const { widthMm, heightMm, marks } of drawings) {
    for (const mark of marks) addMark(dxf, mark, left, heightMm);
    left += widthMm + GAP_MM;
  }
  return dxf.stringify();
}

function addMark(dxf: DxfWriter, mark: Mark, left: number, heightMm: number): void {
  const place = (x: number, y: number) => [left + x, heightMm - y] as const;
  if (mark.kind === 'text') return addText(dxf, mark, place(mark.x, mark.y));
  // a part of a drawing has no edges to cut at here: what is to be cut is drawn whole
  if (mark.kind === 'window') throw new RangeError('DXF: expected a whole drawing, got pages of one');
  const paint = toPaint(mark);
  if (paint === null) return;
  if (mark.kind === 'circle') {
    const [x, y] = place(mark.x, mark.y);
    dxf.addCircle(point3d(x, y), mark.r, paint);
    return;
  }
  for (const { points, isClosed } of mark.kind === 'rect' ? [toCorners(mark)] : flattenPath(mark.d)) {
    if (points.length < 2) continue;
    const vertices = points.map(([x, y]) => {
      const [px, py] = place(x, y);
      return { point: point2d(px, py) };
    });
    dxf.addLWPolyline(vertices, { ...paint, flags: isClosed ? LWPolylineFlags.Closed : LWPolylineFlags.None });
  }
}

/** Layer and colour; null: nothing of it is seen. */
function toPaint({ fill, stroke, width, layer }: Exclude<Mark, { kind: 'text' | 'window' }>) {
  const isDrawn = stroke !== null && width > 0;
  const colour = isDrawn ? stroke : fill;
  if (colour === null) return null;
  return { layerName: layer ?? (isDrawn ? DXF_LAYERS.lines : DXF_LAYERS.fills), trueColor: toColour(colour) };
}

const toColour = (hex: string) => TrueColor.fromHex(hex).toString();

const toCorners = ({ x, y, w, h }: Extract<Mark, { kind: 'rect' }>) => ({
  points: [
    [x, y],
    [x + w, y],
    [x + w, y + h],
    [x, y + h],
  ] as const,
  isClosed: true,
});

const ANCHORS = {
  start: TextHorizontalAlignment.Left,
  middle: TextHorizontalAlignment.Center,
  end: TextHorizontalAlignment.Right,
} as const;
/** height of a capital over the size of the letters of the shipped faces */
const CAPITAL = 0.7;

function addText(dxf: DxfWriter, mark: Extract<Mark, { kind: 'text' }>, [x, y]: readonly [number, number]): void {
  dxf.addText(point3d(x, y), mark.size * CAPITAL, mark.text, {
    layerName: mark.layer ?? DXF_LAYERS.words,
    trueColor: toColour(mark.fill),
    horizontalAlignment: ANCHORS[mark.anchor],
    secondAlignmentPoint: point3d(x, y),
    ...(mark.turn ? { rotation: -mark.turn } : {}),
  });
}
