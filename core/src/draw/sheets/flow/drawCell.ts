import { toColourWords, WIRE_HEX, type Colour } from '../../../model';
import { HAIR, INK, line, text, type Mark } from '../../drawing';
import { wrapText } from '../../measureText';
import type { Cell, Column } from './flowTypes';
import type { Type } from './type';

/** A cell as its column is wide: its lines, and how high they stand, mm. */
export interface WrappedCell {
  lines: string[];
  heightMm: number;
  /** a row that went on from the page before */
  isLater?: boolean;
}

const COPPER = '#b87333';
/** insulation that is drawn before a strip length */
const BEFORE_MM = 6;
const SWATCH_MM = 6;

export function wrapCell(cell: Cell, column: Column, widthMm: number, type: Type): WrappedCell {
  const [size, leading] = toSize(column, type);
  if (typeof cell === 'string') {
    const lines = wrapText(cell, size, column.face ?? 'narrow', widthMm - 1.5);
    return { lines, heightMm: lines.length * leading };
  }
  // bands make a look longer than its column: none of it is cut off
  const lines = 'colour' in cell ? wrapText(toColourWords(cell.colour), type.size, 'narrow', widthMm - 8) : [];
  return { lines, heightMm: lines.length * type.leading };
}

/** A row in parts of so many lines; what is not text stands in the first. */
export function splitCells(cells: readonly WrappedCell[], most: number): WrappedCell[][] {
  const tallest = Math.max(...cells.map(({ lines }) => lines.length));
  return Array.from({ length: Math.ceil(tallest / most) }, (_, part) =>
    cells.map(({ lines, heightMm }) => ({ lines: lines.slice(part * most, (part + 1) * most), heightMm, isLater: part > 0 })),
  );
}

const toSize = ({ isBig }: Column, { size, leading, big }: Type): [size: number, leading: number] =>
  isBig ? [big, leading + big - size - 0.5] : [size, leading];

/** The marks of a cell whose first line stands on the baseline. */
export function drawCell(
  cell: Cell,
  { lines, isLater = false }: WrappedCell,
  { x, baseline, width }: { x: number; baseline: number; width: number },
  column: Column,
  type: Type,
): Mark[] {
  const [size, leading] = toSize(column, type);
  if (typeof cell === 'string') {
    if (cell === '') return [];
    const at = column.align === 'end' ? x + width - 1.5 : x;
    return lines.map((words, index) =>
      text(at, baseline + index * leading, words, size, { face: column.face ?? 'narrow', anchor: column.align ?? 'start' }),
    );
  }
  if (isLater) return [];
  if ('tick' in cell) {
    const side = type.size + 0.1;
    return [{ kind: 'rect', x, y: baseline - side + 0.5, w: side, h: side, fill: null, stroke: INK, width: 0.25 }];
  }
  if ('stripMm' in cell) return drawStrip(cell.stripMm, x, baseline, type);
  return [
    ...drawSwatch(cell.colour, x, baseline - 2.2, SWATCH_MM, 2.4),
    ...lines.map((words, index) => text(x + 7, baseline + index * type.leading, words, type.size)),
  ];
}

/** The look of a wire: base, stripe, bands. */
export function drawSwatch({ base, stripe, bands }: Colour, x: number, y: number, w: number, h: number): Mark[] {
  return [
    { kind: 'rect', x, y, w, h, fill: WIRE_HEX[base], stroke: INK, width: 0.2 },
    ...(stripe ? [{ kind: 'rect', x, y: y + h * 0.32, w, h: h * 0.36, fill: WIRE_HEX[stripe], stroke: null, width: 0 } as const] : []),
    ...bands.map((band, at): Mark => ({
      ...{ kind: 'rect', x: x + w * (0.1 + at * 0.25), y, w: w / 6, h, fill: WIRE_HEX[band], stroke: INK, width: 0.1 },
    })),
  ];
}

/** Insulation, then copper as long as it is stripped: laid on the paper the wire is held against it. */
function drawStrip(mm: number, x: number, baseline: number, { size }: Type): Mark[] {
  const middle = baseline - size * 0.36;
  const edge = x + BEFORE_MM;
  return [
    { kind: 'rect', x, y: middle - 0.9, w: BEFORE_MM, h: 1.8, fill: HAIR, stroke: INK, width: 0.15 },
    { kind: 'rect', x: edge, y: middle - 0.5, w: mm, h: 1, fill: COPPER, stroke: null, width: 0 },
    line([edge, middle - 1.7], [edge, middle + 1.7], 0.25),
    line([edge + mm, middle - 1.7], [edge + mm, middle + 1.7], 0.25),
    text(edge + mm + 1.5, baseline, String(mm), size, { face: 'mono' }),
  ];
}
