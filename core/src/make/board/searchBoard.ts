import { createRandom } from '../../units/createRandom';
import { createBoardBench, type BoardFound, type BoardState } from './boardBench';
import { fanOut, findOutmost, foldSomewhere, listTurned, swapForks, turnBranch, type BoardMover } from './boardMoves';
import type { BoardForm, BoardSize, BoardTree } from './boardTypes';
import { createQuickForm, type BoardPins } from './createQuickForm';

export interface BoardSearch {
  seed: number;
  /** moves tried */
  tries: number;
  /** what may be used of the board */
  size: BoardSize;
  pins: BoardPins;
  /** called with the share that is done and the best so far; true: stop, the best so far stands */
  progress?(done: number, best: BoardForm): boolean;
}

/** What a millimetre costs in shares of the bound of the area: too near, at first and in the end, and over the board; and what a fold costs. */
const TOO_NEAR_FIRST = 0.05;
const TOO_NEAR_LAST = 0.5;
const OVER = 0.02;
const FOLD = 0.5;
/** It begins anew so often, the best of all stands: shares of the bound by which a move may be worse at first, each time. */
const HEATS = [0.12, 0.05, 0.03, 0.03];
const STARTS = HEATS.length;
/** Share of the moves that fan out one side of a place, and of those that let two forks change places. */
const FANS = 0.04;
const SWAPS = 0.15;
/** Share of the moves that turn what makes the board as large as it is. */
const OUTMOST = 0.2;
/** Share of each start after which forks are turned by single degrees. */
const FINE_FROM = 0.7;
/** Room that a search keeps beside what is asked for, mm. */
const SPARE_MM = 1;
/** Times that all forks are looked at one after the other in the end. */
const MOST_SWEEPS = 6;
/** How often progress is told. */
const EACH = 256;
/** Moves of a usual search: some 4 s for a chassis loom. */
export const BOARD_TRIES = 140_000;
/** A run that is shorter is not folded, mm. */
const FOLDABLE_MM = 120;

const toCost = ({ area, tooNear, over, folds }: BoardState, tooNearCost: number) =>
  area + tooNearCost * tooNear + OVER * over + FOLD * folds;

/**
 * Spread a loom on a board: the direction of each fork, and folds where it is longer than the board, so that nothing is too near and the
 * least of the board is taken. By annealing from a quick answer; the same seed finds the same, stopped early the best so far stands.
 */
export function searchBoard(tree: BoardTree, search: BoardSearch): BoardFound {
  const random = createRandom(search.seed);
  // a little more room than is asked for: what is left over is within it
  const bench = createBoardBench({ ...tree, clearMm: tree.clearMm + SPARE_MM }, search.size);
  const mover: BoardMover = { tree, pins: search.pins, bench, random, isFine: false };
  const begun = bench.weigh(createQuickForm(tree, search.size, search.pins));
  const first = tree.pieces.findIndex(({ parent }) => parent < 0);
  const forks = tree.pieces.flatMap(({ isOnward }, index) =>
    isOnward || index === first || (search.pins.turns[index] ?? null) !== null ? [] : [index],
  );
  const long = tree.pieces.flatMap(({ lengthMm }, index) => (lengthMm > FOLDABLE_MM && !search.pins.folds[index] ? [index] : []));
  const isLong = isTooLong(tree, search.size);
  const isFree = new Set(forks);
  const chooseFork = (now: BoardState): number =>
    (random() < OUTMOST ? findOutmost(mover, now, isFree) : null) ?? forks[Math.floor(random() * forks.length)]!;
  const turnSome = (now: BoardState): BoardState => {
    const fork = chooseFork(now);
    if (random() < FANS) return fanOut(mover, now, fork);
    return random() < SWAPS ? swapForks(mover, now, fork, forks) : turnBranch(mover, now, fork);
  };
  let best = begun;
  const keepBest = (state: BoardState) => {
    if (toCost(state, TOO_NEAR_LAST) < toCost(best, TOO_NEAR_LAST) - 1e-9) best = state;
  };
  const each = Math.ceil(search.tries / STARTS);
  let isOver = forks.length + (isLong ? long.length : 0) === 0;
  for (let start = 0; start < STARTS && !isOver; start += 1) {
    let now = begun;
    // folded where it is longer than the board, or did not fit without
    const foldable = isLong || (start > 0 && best.over > 0) ? long : [];
    for (let round = 0; round < each && !isOver; round += 1) {
      const done = round / each;
      mover.isFine = done > FINE_FROM;
      isOver = round % EACH === 0 && (search.progress?.((start + done) / STARTS, best.form) ?? false);
      const tooNearCost = TOO_NEAR_FIRST * (TOO_NEAR_LAST / TOO_NEAR_FIRST) ** done;
      const heat = HEATS[start]! * (1 - done) ** 2 + 1e-6;
      const isFold = foldable.length > 0 && (forks.length === 0 || random() < (now.over > 0 ? 0.15 : 0.02));
      const next = isFold ? foldSomewhere(mover, now, foldable[Math.floor(random() * foldable.length)]!) : turnSome(now);
      const worse = toCost(next, tooNearCost) - toCost(now, tooNearCost);
      if (worse <= 0 || random() < Math.exp(-worse / heat)) now = next;
      keepBest(now);
    }
    if (!isOver) keepBest(polish(mover, now, forks));
  }
  if (!isOver) best = polish(mover, best, forks);
  const plain = createBoardBench(tree, search.size);
  return plain.toFound(plain.weigh(best.form));
}

/** Each fork in turn in the direction that is best for it, until none is better otherwise. */
function polish(mover: BoardMover, from: BoardState, forks: readonly number[]): BoardState {
  let best = from;
  for (let sweep = 0; sweep < MOST_SWEEPS; sweep += 1) {
    const before = best;
    for (const fork of forks)
      for (const next of listTurned(mover, best, fork)) if (toCost(next, TOO_NEAR_LAST) < toCost(best, TOO_NEAR_LAST) - 1e-9) best = next;
    if (best === before) break;
  }
  return best;
}

/** Is some straight line of runs longer than the board? Only then is anything folded. */
function isTooLong({ pieces }: BoardTree, { widthMm, heightMm }: BoardSize): boolean {
  const lines: number[] = [];
  pieces.forEach(({ isOnward, parent, lengthMm, fixture }, index) => {
    lines[index] = (isOnward && parent >= 0 ? lines[parent]! : 0) + lengthMm + (fixture?.depthMm ?? 0);
  });
  return Math.max(0, ...lines) > Math.max(widthMm, heightMm);
}
