import type { HungPrint, Printer } from '../../model';
import type { PlannedBoard } from './planBoard';

/** One page of a tiled print. */
export interface Tile {
  /** as it stands on it: while a print hangs its pages keep theirs */
  number: number;
  column: number;
  row: number;
  /** what of the board it shows, mm from its left and top */
  x: number;
  y: number;
  widthMm: number;
  heightMm: number;
  /** of what it shows: two prints with the same one are the same */
  fingerprint: string;
}

export type PlacedTile = Omit<Tile, 'fingerprint'>;
export type PlacedTiles = Omit<BoardTileMap, 'tiles'> & { tiles: PlacedTile[] };

export interface TileMap {
  columns: number;
  rows: number;
  tiles: Tile[];
}

/** Pages of the print of a board, and where the first one begins. */
export interface BoardTileMap extends TileMap {
  grid: NonNullable<HungPrint['grid']>;
}

/** So many pages across and down (craft C): ⌈(W − o) / (w − o)⌉ × ⌈(H − o) / (h − o)⌉. */
export function countTiles(
  { widthMm, heightMm }: { widthMm: number; heightMm: number },
  { usableWidthMm, usableHeightMm, overlapMm }: Pick<Printer, 'usableWidthMm' | 'usableHeightMm' | 'overlapMm'>,
): { columns: number; rows: number } {
  const count = (wholeMm: number, sheetMm: number) =>
    Math.max(1, Math.ceil((wholeMm - overlapMm - 1e-9) / Math.max(1, sheetMm - overlapMm)));
  return { columns: count(widthMm, usableWidthMm), rows: count(heightMm, usableHeightMm) };
}

/** What a print is multiplied by from now on, so that its bar of 100 mm measures 100 mm. */
export const correctScale = (scale: number, barMm: number): number => scale * (100 / barMm);

/** A print is refused whose bar is out by more than this, mm. */
export const BAR_MOST_MM = 0.5;
export const isBarTrue = (barMm: number): boolean => Math.abs(barMm - 100) <= BAR_MOST_MM + 1e-9;

/** Room round what is drawn, so that no run ends at the edge of the paper, mm. */
const MARGIN_MM = 15;
/** What stands at the foot of a page covers the loom so far up, mm on the paper. */
export const FOOT_MM = 9.8;
/**
 * A page that hangs is joined by the next, or taken down, when what is drawn comes so near to its edge, mm; at its lower edge as near as the foot,
 * which would cover it.
 */
const HUNG_MARGIN_MM = 5;

/** where prints begin, mm */
const GRID_MM = 20;

/** more pages than this are no print: paper of another size is meant */
export const MOST_TILES = 1000;

/** Pages across, or down: index of the first and of the last, counted from where the print begins. */
interface Span {
  first: number;
  last: number;
}

/**
 * Pages of the print of a board, along the rows; none where they were too many. box: all that is drawn. scale: what a print is multiplied by.
 * While a print of the same steps hangs, pages lie where its pages lie and keep their numbers, so that what grows at one end leaves the others
 * as they are; what lies beyond them has new numbers.
 */
export function placeTiles(
  { printer, printed, datum }: Pick<PlannedBoard, 'printer' | 'printed' | 'datum'>,
  box: PlannedBoard['box'],
  scale: number,
): PlacedTiles {
  const [stepX, stepY] = [(printer.usableWidthMm - printer.overlapMm) / scale, (printer.usableHeightMm - printer.overlapMm) / scale];
  const sheet = { widthMm: printer.usableWidthMm / scale, heightMm: printer.usableHeightMm / scale };
  const hung = findHung(printed, stepX, stepY);
  const begin = (mm: number) => Math.floor((mm - MARGIN_MM) / GRID_MM) * GRID_MM;
  const left = hung ? datum.x + hung.grid.xMm : begin(box.x);
  const top = hung ? datum.y + hung.grid.yMm : begin(box.y);
  const across = spanPages([stepX, sheet.widthMm], [box.x - left, box.x + box.widthMm - left], hung?.columns ?? null);
  const down = spanPages([stepY, sheet.heightMm], [box.y - top, box.y + box.heightMm - top], hung?.rows ?? null, FOOT_MM / scale);
  const [columns, rows] = [across.last - across.first + 1, down.last - down.first + 1];
  let next = hung?.next ?? 1;
  const tiles = Array.from({ length: columns * rows > MOST_TILES ? 0 : columns * rows }, (_, index): PlacedTile => {
    const [column, row] = [index % columns, Math.floor(index / columns)];
    const [atColumn, atRow] = [across.first + column, down.first + row];
    const number = hung?.numbers.get(`${atColumn} ${atRow}`) ?? next++;
    return { number, column, row, x: left + atColumn * stepX, y: top + atRow * stepY, ...sheet };
  });
  const grid = {
    xMm: left + across.first * stepX - datum.x,
    yMm: top + down.first * stepY - datum.y,
    ...{ stepXMm: stepX, stepYMm: stepY },
  };
  return { columns, rows, tiles, grid };
}

/** What hangs, where its pages lie as those that would be printed now; else null. */
function findHung(printed: PlannedBoard['printed'], stepX: number, stepY: number) {
  const grid = printed?.grid;
  if (!grid || Math.abs(grid.stepXMm - stepX) > 1e-6 || Math.abs(grid.stepYMm - stepY) > 1e-6) return null;
  const placed = printed.tiles.filter((tile) => tile.column !== null && tile.row !== null);
  if (placed.length === 0) return null;
  const most = (values: readonly number[]): Span => ({ first: 0, last: values.reduce((a, b) => Math.max(a, b), 0) });
  return {
    grid,
    columns: most(placed.map(({ column }) => column!)),
    rows: most(placed.map(({ row }) => row!)),
    numbers: new Map(placed.map(({ column, row, number }) => [`${column} ${row}`, number])),
    next: 1 + placed.reduce((highest, { number }) => Math.max(highest, number), 0),
  };
}

/** Which pages show what lies from one place to another, mm from where the print begins. */
function spanPages(
  [stepMm, sheetMm]: [number, number],
  [fromMm, toMm]: [number, number],
  hung: Span | null,
  lastMarginMm = HUNG_MARGIN_MM,
): Span {
  const reach = (firstMm: number, lastMm: number): Span => {
    const first = Math.floor((fromMm - firstMm) / stepMm + 1e-9);
    return { first, last: Math.max(first, Math.ceil((toMm + lastMm - sheetMm) / stepMm - 1e-9)) };
  };
  const wide = reach(MARGIN_MM, MARGIN_MM);
  if (!hung) return { first: 0, last: Math.max(0, wide.last) };
  const close = reach(HUNG_MARGIN_MM, lastMarginMm);
  return {
    first: Math.max(wide.first, Math.min(close.first, hung.first)),
    last: Math.min(wide.last, Math.max(close.last, hung.last)),
  };
}

/** What hangs beside what would be printed now, by number. */
export interface TileChanges {
  /** they show what is no longer so */
  again: number[];
  /** they lie beyond what hangs */
  added: number[];
  /** nothing of the loom lies on them any more */
  gone: number[];
}

/** Numbers of the pages of a print that are not what would be printed now. */
export function compareTiles({ tiles }: Pick<TileMap, 'tiles'>, hung: HungPrint['tiles']): TileChanges {
  const marks = new Map(hung.map(({ number, fingerprint }) => [number, fingerprint]));
  const now = new Set(tiles.map(({ number }) => number));
  const ordered = (numbers: number[]) => numbers.sort((a, b) => a - b);
  return {
    again: ordered(tiles.flatMap(({ number, fingerprint }) => (marks.has(number) && marks.get(number) !== fingerprint ? [number] : []))),
    added: ordered(tiles.flatMap(({ number }) => (marks.has(number) ? [] : [number]))),
    gone: ordered([...marks.keys()].filter((number) => !now.has(number))),
  };
}
