export type { BoardForm, BoardPiece, BoardSize, BoardTree } from './boardTypes';
export { findBoardPlace, toWholeRun, type BoardPlace } from './findBoardPlace';
export { createBoardTree } from './createBoardTree';
export {
  findBoard,
  findPrinter,
  planBoard,
  toBoardPins,
  toBoardMoves,
  toUsable,
  type BoardEnd,
  type BoardPoint,
  type BoardRun,
  type PlannedBoard,
} from './planBoard';
export { toDrawnOd, toPegWords, type BoardPeg, type BoardTie } from './placePegs';
export { LEAST_FORK_DEG } from './boundBoard';
export { BOARD_TRIES, searchBoard, type BoardSearch } from './searchBoard';
export type { BoardFound } from './boardBench';
export { listPlankTiles, planPlank, type PlankStation, type PlannedPlank } from './planPlank';
export {
  compareTiles,
  countTiles,
  FOOT_MM,
  correctScale,
  isBarTrue,
  MOST_TILES,
  placeTiles,
  type BoardTileMap,
  type PlacedTile,
  type Tile,
  type TileMap,
} from './listTiles';
