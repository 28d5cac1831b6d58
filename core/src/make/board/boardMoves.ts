import type { BoardTree, Box } from './boardTypes';
import { LEAST_FORK_DEG } from './boundBoard';
import type { BoardBench, BoardState } from './boardBench';
import type { BoardPins } from './createQuickForm';

/** What moves are made with. */
export interface BoardMover {
  tree: BoardTree;
  pins: BoardPins;
  bench: BoardBench;
  random: () => number;
  /** are forks turned by single degrees, as they are near the end */
  isFine: boolean;
}

/** Forks leave at steps of this from the least angle that keeps their distances. */
const STEP_DEG = 5;
const LEAST_DEG = Math.ceil(LEAST_FORK_DEG);
const MOST_DEG = 180 - LEAST_DEG;
const STEPS = Math.floor((MOST_DEG - LEAST_DEG) / STEP_DEG) + 1;
/** Share of the turns that only go on a few steps from where a fork is, and how many at most. */
const NUDGES = 0.6;
const MOST_NUDGED = 3;
/** The same where forks are turned by single degrees. */
const FINE_NUDGES = 0.85;
const MOST_FINE_DEG = 4;
/** Every so many steps a fork is tried all round, and every one beside where it is. */
const COARSE_STEPS = 3;
/** Share of the forks elsewhere that one may change places with. */
const FAR_SWAPS = 0.15;
/** As many as have room on one side of a place. */
const SLOTS = [30, 60, 90, 120, 150];
const FOLDS = [90, -90, 180, -180];
const SIDES = ['left', 'right'] as const;

const isPinned = ({ turns }: BoardPins, index: number) => (turns[index] ?? null) !== null;

/** A fork turned to another direction; or, where no side was surveyed, sometimes its whole branch over to the other side. */
export function turnBranch(mover: BoardMover, state: BoardState, index: number): BoardState {
  const { tree, pins, bench, random } = mover;
  const turns = [...state.form.turns];
  const { side } = tree.pieces[index]!;
  if (side !== null || random() >= 0.3) {
    const sign = side === null ? Math.sign(turns[index]!) || 1 : side === 'left' ? 1 : -1;
    turns[index] = sign * chooseTurn(Math.abs(turns[index]!), mover);
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

/** Anywhere, or a little on from where it is, degrees. */
function chooseTurn(nowDeg: number, { random, isFine }: Pick<BoardMover, 'random' | 'isFine'>): number {
  if (random() >= (isFine ? FINE_NUDGES : NUDGES)) return LEAST_DEG + STEP_DEG * Math.floor(random() * STEPS);
  const most = isFine ? MOST_FINE_DEG : MOST_NUDGED;
  const byDeg = (isFine ? 1 : STEP_DEG) * (1 + Math.floor(random() * most)) * (random() < 0.5 ? 1 : -1);
  return Math.min(MOST_DEG, Math.max(LEAST_DEG, nowDeg + byDeg));
}

/** Two forks, mostly of one place, each in the direction of the other, but for the side that was surveyed. forks: that are free. */
export function swapForks(mover: BoardMover, state: BoardState, index: number, forks: readonly number[]): BoardState {
  const { tree, bench, random } = mover;
  const { parent } = tree.pieces[index]!;
  const others = forks.filter((one) => one !== index && (tree.pieces[one]!.parent === parent || random() < FAR_SWAPS));
  const other = others[Math.floor(random() * others.length)];
  if (other === undefined) return turnBranch(mover, state, index);
  const turn = (now: BoardState, one: number, turnDeg: number): BoardState => {
    const { side } = tree.pieces[one]!;
    const turns = [...now.form.turns];
    turns[one] = side === null ? turnDeg : side === 'left' ? Math.abs(turnDeg) : -Math.abs(turnDeg);
    return bench.relay(now, one, { ...now.form, turns });
  };
  const { turns } = state.form;
  return turn(turn(state, index, turns[other]!), other, turns[index]!);
}

/** A fork on the way to what stands out furthest to one edge, whichever comes up: it is what makes the board as large as it is. null: there is none. */
export function findOutmost(
  { tree, random }: Pick<BoardMover, 'tree' | 'random'>,
  { boxes }: BoardState,
  isFree: ReadonlySet<number>,
): number | null {
  const edge = EDGES[Math.floor(random() * EDGES.length)]!;
  let outmost = -1;
  for (let index = 0; index < tree.pieces.length; index += 1)
    if (outmost < 0 || edge(boxes[index]!) > edge(boxes[outmost]!)) outmost = index;
  const forks: number[] = [];
  for (let at = outmost; at >= 0; at = tree.pieces[at]!.parent) if (isFree.has(at)) forks.push(at);
  return forks[Math.floor(random() * forks.length)] ?? null;
}

const EDGES: readonly ((box: Box) => number)[] = [({ maxY }) => maxY, ({ minY }) => -minY, ({ maxX }) => maxX, ({ minX }) => -minX];

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

/** The same with a fork in directions all round, and in each beside the one that it has. */
export function listTurned({ tree, bench }: Pick<BoardMover, 'tree' | 'bench'>, state: BoardState, index: number): BoardState[] {
  const surveyed = tree.pieces[index]!.side;
  return SIDES.filter((side) => surveyed === null || surveyed === side).flatMap((side) =>
    listDirections(Math.abs(state.form.turns[index]!)).map((turnDeg) => {
      const turns = [...state.form.turns];
      turns[index] = (side === 'left' ? 1 : -1) * turnDeg;
      return bench.relay(state, index, { ...state.form, turns });
    }),
  );
}

const listDirections = (nowDeg: number): number[] =>
  Array.from({ length: STEPS }, (_, step) => LEAST_DEG + STEP_DEG * step).filter(
    (deg, step) => step % COARSE_STEPS === 0 || Math.abs(deg - nowDeg) <= COARSE_STEPS * STEP_DEG,
  );

/** A run folded somewhere, or straight again. */
export function foldSomewhere({ tree, bench, random }: BoardMover, state: BoardState, index: number): BoardState {
  const folds = [...state.form.folds];
  const turnDeg = FOLDS[Math.floor(random() * FOLDS.length)]!;
  folds[index] = folds[index] && random() < 0.6 ? null : { atMm: Math.round(random() * tree.pieces[index]!.lengthMm), turnDeg };
  return bench.weigh({ ...state.form, folds });
}
