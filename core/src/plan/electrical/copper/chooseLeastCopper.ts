import { chooseCopper, type CopperEdge, type CopperOption } from './chooseCopper';
import { createNesting, type Nesting } from '../drop/createNesting';
import type { DropBudget } from '../drop/dropBudget';

export interface LeastCopper {
  /** option of each element */
  choices: number[];
  massG: number;
  /** proven least: the budgets could be put into a tree */
  isLeast: boolean;
}

const SAME_V = 1e-9;

/**
 * Options of least copper with which every budget is kept. Drops add up in any order, so what budgets share can be put into a tree
 * wherever their sets of elements are nested or apart, supply and return alike: there it is exact. What overlaps otherwise is bought by
 * most drop saved for a gram, then the rest is chosen exactly around it. options: of each element, lightest first.
 * Null where even the least drop of each does not do. stepV: see chooseCopper.
 */
export function chooseLeastCopper(
  options: readonly (readonly CopperOption[])[],
  budgets: readonly DropBudget[],
  nesting: Nesting = createNesting(options.length, budgets),
  stepV = 0,
): LeastCopper | null {
  const { order, parents, leaves, cut, users } = nesting;
  const solve = (fixed: ReadonlyMap<number, number>): number[] | null => {
    const edges: CopperEdge[] = order.map((element, index) => ({
      parent: parents[index]!,
      options: options[element]!,
      fixedV: 0,
      budgetV: null,
    }));
    budgets.forEach(({ elements, fixedV, budgetV }, index) => {
      const bought = elements.reduce((sum, element) => sum + (fixed.has(element) ? options[element]![fixed.get(element)!]!.dropV : 0), 0);
      edges.push({ parent: leaves[index]!, options: NOTHING, fixedV: fixedV + bought, budgetV });
    });
    const chosen = chooseCopper(edges, stepV);
    if (!chosen) return null;
    const choices = options.map((_, element) => fixed.get(element) ?? 0);
    order.forEach((element, index) => (choices[element] = chosen.choices[index]!));
    return choices;
  };
  if (cut.length === 0) {
    const choices = solve(new Map());
    return choices && { choices, massG: sumMass(options, choices), isLeast: stepV === 0 };
  }
  let best = buyByGram(options, budgets, users);
  if (!best) return null;
  // told apart coarsely, one round is as good as the next
  for (let round = 0; stepV === 0 || round < 1; round += 1) {
    const choices = solve(new Map(cut.map((element) => [element, best![element]!])));
    const lighter = choices && slimDown(options, budgets, users, choices);
    if (!lighter || sumMass(options, lighter) >= sumMass(options, best) - 1e-9) break;
    best = lighter;
  }
  return { choices: best, massG: sumMass(options, best), isLeast: false };
}

const NOTHING = [{ massG: 0, dropV: 0 }] as const;

const sumMass = (options: readonly (readonly CopperOption[])[], choices: readonly number[]) =>
  choices.reduce((sum, option, element) => sum + options[element]![option]!.massG, 0);

/** A step from the option that an element has to another of its own, and what it is worth. */
interface Step {
  option: number;
  worth: number;
}

/**
 * Take the step worth most, of all elements, as long as any has one. findStep: the best of an element, by itself; a step changes that of the
 * elements that share a budget with it, and of no other.
 */
function takeSteps(
  choices: number[],
  budgets: readonly DropBudget[],
  users: Nesting['users'],
  { findStep, take }: { findStep: (element: number) => Step | null; take: (element: number, option: number) => void },
): void {
  const steps = choices.map((_, element) => findStep(element));
  for (;;) {
    let best = -1;
    for (let element = 0; element < steps.length; element += 1) {
      const step = steps[element];
      if (step && (best === -1 || step.worth > steps[best]!.worth)) best = element;
    }
    if (best === -1) return;
    take(best, steps[best]!.option);
    const touched = new Set([best]);
    for (const budget of users[best]!) for (const element of budgets[budget]!.elements) touched.add(element);
    for (const element of touched) steps[element] = findStep(element);
  }
}

/** What each budget has left with these choices, V; below 0: it is passed. */
const measureRoom = (options: readonly (readonly CopperOption[])[], budgets: readonly DropBudget[], choices: readonly number[]) =>
  budgets.map(
    ({ elements, fixedV, budgetV }) =>
      budgetV - elements.reduce((sum, element) => sum + options[element]![choices[element]!]!.dropV, fixedV),
  );

/** Start light; where a budget is passed, take the step that saves most of what is too much for a gram of copper. */
function buyByGram(
  options: readonly (readonly CopperOption[])[],
  budgets: readonly DropBudget[],
  users: Nesting['users'],
): number[] | null {
  const choices = options.map(() => 0);
  const room = measureRoom(options, budgets, choices);
  const findStep = (element: number): Step | null => {
    const list = options[element]!;
    const now = list[choices[element]!]!;
    let best: Step | null = null;
    for (let option = choices[element]! + 1; option < list.length; option += 1) {
      const saved = now.dropV - list[option]!.dropV;
      let gain = 0;
      for (const budget of users[element]!) if (room[budget]! < -SAME_V) gain += Math.min(-room[budget]!, saved);
      const worth = gain / (list[option]!.massG - now.massG);
      if (gain > 0 && (best === null || worth > best.worth)) best = { option, worth };
    }
    return best;
  };
  const take = (element: number, option: number) => {
    const saved = options[element]![choices[element]!]!.dropV - options[element]![option]!.dropV;
    choices[element] = option;
    for (const budget of users[element]!) room[budget]! += saved;
  };
  takeSteps(choices, budgets, users, { findStep, take });
  return room.some((value) => value < -SAME_V) ? null : slimDown(options, budgets, users, choices);
}

/** Lighter options wherever every budget is still kept, the largest saving first. */
function slimDown(
  options: readonly (readonly CopperOption[])[],
  budgets: readonly DropBudget[],
  users: Nesting['users'],
  start: readonly number[],
): number[] {
  const choices = [...start];
  const room = measureRoom(options, budgets, choices);
  const findStep = (element: number): Step | null => {
    const list = options[element]!;
    const now = list[choices[element]!]!;
    let best: Step | null = null;
    for (let option = 0; option < choices[element]!; option += 1) {
      const worth = now.massG - list[option]!.massG;
      if (worth <= (best?.worth ?? 1e-9)) continue;
      const more = list[option]!.dropV - now.dropV;
      if (users[element]!.every((budget) => room[budget]! >= more - SAME_V)) best = { option, worth };
    }
    return best;
  };
  const take = (element: number, option: number) => {
    const more = options[element]![option]!.dropV - options[element]![choices[element]!]!.dropV;
    choices[element] = option;
    for (const budget of users[element]!) room[budget]! -= more;
  };
  takeSteps(choices, budgets, users, { findStep, take });
  return choices;
}
