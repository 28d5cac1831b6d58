import type { BoardSpread, HungPrint } from '../../../model';
import { createLoomCommand, type Command } from '../command';
import type { RunPlace } from './runs';

/** Board of the shop that a loom is spread on; its place on it is computed anew. */
export const setBoard = (loomId: string, boardId: string, name: string): Command =>
  createLoomCommand(`spread on the ${name}`, loomId, ({ board }) => {
    board.boardId = boardId;
    board.at = null;
  });

export const setPrinter = (loomId: string, printerId: string, name: string): Command =>
  createLoomCommand(`printed by ${name}`, loomId, ({ board }) => {
    board.printerId = printerId;
  });

export const mirrorBoard = (loomId: string, isMirrored: boolean): Command =>
  createLoomCommand(isMirrored ? 'board for building face down' : 'board for building face up', loomId, ({ board }) => {
    board.isMirrored = isMirrored;
  });

/** Directions and folds by run, as a search found them or as they stand. */
export interface BoardMoves {
  turns: Readonly<Record<string, number>>;
  folds: Readonly<Record<string, { atMm: number; deg: number }>>;
}

/** What a search found; what was chosen by hand stays. at: where the datum lies then. */
export const takeBoard = (loomId: string, found: BoardMoves, at: NonNullable<BoardSpread['at']>, isWhole = true): Command =>
  createLoomCommand(isWhole ? 'board laid out by search' : 'best layout of a search that was ended early', loomId, ({ board }) => {
    const keep = <One extends { pinned: boolean }>(record: Record<string, One>) =>
      Object.fromEntries(Object.entries(record).filter(([, { pinned }]) => pinned));
    board.turns = { ...unpinned(found.turns), ...keep(board.turns) };
    board.folds = {
      ...Object.fromEntries(Object.entries(found.folds).map(([id, fold]) => [id, { ...fold, pinned: false }])),
      ...keep(board.folds),
    };
    board.at = at;
  });

const unpinned = (turns: BoardMoves['turns']) => Object.fromEntries(Object.entries(turns).map(([id, deg]) => [id, { deg, pinned: false }]));

/** A fork turned by hand. stands: how all forks lie now, so that none but this one moves. */
export const turnFork = (
  { loomId, segmentId, name }: RunPlace,
  deg: number,
  stands: Pick<BoardMoves, 'turns'> & Pick<BoardSpread, 'at'>,
): Command =>
  createLoomCommand(`${name} to the ${deg < 0 ? 'right' : 'left'} at ${Math.abs(deg)}° on the board`, loomId, ({ board }) => {
    board.turns = { ...unpinned(stands.turns), ...board.turns, [segmentId]: { deg, pinned: true } };
    board.at ??= stands.at;
  });

/** A fork that a search may turn again. */
export const freeFork = ({ loomId, segmentId, name }: RunPlace): Command =>
  createLoomCommand(`${name} free on the board`, loomId, ({ board: { turns } }) => {
    if (turns[segmentId]) turns[segmentId].pinned = false;
  });

/** A run folded by hand, or (null) straight. */
export const foldRun = ({ loomId, segmentId, name }: RunPlace, fold: { atMm: number; deg: number } | null): Command =>
  createLoomCommand(
    fold === null ? `${name} straight on the board` : `${name} folded at ${Math.round(fold.atMm)} mm on the board`,
    loomId,
    ({ board: { folds } }) => {
      if (fold === null) delete folds[segmentId];
      else folds[segmentId] = { ...fold, pinned: true };
    },
  );

/** The print that hangs on the board from now on: where it begins, and its pages with their fingerprints. */
export const hangPrint = (loomId: string, { grid, tiles }: Pick<HungPrint, 'grid' | 'tiles'>, on: string, by: string): Command =>
  createLoomCommand(`print of ${tiles.length === 1 ? 'one page' : `${tiles.length} pages`} on the board`, loomId, ({ board }) => {
    const kept = tiles.map(({ number, column, row, fingerprint }) => ({ number, column, row, fingerprint }));
    board.printed = { on, by, scale: board.scale, barMm: null, grid, tiles: kept };
  });

/** What the bar of the print measures; where it is out, the next one is corrected and this one is not laid by. scale: of the next print. */
export const readBar = (loomId: string, barMm: number, scale: number): Command =>
  createLoomCommand(`bar of the print measures ${barMm} mm`, loomId, ({ board }) => {
    if (board.printed) board.printed.barMm = barMm;
    board.scale = scale;
  });
