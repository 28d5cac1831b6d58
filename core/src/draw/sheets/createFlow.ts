import { toColourWords, type Colour } from '../../model';
import { WIRE_HEX } from '../../model';
import { FAINT, HAIR, INK, line, moveMark, text, type Drawing, type Face, type Mark, type SheetPage } from '../drawing';
import { fitText, measureText, wrapText } from '../measureText';
import { toPageFingerprint } from './comparePages';

export const PAPERS = { A4: { widthMm: 210, heightMm: 297 }, Letter: { widthMm: 215.9, heightMm: 279.4 } } as const;
export type Paper = keyof typeof PAPERS;

export interface SheetMeta {
  paper: Paper;
  job: string;
  loom: string;
  /** "revision 1" or "draft" */
  revision: string;
  date: string;
}

export interface Column {
  title: string;
  /** share of the width */
  share: number;
  face?: Face;
  align?: 'start' | 'end';
}

export type Cell = string | { colour: Colour } | { tick: true };

export interface Flow {
  readonly widthMm: number;
  sheet(title: string, lead?: string): void;
  heading(words: string, keepMm?: number): void;
  paragraph(words: string, face?: Face): void;
  table(columns: readonly Column[], rows: readonly (readonly Cell[])[]): void;
  picture(drawing: Drawing): void;
  finish(): SheetPage[];
}

const MARGIN = 14;
const TOP = 27;
const SIZE = 2.9;
const LEADING = 3.7;

/** Pages that fill from the top; a table that is longer than a page goes on under a repeated head. */
export function createFlow(meta: SheetMeta): Flow {
  const { widthMm: pageWidth, heightMm: pageHeight } = PAPERS[meta.paper];
  const widthMm = pageWidth - 2 * MARGIN;
  const bottom = pageHeight - 17;
  const pages: SheetPage[] = [];
  let marks: Mark[] = [];
  let y = TOP;
  let sheetTitle = '';

  const newPage = () => {
    marks = [];
    pages.push({ widthMm: pageWidth, heightMm: pageHeight, marks, sheet: sheetTitle });
    y = TOP;
  };
  const need = (mm: number) => {
    if (y + mm > bottom && y > TOP) newPage();
  };
  const addHead = (columns: readonly Column[], widths: readonly number[]) => {
    marks.push(...drawHead(columns, widths, y), line([MARGIN, y + 3.8], [MARGIN + widthMm, y + 3.8], 0.35));
    y += 4.6;
  };
  const flow: Flow = {
    widthMm,
    sheet(title, lead) {
      sheetTitle = title;
      newPage();
      if (lead) flow.paragraph(lead);
    },
    heading(words, keepMm = 20) {
      need(8 + keepMm);
      marks.push(text(MARGIN, y + 4.2, words, 3.9, { face: 'narrow-bold' }));
      y += 7;
    },
    paragraph(words, face = 'narrow') {
      for (const part of wrapText(words, SIZE, face, widthMm)) {
        need(LEADING);
        marks.push(text(MARGIN, y + SIZE, part, SIZE, { face }));
        y += LEADING + 0.5;
      }
      y += 1.5;
    },
    table(columns, rows) {
      const total = columns.reduce((sum, { share }) => sum + share, 0);
      const widths = columns.map(({ share }) => (share / total) * widthMm);
      need(14);
      addHead(columns, widths);
      for (const row of rows) {
        const lines = wrapRow(row, columns, widths);
        const height = Math.max(1, ...lines.map(({ length }) => length)) * LEADING + 1.1;
        if (y + height > bottom) {
          newPage();
          addHead(columns, widths);
        }
        let x = MARGIN;
        row.forEach((cell, index) => {
          marks.push(...drawCell(cell, lines[index]!, { x, y, width: widths[index]! }, columns[index]!));
          x += widths[index]!;
        });
        y += height;
        marks.push(line([MARGIN, y - 0.4], [MARGIN + widthMm, y - 0.4], 0.1, HAIR));
      }
      y += 4;
    },
    picture(drawing) {
      need(drawing.heightMm);
      marks.push(...drawing.marks.map((mark) => moveMark(mark, MARGIN, y)));
      y += drawing.heightMm + 3;
    },
    finish() {
      pages.forEach((page, index) => page.marks.push(...drawFrame(meta, page, index + 1, pages.length, toPageFingerprint(page))));
      return pages;
    },
  };
  return flow;
}

function drawHead(columns: readonly Column[], widths: readonly number[], y: number): Mark[] {
  let x = MARGIN;
  return columns.map(({ title, align }, index) => {
    const at = align === 'end' ? x + widths[index]! - 1.5 : x;
    x += widths[index]!;
    return text(at, y + 2.6, title, 2.5, { fill: FAINT, anchor: align ?? 'start' });
  });
}

const wrapRow = (row: readonly Cell[], columns: readonly Column[], widths: readonly number[]): string[][] =>
  row.map((cell, index) => {
    if (typeof cell === 'string') return wrapText(cell, SIZE, columns[index]!.face ?? 'narrow', widths[index]! - 1.5);
    // bands make a look longer than its column: none of it is cut off
    return 'colour' in cell ? wrapText(toColourWords(cell.colour), SIZE, 'narrow', widths[index]! - 8) : [];
  });

function drawCell(cell: Cell, lines: readonly string[], { x, y, width }: { x: number; y: number; width: number }, column: Column): Mark[] {
  if (typeof cell === 'string') {
    const at = column.align === 'end' ? x + width - 1.5 : x;
    return lines.map((words, index) =>
      text(at, y + SIZE + index * LEADING, words, SIZE, { face: column.face ?? 'narrow', anchor: column.align ?? 'start' }),
    );
  }
  if ('tick' in cell) return [{ kind: 'rect', x, y: y + 0.4, w: 3, h: 3, fill: null, stroke: INK, width: 0.25 }];
  const swatch: Mark[] = [{ kind: 'rect', x, y: y + 0.7, w: 6, h: 2.2, fill: WIRE_HEX[cell.colour.base], stroke: INK, width: 0.2 }];
  if (cell.colour.stripe)
    swatch.push({ kind: 'rect', x, y: y + 1.4, w: 6, h: 0.8, fill: WIRE_HEX[cell.colour.stripe], stroke: null, width: 0 });
  for (const [at, band] of cell.colour.bands.entries())
    swatch.push({ kind: 'rect', x: x + 0.6 + at * 1.5, y: y + 0.7, w: 1, h: 2.2, fill: WIRE_HEX[band], stroke: INK, width: 0.1 });
  return [...swatch, ...lines.map((words, index) => text(x + 7, y + SIZE + index * LEADING, words, SIZE))];
}

function drawFrame(meta: SheetMeta, page: SheetPage, number: number, of: number, fingerprint: string): Mark[] {
  const right = page.widthMm - MARGIN;
  const low = page.heightMm - 9;
  const rest = Math.max(measureText(`${meta.revision} · ${meta.date}`, 2.9, 'narrow'), 70);
  return [
    text(MARGIN, 17, fitText(page.sheet, 6, 'narrow-bold', right - MARGIN - rest - 4), 6, { face: 'narrow-bold' }),
    text(right, 13, fitText(`${meta.job} · ${meta.loom}`, 3.2, 'narrow-bold', 70), 3.2, { face: 'narrow-bold', anchor: 'end' }),
    text(right, 17.4, `${meta.revision} · ${meta.date}`, 2.9, { anchor: 'end' }),
    line([MARGIN, 20.5], [right, 20.5], 0.5),
    line([MARGIN, low - 4], [right, low - 4], 0.15),
    text(MARGIN, low, fitText(`${meta.job} · loom ${meta.loom} · ${meta.revision} · ${meta.date}`, 2.5, 'narrow', 130), 2.5, {
      fill: FAINT,
    }),
    text(right - 26, low, fingerprint, 2.5, { face: 'mono', fill: FAINT, anchor: 'end' }),
    text(right, low, `page ${number} of ${of}`, 2.5, { fill: FAINT, anchor: 'end' }),
  ];
}
