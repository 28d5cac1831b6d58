import { line, moveMark, text, type Mark } from '../../drawing';
import { fitText, measureText, wrapText } from '../../measureText';
import { addHead, addRows, toGrid, wrapRow } from './addTable';
import type { Band, CardHead, Column } from './flowTypes';
import { MARGIN, type Pen } from './pen';
import type { Type } from './type';

/** of a code in the head of a card, mm: 0.35 mm a module for an address of 120 letters */
const CODE_MM = 16;
const GAP_MM = 3;
const BAND_MM = 9;
/** a card that is longer than a page begins where at least this much of one is left, mm */
const LEAST_MM = 110;

/** What belongs together stays on one page where one page holds it; what none holds begins where it stands, if there is room for some of it. */
export function addCard(pen: Pen, head: CardHead, fill: () => void): void {
  const [pages, y, wasAtTop] = [pen.pages.length, pen.y, pen.isAtTop];
  const takeBack = pen.mark();
  const draw = () => {
    addCardHead(pen, head);
    fill();
  };
  draw();
  if (pen.pages.length === pages || wasAtTop) return;
  takeBack();
  pen.newPage();
  draw();
  if (pen.pages.length === pages + 1 || y > pen.bottom - LEAST_MM) return;
  takeBack();
  draw();
}

function addCardHead(pen: Pen, { id, title, words, here, picture }: CardHead): void {
  const { type, widthMm } = pen;
  const tall = Math.max(CODE_MM, picture?.heightMm ?? 0) + 2;
  pen.need(tall + 14);
  const { marks, y } = pen;
  const left = MARGIN + (picture ? picture.widthMm + GAP_MM : 0);
  const right = MARGIN + widthMm - CODE_MM - GAP_MM - here.widthMm - GAP_MM;
  const lines = wrapText(words, type.size, 'narrow', right - left).slice(
    0,
    Math.max(2, Math.floor((tall - type.heading - 4) / type.leading)),
  );
  marks.push(
    line([MARGIN, y], [MARGIN + widthMm, y], 0.7),
    ...(picture?.marks ?? []).map((mark) => moveMark(mark, MARGIN, y + 1.6)),
    text(left, y + 2 + type.heading, fitText(title, type.heading, 'narrow-bold', right - left), type.heading, { face: 'narrow-bold' }),
    ...lines.map((part, at) => text(left, y + type.heading + 3 + type.size + at * type.leading, part, type.size)),
    ...here.marks.map((mark) => moveMark(mark, right + GAP_MM, y + 1.6)),
  );
  pen.pages.at(-1)!.codes.push({ card: id, x: MARGIN + widthMm - CODE_MM, y: y + 1.6, sizeMm: CODE_MM });
  pen.y += tall + 1;
}

/** One table in parts, each under a line about it; a page is about the first of them that stands on it. */
export function addBands(pen: Pen, columns: readonly Column[], bands: readonly Band[]): void {
  const grid = toGrid(columns, pen.widthMm);
  let of = '';
  const begin = () => {
    const [code] = pen.pages.at(-1)!.codes;
    if (code) code.card = of;
    pen.y = addHead(pen, grid);
  };
  for (const [at, band] of bands.entries()) {
    of = band.id;
    const tall = BAND_MM + Math.max(0, ...band.rows.slice(0, 1).map((row) => wrapRow(row, grid, pen.type).height));
    if (at === 0) pen.need(tall + 14);
    else if (pen.y + tall > pen.bottom) pen.newPage();
    if (at === 0 || pen.isAtTop) begin();
    const low = pen.y + BAND_MM - 0.6;
    pen.marks.push(...drawBand(band, MARGIN, pen.y, pen.widthMm, pen.type), line([MARGIN, low], [MARGIN + pen.widthMm, low], 0.25));
    pen.y += BAND_MM;
    addRows(pen, band.rows, grid, begin);
    pen.y += 1.6;
  }
  pen.y += 2.4;
}

/** The line over the rows of a band. */
function drawBand({ title, words, here, picture }: Band, x: number, y: number, widthMm: number, { size, heading }: Type): Mark[] {
  const left = x + (picture ? picture.widthMm + GAP_MM : 0);
  const right = x + widthMm - here.widthMm;
  const wide = Math.min(measureText(title, heading, 'narrow-bold'), (right - left) * 0.6);
  return [
    ...(picture?.marks ?? []).map((mark) => moveMark(mark, x, y)),
    text(left, y + 5.6, fitText(title, heading, 'narrow-bold', wide + 0.1), heading, { face: 'narrow-bold' }),
    text(left + wide + 3, y + 5.6, fitText(words, size, 'narrow', right - left - wide - 6), size),
    ...here.marks.map((mark) => moveMark(mark, right, y)),
  ];
}
