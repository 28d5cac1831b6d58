import { FAINT, HAIR, line, text, type Mark } from '../../drawing';
import { drawCell, splitCells, wrapCell, type WrappedCell } from './drawCell';
import type { Cell, Column } from './flowTypes';
import { MARGIN, type Pen } from './pen';
import type { Type } from './type';

const TWIN_GAP_MM = 6;
/** under a table */
const AFTER_MM = 2.8;

type Rows = readonly (readonly Cell[])[];

/** Columns with their widths, mm. */
export interface Grid {
  columns: readonly Column[];
  widths: readonly number[];
}

export function toGrid(columns: readonly Column[], widthMm: number): Grid {
  const total = columns.reduce((all, { share }) => all + share, 0);
  return { columns, widths: columns.map(({ share }) => (share / total) * widthMm) };
}

export function addTable(pen: Pen, columns: readonly Column[], rows: Rows): void {
  const grid = toGrid(columns, pen.widthMm);
  const begin = () => (pen.y = addHead(pen, grid));
  pen.need(14);
  begin();
  addRows(pen, rows, grid, begin);
  pen.y += AFTER_MM;
}

/** Two columns side by side on each page, the left one first. */
export function addTwin(pen: Pen, columns: readonly Column[], rows: Rows): void {
  const halfMm = (pen.widthMm - TWIN_GAP_MM) / 2;
  const grid = toGrid(columns, halfMm);
  const wrapped = rows.map((row) => wrapRow(row, grid, pen.type));
  const height = Math.max(...wrapped.map((one) => one.height));
  const lefts = [MARGIN, MARGIN + halfMm + TWIN_GAP_MM];
  for (let from = 0; from < rows.length;) {
    if (from > 0) pen.newPage();
    pen.need(14);
    const top = lefts.map((x) => addHead(pen, grid, x))[0]!;
    const each = Math.min(Math.ceil((rows.length - from) / 2), Math.max(1, Math.floor((pen.bottom - top) / height)));
    const here = Math.min(2 * each, rows.length - from);
    for (let at = 0; at < here; at++) {
      const x = lefts[Math.floor(at / each)]!;
      pen.y = top + (at % each) * height;
      addRow(pen, rows[from + at]!, grid, wrapped[from + at]!.cells, x);
      addRule(pen, x, pen.y + height, halfMm);
    }
    pen.y = top + each * height;
    from += here;
  }
  pen.y += AFTER_MM;
}

/** @returns where the first row stands */
export function addHead({ marks, y, type }: Pen, { columns, widths }: Grid, x = MARGIN): number {
  const low = y + type.small + 1.3;
  const right = widths.reduce((all, width) => all + width, x);
  marks.push(...drawHead(columns, widths, x, low - 1.2, type), line([x, low], [right, low], 0.35));
  return low + 0.8;
}

/** Rows one under another; begin: draws the head again on a new page. */
export function addRows(pen: Pen, rows: Rows, grid: Grid, begin: () => void): void {
  const turn = () => {
    pen.newPage();
    begin();
  };
  for (const row of rows) {
    const { cells, height } = wrapRow(row, grid, pen.type);
    if (pen.y + height > pen.bottom) turn();
    // what no page holds goes on over the next ones
    const isWhole = pen.y + height <= pen.bottom;
    const parts = isWhole ? [cells] : splitCells(cells, Math.floor((pen.bottom - pen.y - 2) / pen.type.leading));
    for (const [at, part] of parts.entries()) {
      if (at > 0) turn();
      addRow(pen, row, grid, part, MARGIN);
      pen.y += isWhole ? height : Math.max(...part.map(({ lines }) => lines.length)) * pen.type.leading + 1.1;
      addRule(pen, MARGIN, pen.y, pen.widthMm);
    }
  }
}

const addRule = ({ marks }: Pen, x: number, y: number, widthMm: number) =>
  marks.push(line([x, y - 0.4], [x + widthMm, y - 0.4], 0.1, HAIR));

/** Cells of a row as lines, and how high it stands: all first lines of a row stand on one line. */
export function wrapRow(row: readonly Cell[], { columns, widths }: Grid, type: Type): { cells: WrappedCell[]; height: number } {
  const cells = row.map((cell, index) => wrapCell(cell, columns[index]!, widths[index]!, type));
  const lower = toBaseline(columns, type) - type.size;
  const heights = cells.map(({ heightMm }, index) => heightMm + (columns[index]!.isBig ? 0 : lower));
  return { cells, height: Math.max(type.leading, ...heights) + 1.1 };
}

function addRow(
  { marks, y, type }: Pen,
  row: readonly Cell[],
  { columns, widths }: Grid,
  cells: readonly WrappedCell[],
  left: number,
): void {
  const baseline = y + toBaseline(columns, type);
  let x = left;
  row.forEach((cell, index) => {
    marks.push(...drawCell(cell, cells[index]!, { x, baseline, width: widths[index]! }, columns[index]!, type));
    x += widths[index]!;
  });
}

const toBaseline = (columns: readonly Column[], { size, big }: Type) => (columns.some(({ isBig }) => isBig) ? big * 0.9 : size);

function drawHead(columns: readonly Column[], widths: readonly number[], left: number, y: number, { small }: Type): Mark[] {
  let x = left;
  return columns.flatMap(({ title, align }, index) => {
    const at = align === 'end' ? x + widths[index]! - 1.5 : x;
    x += widths[index]!;
    return title === '' ? [] : [text(at, y, title, small, { fill: FAINT, anchor: align ?? 'start' })];
  });
}
