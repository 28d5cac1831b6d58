import {
  drawBoard,
  drawPlank,
  listPlankTiles,
  planPlank,
  drawTiles,
  ENGINE,
  listTiles,
  MOST_TILES,
  plan,
  planBoard,
  toBoardJson,
  toPegsCsv,
  toSvg,
  type Drawing,
} from 'wattograph-core';
import { toDxf } from 'wattograph-core/dxf';
import { toPdf } from 'wattograph-core/pdf';
import { today } from '../client/today';
import { findLoomPlan, readSource, toAddress, toFileName } from './buildPacks';
import { readJobVersion } from './documents';
import { Refusal } from './refusal';
import { readShopOf } from './shop';
import type { Answer } from './work/taskKinds';

const FORMATS = ['pdf', 'svg', 'dxf', 'csv', 'json'] as const;
type Format = (typeof FORMATS)[number];

const NAMES = { pages: 'board pages', whole: 'board', plank: 'plank' } as const;

const TYPES: Record<Format, string> = {
  pdf: 'application/pdf',
  svg: 'image/svg+xml',
  dxf: 'image/vnd.dxf',
  csv: 'text/csv; charset=utf-8',
  json: 'application/json; charset=utf-8',
};

/** A drawing of a board that is asked for. */
export interface WantedBoard {
  jobId: string;
  loom: string | null;
  what: 'pages' | 'whole' | 'plank';
  format: Format;
  /** numbers of the pages; null: all */
  pages: number[] | null;
  /** where the codes of its ends lead; null: it has none */
  address: string | null;
}

/** What the address asks for, and all that the answer depends on. */
export async function readWantedBoard(jobId: string, query: URLSearchParams): Promise<{ key: unknown; wanted: WantedBoard }> {
  const [what, format, pages] = [query.get('what'), query.get('format'), query.get('pages')];
  if (what !== 'pages' && what !== 'whole' && what !== 'plank')
    throw Refusal.at(400, 'what', `expected pages, whole or plank, got ${JSON.stringify(what?.slice(0, 40))}`);
  const known = FORMATS.find((one) => one === format);
  if (!known || (what !== 'whole' && known !== 'pdf'))
    throw Refusal.at(
      400,
      'format',
      `expected ${what === 'whole' ? FORMATS.join(', ') : 'pdf'}, got ${JSON.stringify(format?.slice(0, 40))}`,
    );
  if (pages !== null && !/^\d{1,4}(-\d{1,4}){0,400}$/.test(pages))
    throw Refusal.at(400, 'pages', `expected numbers of pages as in 7-8, got ${JSON.stringify(pages.slice(0, 40))}`);
  const wanted: WantedBoard = {
    ...{ jobId, loom: query.get('loom'), what, format: known, pages: pages?.split('-').map(Number) ?? null },
    address: toAddress(query.get('address')),
  };
  return { key: [ENGINE, 'board', wanted, await readJobVersion(jobId), today()], wanted };
}

/** Draw a board as it is asked for. */
export async function makeBoard(
  { jobId, loom: loomId, what, format, pages: asked, address }: WantedBoard,
  fontFolder: string,
): Promise<Answer> {
  const { job, revision, at } = await readSource(jobId, null);
  const { shop } = await readShopOf(job);
  const found = findLoomPlan(plan(job, shop), loomId);
  if (Object.keys(found.tree.segments).length === 0)
    throw Refusal.at(404, 'loom', `expected a loom with runs, got ${JSON.stringify(found.loomId)}`);
  const loom = job.looms[found.loomId]!;
  const board = planBoard(job, shop, found);
  const drawing = drawBoard(job, shop, found, board);
  // what hangs is a draft: a code opens its end in the revision that the floor works from then
  const coded =
    address === null
      ? drawing
      : drawBoard(
          job,
          shop,
          found,
          board,
          (card) => `${address}/jobs/${jobId}/floor?loom=${encodeURIComponent(found.loomId)}&card=${encodeURIComponent(card)}`,
        );
  const { scale } = loom.board;
  const toPages = (): Drawing[] => {
    const plank = planPlank(job, found);
    const line = drawPlank(plank);
    const map = what === 'plank' ? listPlankTiles(plank, line, board.printer, scale) : listTiles(drawing, board, scale);
    const meta = { job: job.name, loom: loom.name, revision, date: at.toISOString().slice(0, 10), scale };
    if (map.tiles.length === 0)
      throw Refusal.at(
        409,
        'pages',
        `expected at most ${MOST_TILES} pages, got ${map.columns} × ${map.rows}: choose a printer with larger paper`,
      );
    const all = drawTiles(what === 'plank' ? line : coded, board, map, meta);
    return asked === null ? all : all.filter((_, index) => asked.includes(map.tiles[index]!.number));
  };
  const pages = what === 'whole' ? [coded] : toPages();
  if (pages.length === 0) throw Refusal.at(400, 'pages', `expected pages of this print, got ${asked?.join(', ')}`);
  const body: Record<Format, () => Promise<Buffer> | Buffer> = {
    pdf: async () => Buffer.from(await toPdf(pages, `${job.name}, ${loom.name} on its board`, at, fontFolder)),
    svg: () => Buffer.from(toSvg(coded)),
    dxf: () => Buffer.from(toDxf([drawing])),
    csv: () => Buffer.from(toPegsCsv(board)),
    json: () => Buffer.from(`${JSON.stringify(toBoardJson(board, listTiles(drawing, board, scale)), null, 2)}\n`),
  };
  const name = `${toFileName(job.name, found.loomId, NAMES[what], revision)}.${format}`;
  return { status: 200, type: TYPES[format], name, body: await body[format]() };
}
