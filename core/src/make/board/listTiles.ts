import type { Printer } from '../../model';
import type { PlannedBoard } from './planBoard';

/** One page of a tiled print. */
export interface Tile {
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
export type PlacedTiles = Omit<TileMap, 'tiles'> & { tiles: PlacedTile[] };

export interface TileMap {
  columns: number;
  rows: number;
  tiles: Tile[];
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

/**
 * Pages of the print of a board, along the rows; none where they were too many. box: all that is drawn. It begins at whole steps of the board, so that what is added at one end leaves the other
 * pages as they are. scale: what a print is multiplied by.
 */
export function placeTiles({ printer }: Pick<PlannedBoard, 'printer'>, box: PlannedBoard['box'], scale: number): PlacedTiles {
  const stepX = (printer.usableWidthMm - printer.overlapMm) / scale;
  const stepY = (printer.usableHeightMm - printer.overlapMm) / scale;
  const left = Math.floor((box.x - MARGIN_MM) / GRID_MM) * GRID_MM;
  const top = Math.floor((box.y - MARGIN_MM) / GRID_MM) * GRID_MM;
  const size = { widthMm: (box.x + box.widthMm + MARGIN_MM - left) * scale, heightMm: (box.y + box.heightMm + MARGIN_MM - top) * scale };
  const { columns, rows } = countTiles(size, printer);
  const tiles = Array.from({ length: columns * rows > MOST_TILES ? 0 : columns * rows }, (_, index): PlacedTile => {
    const [column, row] = [index % columns, Math.floor(index / columns)];
    return {
      number: index + 1,
      column,
      row,
      x: left + column * stepX,
      y: top + row * stepY,
      widthMm: printer.usableWidthMm / scale,
      heightMm: printer.usableHeightMm / scale,
    };
  });
  return { columns, rows, tiles };
}

/** more pages than this are no print: paper of another size is meant */
export const MOST_TILES = 1000;

/** where prints begin, mm: a run that grows by less leaves the pages where they are */
const GRID_MM = 20;

/** Numbers of the pages of a print that are not what would be printed now. */
export function listStaleTiles({ tiles }: TileMap, printed: readonly string[]): number[] {
  const most = Math.max(tiles.length, printed.length);
  return Array.from({ length: most }, (_, index) => index + 1).filter((number) => tiles[number - 1]?.fingerprint !== printed[number - 1]);
}
