import { FAINT, line, moveMark, POST_WORDS, text, type Drawing, type Mark, type SheetPage } from '../../drawing';
import { fitText, wrapText } from '../../measureText';
import { toPageFingerprint } from '../comparePages';
import { addBands, addCard } from './addCards';
import { addTable, addTwin } from './addTable';
import type { Flow, SheetMeta } from './flowTypes';
import { HEAD_WORDS_MM, MARGIN, PAGE_CODE_MM, Pen } from './pen';
import { TYPES } from './type';

/** Pages that fill from the top; a table that is longer than a page goes on under a repeated head. */
export function createFlow(meta: SheetMeta): Flow {
  const pen = new Pen(meta);
  const flow: Flow = {
    widthMm: pen.widthMm,
    sheet(title, post, lead) {
      pen.beginSheet(title, post);
      if (lead) flow.paragraph(lead);
    },
    heading(words, keepMm = 20, about) {
      const { heading } = pen.type;
      pen.need(8 + keepMm);
      const low = pen.y + (about?.here.heightMm ?? 0);
      const wide = about ? pen.widthMm - about.here.widthMm - 3 : pen.widthMm;
      if (about) {
        pen.openBy(about.id);
        pen.marks.push(...about.here.marks.map((mark) => moveMark(mark, MARGIN + wide + 3, pen.y)));
      }
      for (const part of wrapText(words, heading, 'narrow-bold', wide)) {
        pen.marks.push(text(MARGIN, pen.y + heading + 0.3, part, heading, { face: 'narrow-bold' }));
        pen.y += heading + 2;
      }
      pen.y = Math.max(pen.y, low) + 1.1;
    },
    paragraph(words, face = 'narrow') {
      const { size, leading } = pen.type;
      for (const part of wrapText(words, size, face, pen.widthMm)) {
        pen.need(leading);
        pen.marks.push(text(MARGIN, pen.y + size, part, size, { face }));
        pen.y += leading + 0.5;
      }
      pen.y += 1.5;
    },
    table: (columns, rows) => addTable(pen, columns, rows),
    twin: (columns, rows) => addTwin(pen, columns, rows),
    bands: (columns, bands) => addBands(pen, columns, bands),
    picture(drawing) {
      pen.need(drawing.heightMm);
      pen.marks.push(...drawing.marks.map((mark) => moveMark(mark, MARGIN, pen.y)));
      pen.y += drawing.heightMm + 3;
    },
    pack: (drawings) => addPacked(pen, drawings),
    card: (head, fill) => addCard(pen, head, fill),
    finish() {
      const { pages } = pen;
      pages.forEach((page, index) => page.marks.push(...drawFrame(meta, page, index + 1, pages.length, toPageFingerprint(page))));
      return pages;
    },
  };
  return flow;
}

const PACK_GAP_MM = 5;

function addPacked(pen: Pen, drawings: readonly Drawing[]): void {
  const wide = Math.max(...drawings.map(({ widthMm }) => widthMm));
  const count = Math.max(1, Math.floor((pen.widthMm + PACK_GAP_MM) / (wide + PACK_GAP_MM)));
  let lows = Array<number>(count).fill(pen.y);
  for (const { heightMm, marks } of drawings) {
    let column = lows.indexOf(Math.min(...lows));
    if (lows[column]! + heightMm > pen.bottom) {
      pen.newPage();
      lows = Array<number>(count).fill(pen.y);
      column = 0;
    }
    pen.marks.push(...marks.map((mark) => moveMark(mark, MARGIN + column * (wide + PACK_GAP_MM), lows[column]!)));
    lows[column] = lows[column]! + heightMm + PACK_GAP_MM;
  }
  pen.y = Math.max(...lows);
}

function drawFrame(meta: SheetMeta, page: SheetPage, number: number, of: number, fingerprint: string): Mark[] {
  const post = page.post ?? 'office';
  const { small } = TYPES[post === 'office' ? 'office' : 'crew'];
  const right = page.widthMm - MARGIN;
  const low = page.heightMm - 9;
  const title = post === 'office' ? page.sheet : `${POST_WORDS[post]} · ${page.sheet}`;
  return [
    text(MARGIN, 17, fitText(title, 6, 'narrow-bold', right - MARGIN - HEAD_WORDS_MM - PAGE_CODE_MM - 6), 6, { face: 'narrow-bold' }),
    text(right, 13, fitText(`${meta.job} · ${meta.loom}`, 3.2, 'narrow-bold', HEAD_WORDS_MM), 3.2, { face: 'narrow-bold', anchor: 'end' }),
    text(right, 17.4, fitText(`${meta.revision} · ${meta.date}`, 3.2, 'narrow', HEAD_WORDS_MM), 3.2, { anchor: 'end' }),
    line([MARGIN, 20.5], [right, 20.5], 0.5),
    line([MARGIN, low - 4], [right, low - 4], 0.15),
    text(MARGIN, low, fitText(`${meta.job} · loom ${meta.loom} · ${meta.revision} · ${meta.date}`, small, 'narrow', 110), small, {
      fill: FAINT,
    }),
    text(right - 30, low, fingerprint, small, { face: 'mono', fill: FAINT, anchor: 'end' }),
    text(right, low, `page ${number} of ${of}`, small, { fill: FAINT, anchor: 'end' }),
  ];
}
