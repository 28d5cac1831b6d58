import { createNesting, type Nesting } from './createNesting';
import type { DropBudget } from './dropBudget';
import type { CurrentPaths, ReturnPath, CurrentStep } from '../currents/currentPaths';

/** Wires whose sizes stand or fall together: one in series; or ways that share a current evenly, of which the worst counts. */
export interface BudgetElement {
  /** edges of the netlist in series on each way, with the drop of its contacts and splices, V */
  ways: readonly { edges: readonly number[]; fixedV: number }[];
}

/** Budgets that share wires, and so are kept together. */
export interface BudgetGroup {
  elements: readonly BudgetElement[];
  budgets: readonly DropBudget[];
  /** of each edge, A */
  currentsA: ReadonlyMap<number, number>;
  /** all that it has, in order */
  edges: readonly number[];
  /** the group without its wires' sizes and lengths, in a line: two groups alike in it choose alike */
  shape: string;
  nesting: Nesting;
}

interface OpenBudget {
  name: string;
  taken: DropBudget['taken'];
  budgetV: number;
  series: readonly CurrentStep[];
  /** where its current is shared; empty where it is not */
  parts: readonly (readonly CurrentStep[])[];
}

/** The drop budgets of the vehicle in groups that share wires; the starter's, which counts while cranking only, come first (calculations 3). */
export function listBudgets(ways: readonly CurrentPaths[]): BudgetGroup[] {
  const fed = ways.filter(({ isFed }) => isFed);
  const isStarter = ({ load }: CurrentPaths) => load.load === 'starter';
  return [fed.filter(isStarter), fed.filter((one) => !isStarter(one))].flatMap((part) => listGroups(part.map(toOpenBudget)));
}

function toOpenBudget({ load, out, back }: CurrentPaths): OpenBudget {
  const counting = (steps: readonly CurrentStep[]) => steps.filter(({ counts }) => counts);
  const all = back ? listAlternatives(back).map(counting) : [[]];
  const isTaken = ({ edge, isBody }: CurrentStep) => isBody && edge !== -1;
  const taken = new Map(all.flatMap((steps) => steps.filter(isTaken)).map(({ edge, currentA }) => [edge, { edge, currentA }]));
  const home = all.map((steps) => steps.filter((step) => !isTaken(step)));
  const [first, ...others] = home;
  const shared = first!.filter((step) => others.every((one) => one.some((other) => isSame(step, other))));
  return {
    name: load.name,
    taken: [...taken.values()],
    budgetV: load.budgetV,
    series: [...counting(out), ...shared],
    parts: others.length ? home.map((steps) => steps.filter((step) => !shared.some((one) => isSame(one, step)))) : [],
  };
}

/** Steps of wires are the same where the wire is; others only where they are one. */
const isSame = (a: CurrentStep, b: CurrentStep) => a === b || (a.edge !== -1 && a.edge === b.edge);

function listAlternatives({ steps, next }: ReturnPath): (readonly CurrentStep[])[] {
  if (next.length === 0) return [steps];
  return next.flatMap(listAlternatives).map((after) => [...steps, ...after]);
}

const listEdges = (steps: readonly CurrentStep[]) => steps.flatMap(({ edge }) => (edge === -1 ? [] : [edge]));
const sumFixed = (steps: readonly CurrentStep[]) =>
  steps.reduce((sum, { milliohm, currentA }) => sum + ((milliohm ?? 0) * currentA) / 1000, 0);
const toKey = (parts: OpenBudget['parts']) => parts.map((part) => listEdges(part).join('+')).join('|');

function listGroups(open: readonly OpenBudget[]): BudgetGroup[] {
  // wires of a shared stretch that are used otherwise too, or that two of its ways have in common, cannot be chosen as one: its ways
  // are then budgets of their own
  const uses = new Map<number, Set<string>>();
  const use = (edge: number, key: string) => uses.set(edge, (uses.get(edge) ?? new Set<string>()).add(key));
  for (const { series, parts } of open) {
    for (const edge of listEdges(series)) use(edge, '');
    for (const part of parts) for (const edge of listEdges(part)) use(edge, toKey(parts));
  }
  const isWhole = (parts: OpenBudget['parts']) => {
    const edges = parts.flatMap(listEdges);
    return new Set(edges).size === edges.length && edges.every((edge) => uses.get(edge)!.size === 1);
  };
  const plain = open.flatMap((one) =>
    one.parts.length === 0 || isWhole(one.parts)
      ? [one]
      : one.parts.map((part) => ({ ...one, series: [...one.series, ...part], parts: [] })),
  );
  const elements: BudgetElement[] = [];
  const known = new Map<string, number>();
  const currentsA = new Map<number, number>();
  const toElement = (key: string, ways: BudgetElement['ways']) => {
    const at = known.get(key) ?? elements.push({ ways }) - 1;
    known.set(key, at);
    return at;
  };
  const budgets = plain.map(({ name, taken, budgetV, series, parts }): DropBudget => {
    for (const { edge, currentA } of [...series, ...parts.flat()]) if (edge !== -1) currentsA.set(edge, currentA);
    const used = listEdges(series).map((edge) => toElement(String(edge), [{ edges: [edge], fixedV: 0 }]));
    if (parts.some((part) => part.length > 0))
      used.push(
        toElement(
          toKey(parts),
          parts.map((part) => ({ edges: listEdges(part), fixedV: sumFixed(part) })),
        ),
      );
    return { elements: [...new Set(used)], fixedV: sumFixed(series), taken, budgetV, name };
  });
  return splitGroups(elements, budgets, currentsA);
}

/** Budgets that hang together by their elements. */
function splitGroups(elements: readonly BudgetElement[], budgets: readonly DropBudget[], currentsA: Map<number, number>): BudgetGroup[] {
  const users = elements.map(() => [] as number[]);
  budgets.forEach((budget, index) => budget.elements.forEach((element) => users[element]!.push(index)));
  const groupOf = budgets.map(() => -1);
  const groups: BudgetGroup[] = [];
  budgets.forEach((_, start) => {
    if (groupOf[start] !== -1) return;
    const members = [start];
    groupOf[start] = groups.length;
    for (let at = 0; at < members.length; at += 1)
      for (const element of budgets[members[at]!]!.elements)
        for (const next of users[element]!)
          if (groupOf[next] === -1) {
            groupOf[next] = groups.length;
            members.push(next);
          }
    const used = [...new Set(members.flatMap((index) => budgets[index]!.elements))].sort((a, b) => a - b);
    const place = new Map(used.map((element, index) => [element, index]));
    const ofGroup = used.map((element) => elements[element]!);
    const edges = ofGroup.flatMap(({ ways }) => ways.flatMap((way) => way.edges));
    const kept = members
      .sort((a, b) => a - b)
      .map((index) => ({ ...budgets[index]!, elements: budgets[index]!.elements.map((element) => place.get(element)!) }));
    const shape = [
      ...ofGroup.map(({ ways }) => ways.map((way) => `${way.edges.length} ${way.fixedV}`).join()),
      ...kept.map(({ elements: own, fixedV, budgetV }) => `${own.join()} ${fixedV} ${budgetV}`),
      edges.map((edge) => currentsA.get(edge)).join(),
    ].join(';');
    groups.push({ elements: ofGroup, budgets: kept, currentsA, edges, shape, nesting: createNesting(ofGroup.length, kept) });
  });
  return groups;
}
