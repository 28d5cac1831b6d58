import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { CATALOGUE } from '../../catalogue';
import { createInlet } from '../../demo';
import { planBoard } from '../../make';
import { plan } from '../../plan';
import { toPdf } from '../toPdf';
import { drawBoard } from './drawBoard';
import { drawTiles } from './drawTiles';
import { listTiles } from './listTiles';

interface ReadPage {
  widthMm: number;
  heightMm: number;
  dotsWide: number;
  dotsHigh: number;
  fonts: { name: string; isEmbedded: boolean }[];
  strokes: number[];
}

const DOTS = 4;
const folder = mkdtempSync(join(tmpdir(), 'wattograph-pdf-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** The print of the inlet loom as another program reads it, with the greys of each page. */
async function printAndRead(scale: number) {
  const job = createInlet();
  const planned = plan(job, CATALOGUE).looms[0]!;
  const board = planBoard(job, CATALOGUE, planned);
  const drawing = drawBoard(job, CATALOGUE, planned, board);
  const map = listTiles(drawing, board, scale);
  const meta = { job: job.name, loom: 'inlet', revision: 'revision 1', date: '2026-11-28', scale };
  const file = join(folder, 'print.pdf');
  writeFileSync(
    file,
    await toPdf(
      drawTiles(drawing, board, map, meta),
      'print',
      new Date(0),
      fileURLToPath(new URL('../../../assets/fonts/', import.meta.url)),
    ),
  );
  const script = fileURLToPath(new URL('../../testing/readPdf.mjs', import.meta.url));
  const pages = JSON.parse(execFileSync(process.execPath, [script, file, folder, String(DOTS)], { encoding: 'utf8' })) as ReadPage[];
  const greys = pages.map((_, at) => readFileSync(join(folder, `${at + 1}.grey`)));
  return { map, board, pages, greys };
}

test('every page of a print has its bar of 100 mm, its fonts within, and the size of the paper', async () => {
  const { pages, board, map } = await printAndRead(1);
  expect(pages).toHaveLength(map.tiles.length);
  for (const { widthMm, heightMm, fonts, strokes } of pages) {
    expect(Math.abs(widthMm - board.printer.paperWidthMm)).toBeLessThan(0.1);
    expect(Math.abs(heightMm - board.printer.paperHeightMm)).toBeLessThan(0.1);
    expect(strokes.filter((mm) => Math.abs(mm - 100) <= 0.1).length).toBeGreaterThanOrEqual(1);
    expect(fonts.length).toBeGreaterThan(0);
    expect(fonts.filter(({ isEmbedded }) => !isEmbedded)).toEqual([]);
  }
});

test('a corrected print has a bar that is corrected as all else', async () => {
  const { pages } = await printAndRead(1.0142);
  for (const { strokes } of pages) expect(strokes.some((mm) => Math.abs(mm - 101.42) <= 0.1)).toBe(true);
});

test('pages put together leave no gap: what two of them share is the same on both, dot by dot', async () => {
  const { map, board, pages, greys } = await printAndRead(1);
  const { usableWidthMm, usableHeightMm, overlapMm, paperWidthMm, paperHeightMm } = board.printer;
  const [left, top] = [(paperWidthMm - usableWidthMm) / 2, (paperHeightMm - usableHeightMm) / 2];
  const isDark = (page: number, x: number, y: number) =>
    greys[page]![Math.round(y * DOTS) * pages[page]!.dotsWide + Math.round(x * DOTS)]! < 128;
  // a line falls between dots otherwise on either page: a dark one has one within a dot of it on the other
  const hasNear = (page: number, x: number, y: number) =>
    [-1, 0, 1].some((dx) => [-1, 0, 1].some((dy) => isDark(page, x + dx / DOTS, y + dy / DOTS)));
  let compared = 0;
  const lost: unknown[] = [];
  const compare = (one: number, other: number, box: { x: number; y: number; w: number; h: number }, dx: number, dy: number) => {
    for (let y = box.y; y < box.y + box.h; y += 1 / DOTS)
      for (let x = box.x; x < box.x + box.w; x += 1 / DOTS) {
        if (!isDark(one, x, y)) continue;
        compared += 1;
        if (!hasNear(other, x + dx, y + dy)) lost.push([one + 1, other + 1, x.toFixed(1), y.toFixed(1)]);
      }
  };
  // frame, crosses, bar and map are each page's own
  const EDGE = 1.2;
  const OWN = 34;
  for (const { column, row } of map.tiles) {
    const at = row * map.columns + column;
    const step = usableWidthMm - overlapMm;
    if (column + 1 < map.columns) {
      const strip = { x: left + step + EDGE, y: top + OWN, w: overlapMm - 2 * EDGE, h: usableHeightMm - 2 * OWN };
      compare(at, at + 1, strip, -step, 0);
      compare(at + 1, at, { ...strip, x: left + EDGE }, step, 0);
    }
    if (row + 1 < map.rows) {
      const down = usableHeightMm - overlapMm;
      // the foot of a page has its bar and words to the left, its map to the right
      const strip = { x: left + 260, y: top + down + EDGE, w: usableWidthMm - 260 - 60, h: overlapMm - 2 * EDGE };
      compare(at, at + map.columns, strip, 0, -down);
    }
  }
  expect(compared).toBeGreaterThan(200);
  expect(lost.slice(0, 5)).toEqual([]);
  // and a page that was put a millimetre out would be told
  const first = { x: left + usableWidthMm - overlapMm + EDGE, y: top + OWN, w: overlapMm - 2 * EDGE, h: usableHeightMm - 2 * OWN };
  for (const { column, row } of map.tiles)
    if (column + 1 < map.columns)
      compare(row * map.columns + column, row * map.columns + column + 1, first, -(usableWidthMm - overlapMm), 1);
  expect(lost.length).toBeGreaterThan(20);
});
