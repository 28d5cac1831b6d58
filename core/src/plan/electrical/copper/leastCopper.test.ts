import fc from 'fast-check';
import { createRandom } from '../../../units/createRandom';
import { solveMilp } from '../../../testing/solveMilp';
import type { CopperOption } from './chooseCopper';
import { chooseLeastCopper } from './chooseLeastCopper';
import { createNesting } from '../drop/createNesting';
import type { DropBudget } from '../drop/dropBudget';
import { combineParallelSizes } from './combineParallelSizes';
import { listBudgets } from '../drop/listBudgets';
import type { CurrentPaths, ReturnPath, CurrentStep } from '../currents/currentPaths';

const SIZES = [0.38, 0.61, 0.96, 1.23, 1.94, 2.97];

const createOptions = (random: () => number): CopperOption[] => {
  const lengthM = 0.2 + random() * 1.8;
  const currentA = 0.5 + random() * 6;
  return SIZES.map((area) => ({ massG: area * lengthM * 8.96, dropV: (currentA * lengthM * 0.0206) / area }));
};

/** Loads on a supply tree and a ground tree that are each as they come: shared grounds and shared feeds of different loads. */
function createProblem(seed: number, loads: number): { options: CopperOption[][]; budgets: DropBudget[] } {
  const random = createRandom(seed);
  const feeds = 1 + Math.floor(random() * 3);
  const grounds = 1 + Math.floor(random() * 3);
  const options = Array.from({ length: feeds + grounds + 2 * loads }, () => createOptions(random));
  const budgets = Array.from({ length: loads }, (_, load): DropBudget => {
    const feed = Math.floor(random() * feeds);
    const ground = feeds + Math.floor(random() * grounds);
    return {
      elements: [feed, feeds + grounds + 2 * load, feeds + grounds + 2 * load + 1, ground],
      fixedV: random() * 0.02,
      taken: [],
      budgetV: 0.35 + random() * 0.6,
      name: '',
    };
  });
  return { options, budgets };
}

const massOf = (options: readonly (readonly CopperOption[])[], choices: readonly number[]) =>
  choices.reduce((sum, choice, element) => sum + options[element]![choice]!.massG, 0);

function expectKept(options: readonly (readonly CopperOption[])[], budgets: readonly DropBudget[], choices: readonly number[]): void {
  for (const { elements, fixedV, budgetV } of budgets)
    expect(elements.reduce((sum, element) => sum + options[element]![choices[element]!]!.dropV, fixedV)).toBeLessThanOrEqual(
      budgetV + 1e-6,
    );
}

function toModel(options: readonly (readonly CopperOption[])[], budgets: readonly DropBudget[]): string {
  const terms = (element: number, of: 'massG' | 'dropV') =>
    options[element]!.map((one, at) => `+ ${one[of].toFixed(9)} x${element}_${at}`).join(' ');
  const ones = options.map((list, element) => ` o${element}: ${list.map((_, at) => `+ x${element}_${at}`).join(' ')} = 1`);
  const rows = budgets.map(
    ({ elements, fixedV, budgetV }, index) =>
      ` b${index}: ${elements.map((element) => terms(element, 'dropV')).join(' ')} <= ${(budgetV - fixedV).toFixed(9)}`,
  );
  const all = options.flatMap((list, element) => list.map((_, at) => `x${element}_${at}`));
  return `Minimize\n obj: ${options.map((_, element) => terms(element, 'massG')).join('\n ')}\nSubject To\n${[...ones, ...rows].join('\n')}\nBinary\n ${all.join('\n ')}\nEnd\n`;
}

describe('budgets that share wires out and back', () => {
  test('nested and apart, they are a tree; what overlaps otherwise is cut', () => {
    const budget = (elements: number[]): DropBudget => ({ elements, fixedV: 0, taken: [], budgetV: 1, name: '' });
    // 0 is everybody's, 1 and 2 part them, 3 belongs to one of each
    const budgets = [budget([0, 1, 3]), budget([0, 1]), budget([0, 2, 3]), budget([0, 2])];
    expect(
      createNesting(
        3,
        budgets.map((one) => ({ ...one, elements: one.elements.filter((element) => element < 3) })),
      ),
    ).toMatchObject({
      order: [0, 1, 2],
      parents: [-1, 0, 0],
      leaves: [1, 1, 2, 2],
      cut: [],
    });
    expect(createNesting(4, budgets).cut).toEqual([3]);
  });
  test('a feed and a ground of the same two loads are chosen as one', () => {
    // by hand: feed and ground alike 0.3 V for 1 g or 0.1 V for 2 g, budgets 0.45 V: one of them has to be thick, not both
    const wire: CopperOption[] = [
      { massG: 1, dropV: 0.3 },
      { massG: 2, dropV: 0.1 },
    ];
    const budget = { elements: [0, 1], fixedV: 0, taken: [], budgetV: 0.45, name: '' };
    expect(chooseLeastCopper([wire, wire], [budget, budget])).toMatchObject({ massG: 3, isLeast: true });
    expect(chooseLeastCopper([wire, wire], [{ ...budget, budgetV: 0.15 }])).toBeNull();
    expect(chooseLeastCopper([], [])).toEqual({ choices: [], massG: 0, isLeast: true });
  });
  test('is within 0.5 % of a MILP solver where it says so, and never far off; every budget is kept', async () => {
    let proven = 0;
    const over: number[] = [];
    for (let seed = 1; seed <= 40; seed += 1) {
      const { options, budgets } = createProblem(seed, 3 + (seed % 6));
      const optimum = await solveMilp(toModel(options, budgets));
      const chosen = chooseLeastCopper(options, budgets);
      if (optimum === null) {
        expect(chosen).toBeNull();
        continue;
      }
      expectKept(options, budgets, chosen!.choices);
      expect(massOf(options, chosen!.choices)).toBeCloseTo(chosen!.massG, 9);
      const ratio = chosen!.massG / optimum;
      expect(ratio).toBeGreaterThan(0.9999);
      if (chosen!.isLeast) {
        proven += 1;
        expect(ratio).toBeLessThan(1.005);
      } else over.push(ratio);
    }
    expect(proven).toBeGreaterThan(8);
    expect(over.length).toBeGreaterThan(8);
    expect(Math.max(...over)).toBeLessThan(1.12);
    expect(over.reduce((sum, one) => sum + one, 0) / over.length).toBeLessThan(1.03);
  }, 60_000);
  test('no wire of an overlapping choice could be thinner by itself', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 7 }), (seed, loads) => {
        const { options, budgets } = createProblem(seed, loads);
        const chosen = chooseLeastCopper(options, budgets);
        if (!chosen) return;
        expectKept(options, budgets, chosen.choices);
        chosen.choices.forEach((choice, element) => {
          if (choice === 0) return;
          const thinner = chosen.choices.map((one, at) => (at === element ? choice - 1 : one));
          const isKept = budgets.every(
            ({ elements, fixedV, budgetV }) =>
              elements.reduce((sum, one) => sum + options[one]![thinner[one]!]!.dropV, fixedV) <= budgetV - 1e-6,
          );
          expect(isKept).toBe(false);
        });
      }),
      { numRuns: 40 },
    );
  });
});

describe('ways that share a current evenly', () => {
  const wire: CopperOption[] = [
    { massG: 1, dropV: 0.3 },
    { massG: 2, dropV: 0.1 },
  ];
  test('the worst of them counts: 0.32, 0.31 or 0.12 V for 2, 3 or 4 g', () => {
    const joined = combineParallelSizes([
      { wires: [wire], fixedV: 0.01 },
      { wires: [wire], fixedV: 0.02 },
    ]);
    expect(joined.map(({ massG, sizes }) => [massG, sizes])).toEqual([
      [2, [0, 0]],
      [3, [0, 1]],
      [4, [1, 1]],
    ]);
    expect(joined.map(({ dropV }) => dropV)).toEqual([0.32, 0.31, expect.closeTo(0.12, 12)]);
  });
  test('wires in series add up, and nothing is both heavier and drops more', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 1e6 }),
        fc.array(fc.integer({ min: 1, max: 2 }), { minLength: 1, maxLength: 3 }),
        (seed, counts) => {
          const random = createRandom(seed);
          const ways = counts.map((count) => ({
            wires: Array.from({ length: count }, () => createOptions(random)),
            fixedV: random() * 0.1,
          }));
          const joined = combineParallelSizes(ways);
          joined.forEach(({ massG, dropV, sizes }, index) => {
            let at = 0;
            const drops = ways.map(({ wires, fixedV }) => wires.reduce((sum, options) => sum + options[sizes[at++]!]!.dropV, fixedV));
            at = 0;
            const mass = ways
              .flatMap(({ wires }) => wires.map((options) => options[sizes[at++]!]!.massG))
              .reduce((sum, one) => sum + one, 0);
            expect(dropV).toBeCloseTo(Math.max(...drops), 9);
            expect(massG).toBeCloseTo(mass, 9);
            if (index > 0) expect(massG).toBeGreaterThan(joined[index - 1]!.massG);
            if (index > 0) expect(dropV).toBeLessThan(joined[index - 1]!.dropV);
          });
          expect(joined[0].sizes.every((size) => size === 0)).toBe(true);
        },
      ),
      { numRuns: 40 },
    );
  });
  test('a wire without options is a fault of ours', () =>
    expect(() => combineParallelSizes([{ wires: [[]], fixedV: 0 }])).toThrow(RangeError));
});

describe('budgets of the ways of loads', () => {
  const wire = (edge: number, way: CurrentStep['way'], counts = true): CurrentStep => ({
    ...{ kind: 'wire', words: '', loomId: 'one', wireId: `w${edge}`, currentA: 2, milliohm: null },
    ...{ edge, way, counts, linkId: null, isBody: false, flow: null },
  });
  const contact = (way: CurrentStep['way']): CurrentStep => ({ ...wire(-1, way), kind: 'contact', wireId: null, milliohm: 5 });
  const load = (id: string, out: CurrentStep[], back: ReturnPath | null, isFed = true): CurrentPaths => ({
    load: {
      ...{ id, name: id, pin: { loomId: 'one', endId: id, cavity: '1' }, deviceId: null, load: null, currentA: 2, onA: [2], heatA: [2] },
      ...{ inrushA: null, inrushMs: null, linkIds: [], budgetV: 0.5, totalBudgetV: 0.75, returns: true, returnBy: 'pin', switches: [] },
      isOutside: false,
    },
    ...{ out, back, isFed, isBattery: true, wokenBy: null },
  });
  const end = (steps: CurrentStep[]): ReturnPath => ({ steps, next: [] });

  test('out and back are one budget; what is fixed is summed, 2 A through 5 mΩ twice', () => {
    const [group, ...others] = listBudgets([load('a', [wire(1, 'out'), contact('out')], end([wire(2, 'back'), contact('back')]))]);
    expect(others).toEqual([]);
    expect(group!.edges).toEqual([1, 2]);
    expect(group!.budgets).toEqual([{ elements: [0, 1], fixedV: expect.closeTo(0.02, 12), taken: [], budgetV: 0.5, name: 'a' }]);
  });
  test('loads that share no wire are groups of their own; what is not fed or does not count asks for nothing', () => {
    const groups = listBudgets([
      load('a', [wire(1, 'out')], null),
      load('b', [wire(2, 'out'), wire(9, 'out', false)], null),
      load('c', [wire(3, 'out')], null, false),
    ]);
    expect(groups.map(({ edges }) => edges)).toEqual([[1], [2]]);
  });
  test('the strap of an engine is taken as it is: loads that share nothing else stay groups of their own', () => {
    const strap: CurrentStep = { ...wire(7, 'back'), isBody: true, currentA: 9 };
    const groups = listBudgets([load('a', [wire(1, 'out')], end([strap])), load('b', [wire(2, 'out')], end([strap]))]);
    expect(groups.map(({ edges }) => edges)).toEqual([[1], [2]]);
    expect(groups[0]!.budgets[0]!.taken).toEqual([{ edge: 7, currentA: 9 }]);
  });
  test('grounds of one box that share a current are chosen together', () => {
    const grounds = [end([wire(5, 'back')]), end([wire(6, 'back')])];
    const [group] = listBudgets([
      load('a', [wire(1, 'out')], { steps: [wire(3, 'back')], next: grounds }),
      load('b', [wire(2, 'out')], { steps: [wire(4, 'back')], next: grounds }),
    ]);
    expect(group!.elements.map(({ ways }) => ways.map(({ edges }) => edges))).toEqual([[[1]], [[3]], [[5], [6]], [[2]], [[4]]]);
    expect(group!.nesting.cut).toEqual([]);
  });
  test('a ground that another load uses by itself makes budgets of each way', () => {
    const grounds = [end([wire(5, 'back')]), end([wire(6, 'back')])];
    const [group] = listBudgets([
      load('a', [wire(1, 'out')], { steps: [], next: grounds }),
      load('b', [wire(2, 'out')], end([wire(6, 'back')])),
    ]);
    expect(group!.budgets).toHaveLength(3);
    expect(group!.elements.every(({ ways }) => ways.length === 1)).toBe(true);
  });
});
