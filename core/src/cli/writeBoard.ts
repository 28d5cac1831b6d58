import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Catalogue } from '../catalogue';
import { drawBoard, drawTiles, listTiles, toSvg } from '../draw';
import { toDxf } from '../draw/toDxf';
import { toPdf } from '../draw/toPdf';
import { takeBoard } from '../edit';
import { toBoardJson } from '../exchange';
import { BOARD_TRIES, createBoardTree, planBoard, searchBoard, toBoardMoves, toBoardPins, toUsable } from '../make';
import { changeDocument, type Board, type Job } from '../model';
import { findStandard, plan } from '../plan';
import { toCount } from '../units';
import { BadInput, findLoom, type Output } from './cliTypes';

/** What may be asked for with the command. */
export interface BoardWords {
  loom?: string;
  size?: string;
  seed?: string;
  svg?: string;
  dxf?: string;
  pdf?: string;
  json?: boolean;
}

/** Lay one loom out by search on a board of the size asked for, else the shop's first, and write the drawing. */
export async function writeBoard(job: Job, shop: Catalogue, words: BoardWords, output: Output): Promise<void> {
  const { svg, dxf, pdf, seed = '1' } = words;
  const file = svg ?? dxf ?? pdf;
  if (file === undefined && !words.json)
    throw new BadInput([{ path: '--svg', message: 'expected the name of the file to write, or --dxf, --pdf with one, or --json' }]);
  if (!/^\d{1,9}$/.test(seed)) throw new BadInput([{ path: '--seed', message: `expected a whole number up to 999999999, got "${seed}"` }]);
  const board = words.size === undefined ? shop.boards[0]! : readSize(words.size);
  const boarded: Catalogue = { ...shop, boards: [board] };
  const found = findLoom(plan(job, boarded), words.loom);
  if (Object.keys(found.tree.segments).length === 0)
    throw new BadInput([{ path: '--loom', message: `expected a loom with runs, got "${found.loomId}"` }]);
  const tree = createBoardTree(job, boarded, found, findStandard(job, boarded).boardClearMm);
  const spread = job.looms[found.loomId]!.board;
  const { form } = searchBoard(tree, {
    seed: Number(seed),
    tries: BOARD_TRIES,
    size: toUsable(board),
    pins: toBoardPins(tree, spread, false),
  });
  const { at, ...moves } = toBoardMoves(tree, form, board);
  const laidOut = changeDocument(job, takeBoard(found.loomId, moves, at).apply);
  const planned = planBoard(laidOut, boarded, found);
  const { scale } = spread;
  const drawing = drawBoard(laidOut, boarded, found, planned);
  const map = listTiles(drawing, planned, scale);
  if (file === undefined) return output.out(`${JSON.stringify(toBoardJson(planned, map), null, 2)}\n`);
  const now = new Date();
  if (svg !== undefined) writeFileSync(svg, toSvg(drawing));
  else if (dxf !== undefined) writeFileSync(dxf, toDxf([drawing]));
  else {
    const meta = { job: job.name, loom: job.looms[found.loomId]!.name, revision: 'from file', date: now.toISOString().slice(0, 10), scale };
    const pages = drawTiles(drawing, planned, map, meta);
    writeFileSync(pdf!, await toPdf(pages, job.name, now, fileURLToPath(new URL('../../assets/fonts/', import.meta.url))));
  }
  const { widthMm, heightMm } = planned.takes;
  const near = planned.tooNear.length > 0 ? `, ${toCount(planned.tooNear.length, 'pair')} too near` : '';
  output.out(`${file}: takes ${Math.round(widthMm)} × ${Math.round(heightMm)} mm${near}\n`);
}

function readSize(words: string): Board {
  const [, width, height] = /^(\d{2,5})x(\d{2,5})$/.exec(words) ?? [];
  const [widthMm, heightMm] = [Number(width), Number(height)];
  if (!width || !height || widthMm > 20_000 || heightMm > 20_000)
    throw new BadInput([{ path: '--size', message: `expected width and height in mm as in 2400x1200, got "${words}"` }]);
  return { id: 'asked', name: words, widthMm, heightMm, edgeMm: 0 };
}
