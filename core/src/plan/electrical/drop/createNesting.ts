import type { DropBudget } from './dropBudget';

/** How budgets share their elements, as far as that is a tree: sets of budgets that are nested or apart. */
export interface Nesting {
  /** elements from those that most budgets share down to those of one */
  order: number[];
  /** of each in the order, the place in the order of what shares more; -1: none */
  parents: number[];
  /** of each budget, the place in the order of its innermost element; -1: it has none */
  leaves: number[];
  /** elements that fit no nesting */
  cut: number[];
  /** budgets of each element */
  users: number[][];
}

/** Nest the elements of budgets. count: of elements. */
export function createNesting(count: number, budgets: readonly DropBudget[]): Nesting {
  const users = Array.from({ length: count }, () => [] as number[]);
  budgets.forEach(({ elements }, budget) => elements.forEach((element) => users[element]!.push(budget)));
  const widest = users.map((_, element) => element).sort((a, b) => users[b]!.length - users[a]!.length || a - b);
  // innermost element of each budget so far, as a place in the order
  const leaves = budgets.map(() => -1);
  const order: number[] = [];
  const parents: number[] = [];
  const cut: number[] = [];
  for (const element of widest) {
    const mine = users[element]!;
    const parent = mine.length ? leaves[mine[0]!]! : -1;
    if (mine.some((budget) => leaves[budget] !== parent)) {
      cut.push(element);
      continue;
    }
    parents.push(parent);
    const place = order.push(element) - 1;
    for (const budget of mine) leaves[budget] = place;
  }
  return { order, parents, leaves, cut, users };
}
