import type { BoardForm, BoardSize, BoardTree, Fold } from './boardTypes';
import { toFoldRadius } from './layBoard';

/** Turns and folds that the planner chose; null: free. */
export interface BoardPins {
  turns: (number | null)[];
  folds: (Fold | null)[];
}

export const NO_PINS: BoardPins = { turns: [], folds: [] };

/** Without a search: forks of a place fan out on their sides, the trunk is folded where it comes to the edge of the board. */
export function createQuickForm(tree: BoardTree, size: BoardSize, pins: BoardPins): BoardForm {
  const turns = tree.pieces.map(() => 0);
  const children = new Map<number, number[]>();
  tree.pieces.forEach(({ parent, isOnward }, index) => {
    if (!isOnward) children.set(parent, [...(children.get(parent) ?? []), index]);
  });
  let even = true;
  for (const [parent, list] of children) {
    // at the datum the first goes to the right, what else begins there fans out behind it
    const forks = parent < 0 ? list.slice(1) : list;
    const left: number[] = [];
    const right: number[] = [];
    for (const one of forks) {
      const { side } = tree.pieces[one]!;
      even = !even;
      const isLeft = side === null ? (left.length === right.length ? even : left.length < right.length) : side === 'left';
      (isLeft ? left : right).push(one);
    }
    fan(turns, left, 1);
    fan(turns, right, -1);
  }
  pins.turns.forEach((turn, index) => turn !== null && (turns[index] = turn));
  const folds: (Fold | null)[] = tree.pieces.map((_, index) => pins.folds[index] ?? null);
  foldTrunk(tree, folds, size);
  return { turns, folds };
}

/** So many on one side: evenly between 30° and 150°, one alone at 60°. */
function fan(turns: number[], forks: readonly number[], sign: number): void {
  const gap = forks.length < 2 ? 0 : Math.max(15, Math.min(45, Math.floor(120 / (forks.length - 1) / 15) * 15));
  const first = forks.length === 1 ? 60 : Math.round((90 - (gap * (forks.length - 1)) / 2) / 15) * 15;
  forks.forEach((one, nth) => (turns[one] = sign * Math.min(150, first + gap * nth)));
}

/** Fold what goes straight on from the datum wherever it would run over the board, there and back. */
function foldTrunk(tree: BoardTree, folds: (Fold | null)[], { widthMm }: BoardSize): void {
  const first = tree.pieces.findIndex(({ parent }) => parent < 0);
  const trunk = tree.pieces.flatMap((piece, index) => (index === first || (piece.isOnward && isOn(tree, index, first)) ? [index] : []));
  const whole = trunk.reduce((sum, index) => sum + tree.pieces[index]!.lengthMm, 0);
  if (whole <= widthMm) return;
  const armMm = whole / Math.ceil(whole / widthMm);
  let along = 0;
  let sign = 1;
  for (const index of trunk) {
    const { lengthMm } = tree.pieces[index]!;
    const fold: Fold = { atMm: Math.max(0, armMm - along), turnDeg: 180 * sign };
    const arcMm = Math.PI * toFoldRadius(tree.pieces[index]!, fold, tree.clearMm);
    if (folds[index] || along + lengthMm <= armMm || arcMm > lengthMm) along += lengthMm;
    else {
      folds[index] = { ...fold, atMm: Math.min(fold.atMm, lengthMm - arcMm) };
      along = lengthMm - folds[index].atMm - arcMm;
      sign = -sign;
    }
  }
}

/** Does this run go straight on from that one? */
function isOn({ pieces }: BoardTree, index: number, first: number): boolean {
  for (let at = index; at >= 0; at = pieces[at]!.parent) {
    if (at === first) return true;
    if (!pieces[at]!.isOnward) return false;
  }
  return false;
}
