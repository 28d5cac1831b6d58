import { FOOT_MM, type PlannedBoard, type TileMap } from '../../make';
import { measureText } from '../measureText';
import { FAINT, HAIR, INK, line, text, type Drawing, type Mark } from '../drawing';

export interface TileMeta {
  job: string;
  loom: string;
  /** "revision 1" or "draft, version 7" */
  revision: string;
  date: string;
  /** what a print is multiplied by */
  scale: number;
}

const SMALL = 3.2;
const TICK = 4;

/**
 * A board as pages of the printer's paper at full scale: on each the part of it, crosses where it meets its neighbours, a bar of 100 mm, a
 * map of the pages, and what says whether it still holds.
 */
export function drawTiles(
  drawing: Drawing,
  { printer }: Pick<PlannedBoard, 'printer'>,
  { tiles, columns, rows }: TileMap,
  meta: TileMeta,
): Drawing[] {
  const { paperWidthMm, paperHeightMm, usableWidthMm: w, usableHeightMm: h, overlapMm } = printer;
  const [left, top] = [(paperWidthMm - w) / 2, (paperHeightMm - h) / 2];
  // where the print grew or shrank while it hung, numbers do not run from 1 on
  const isRow = tiles.every(({ number }) => number <= tiles.length);
  // the foot stands on white: what of the loom lies under it is on the page below too, which shares that edge
  const footMm = Math.min(overlapMm, FOOT_MM);
  const clear = (x: number, wide: number): Mark[] => [
    { kind: 'rect', x, y: top + h - footMm, w: wide, h: footMm - 1, fill: '#ffffff', stroke: null, width: 0 },
  ];
  return tiles.map(({ number, column, row, x, y, fingerprint }) => {
    const words = [
      `${meta.job} · ${meta.loom} · ${meta.revision} · ${meta.date}`,
      `page ${number} ${isRow ? `of ${tiles.length}` : `· ${tiles.length} in all`} · column ${column + 1}, row ${row + 1} · fingerprint ${fingerprint}${meta.scale === 1 ? '' : ` · × ${meta.scale.toFixed(4)}`}`,
    ];
    const marks: Mark[] = [
      { kind: 'window', x: left, y: top, w, h, from: [x, y], scale: meta.scale, marks: drawing.marks },
      // it is cut along these
      { kind: 'rect', x: left, y: top, w, h, fill: null, stroke: HAIR, width: 0.2 },
      // on the outer sides too: a page may join there later
      ...[left + overlapMm / 2, left + w - overlapMm / 2].flatMap((cx) =>
        [top + overlapMm / 2, top + h - overlapMm / 2].flatMap((cy) => drawCross(cx, cy)),
      ),
      ...clear(left + 12, 104 * meta.scale),
      ...drawBar(left + 14, top + h - 5.5, 100 * meta.scale),
      ...drawMap(left + w - 14 - columns * 3, top + h - 6 - rows * 2.4, columns, rows, row * columns + column),
      ...words.flatMap((line, index) => [
        ...(index === 0 ? clear(left + 119, 2 + Math.max(...words.map((one) => measureText(one, SMALL, 'narrow')))) : []),
        text(left + 120, top + h - (index === 0 ? 6.6 : 2.6), line, SMALL, { fill: index === 0 ? INK : FAINT }),
      ]),
    ];
    return { widthMm: paperWidthMm, heightMm: paperHeightMm, marks };
  });
}

const drawCross = (x: number, y: number): Mark[] => [
  line([x - TICK, y], [x + TICK, y], 0.2),
  line([x, y - TICK], [x, y + TICK], 0.2),
  { kind: 'circle', x, y, r: 2, fill: null, stroke: INK, width: 0.2 },
];

/** 100 mm, corrected as all else: it says whether the print is true, and by how much the next one is corrected where it is not. */
function drawBar(x: number, y: number, long: number): Mark[] {
  return [
    line([x, y], [x + long, y], 0.4),
    line([x, y - 3], [x, y + 3], 0.25),
    line([x + long, y - 3], [x + long, y + 3], 0.25),
    text(x + long / 2, y - 1.2, '100 mm: measure it before this is laid', SMALL, { anchor: 'middle' }),
  ];
}

function drawMap(x: number, y: number, columns: number, rows: number, at: number): Mark[] {
  return Array.from({ length: columns * rows }, (_, index): Mark => ({
    kind: 'rect',
    x: x + (index % columns) * 3,
    y: y + Math.floor(index / columns) * 2.4,
    w: 3,
    h: 2.4,
    fill: index === at ? INK : '#ffffff',
    stroke: INK,
    width: 0.15,
  }));
}
