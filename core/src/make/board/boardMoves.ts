import type { BoardTree } from './boardTypes';
import type { BoardBench, BoardState } from './boardBench';
import type { BoardPins } from './createQuickForm';

/** What moves are made with. */
export interface BoardMover {
  tree: BoardTree;
  pins: BoardPins;
  bench: BoardBench;
  random: () => number;
}

/** Forks leave at multiples of this. */
const STEP_DEG = 15;
const LEAST_DEG = 30;
const MOST_DEG = 150;
const STEPS = (MOST_DEG - LEAST_DEG) / STEP_DEG + 1;
/** As many as have room on one side of a place. */
const SLOTS = [30, 60, 90, 120, 150];
const FOLDS = [90, -90, 180, -180];
const SIDES = ['left', 'right'] as const;

const isPinned = ({ turns }: BoardPins, index: number) => (turns[index] ?? null) !== null;

/** A fork turned to another direction; or, where no side was surveyed, sometimes its whole branch over to the other side. */
export function turnBranch({ tree, pins, bench, random }: BoardMover, state: BoardState, index: number): BoardState {
  const turns = [...state.form.turns];
  const { side } = tree.pieces[index]!;
  if (side !== null || random() >= 0.3) {
    const sign = side === null ? Math.sign(turns[index]!) || 1 : side === 'left' ? 1 : -1;
    turns[index] = sign * (LEAST_DEG + STEP_DEG * Math.floor(random() * STEPS));
    return bench.relay(state, index, { ...state.form, turns });
  }
  // but for what keeps the side that was surveyed or chosen
  const beyond = bench.beyond[index]!.filter((one) => !tree.pieces[one]!.isOnward);
  let isStiff = bench.beyond[index]!.every((one) => !state.form.folds[one]);
  for (const one of beyond) {
    if (tree.pieces[one]!.side === null && !isPinned(pins, one)) turns[one] = -turns[one]!;
    else isStiff = false;
  }
  return isStiff ? bench.relay(state, index, { ...state.form, turns }) : bench.weigh({ ...state.form, turns });
}

/** What leaves on one side of a place fanned out anew, in any order. */
export function fanOut({ tree, pins, bench, random }: BoardMover, state: BoardState, index: number): BoardState {
  const side = Math.sign(state.form.turns[index]!);
  const { parent } = tree.pieces[index]!;
  const forks = tree.pieces.flatMap((piece, one) =>
    piece.parent === parent && !piece.isOnward && !isPinned(pins, one) && Math.sign(state.form.turns[one]!) === side ? [one] : [],
  );
  const slots = SLOTS.map((deg) => ({ deg, at: random() })).sort((a, b) => a.at - b.at);
  return forks.slice(0, slots.length).reduce((now, one, nth) => {
    const turns = [...now.form.turns];
    turns[one] = side * slots[nth]!.deg;
    return bench.relay(now, one, { ...now.form, turns });
  }, state);
}

/** The same with a fork in each direction that it may have. */
export function listTurned({ tree, bench }: Pick<BoardMover, 'tree' | 'bench'>, state: BoardState, index: number): BoardState[] {
  const surveyed = tree.pieces[index]!.side;
  return SIDES.filter((side) => surveyed === null || surveyed === side).flatMap((side) =>
    Array.from({ length: STEPS }, (_, step) => {
      const turns = [...state.form.turns];
      turns[index] = (side === 'left' ? 1 : -1) * (LEAST_DEG + STEP_DEG * step);
      return bench.relay(state, index, { ...state.form, turns });
    }),
  );
}

/** A run folded somewhere, or straight again. */
export function foldSomewhere({ tree, bench, random }: BoardMover, state: BoardState, index: number): BoardState {
  const folds = [...state.form.folds];
  const turnDeg = FOLDS[Math.floor(random() * FOLDS.length)]!;
  folds[index] = folds[index] && random() < 0.6 ? null : { atMm: Math.round(random() * tree.pieces[index]!.lengthMm), turnDeg };
  return bench.weigh({ ...state.form, folds });
}
