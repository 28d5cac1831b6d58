import fc from 'fast-check';
import { createRandom } from '../../../units/createRandom';
import { solveMilp } from '../../../testing/solveMilp';
import { chooseCopper, type CopperEdge } from './chooseCopper';

const edge = (parent: number, options: [number, number][], budgetV: number | null = null, fixedV = 0): CopperEdge => ({
  parent,
  options: options.map(([massG, dropV]) => ({ massG, dropV })),
  fixedV,
  budgetV,
});

/** Every combination: what the solver is held to on small trees. */
function tryAll(edges: readonly CopperEdge[]): number | null {
  let best: number | null = null;
  const pick = (index: number, spent: number[], massG: number): void => {
    if (index === edges.length) {
      if (best === null || massG < best) best = massG;
      return;
    }
    const { parent, options, fixedV, budgetV } = edges[index]!;
    for (const { massG: own, dropV } of options) {
      const now = (parent === -1 ? 0 : spent[parent]!) + fixedV + dropV;
      if (budgetV !== null && now > budgetV + 1e-9) continue;
      pick(index + 1, [...spent, now], massG + own);
    }
  };
  pick(0, [], 0);
  return best;
}

/** A tree of wires with the copper and resistance of real sizes; every end a load with a budget. */
function createTree(seed: number, count: number): CopperEdge[] {
  const random = createRandom(seed);
  const sizes = [0.38, 0.61, 0.96, 1.23, 1.94, 2.97];
  const parents = Array.from({ length: count }, (_, index) => (index === 0 ? -1 : Math.floor(random() * index)));
  return parents.map((parent, index) => {
    const lengthM = 0.2 + random() * 1.8;
    const currentA = 0.5 + random() * 6;
    return {
      parent,
      options: sizes.map((area) => ({ massG: area * lengthM * 8.96, dropV: (currentA * lengthM * 0.0206) / area })),
      fixedV: random() * 0.01,
      budgetV: parents.includes(index) ? null : 0.25 + random() * 0.9,
    };
  });
}

describe('least copper', () => {
  test('nothing is asked where nothing is fed', () => expect(chooseCopper([])).toEqual({ choices: [], massG: 0 }));
  test('one wire takes the lightest that keeps its budget', () => {
    const options: [number, number][] = [
      [1, 0.4],
      [2, 0.2],
      [4, 0.1],
    ];
    expect(chooseCopper([edge(-1, options, 0.25)])).toEqual({ choices: [1], massG: 2 });
    // what no wire changes counts too
    expect(chooseCopper([edge(-1, options, 0.25, 0.1)])).toEqual({ choices: [2], massG: 4 });
    expect(chooseCopper([edge(-1, options, 0.05)])).toBeNull();
  });
  test('a shared wire is thickened once instead of both branches, where that is lighter', () => {
    // by hand: trunk 0.3 V for 1 g or 0.1 V for 2 g; each branch 0.2 V for 1 g or 0.1 V for 3 g; budgets 0.35 V
    const trunk: [number, number][] = [
      [1, 0.3],
      [2, 0.1],
    ];
    const branch: [number, number][] = [
      [1, 0.2],
      [3, 0.1],
    ];
    expect(chooseCopper([edge(-1, trunk), edge(0, branch, 0.35), edge(0, branch, 0.35)])).toEqual({ choices: [1, 0, 0], massG: 4 });
  });
  test('a load on the way has its own budget', () => {
    const wire: [number, number][] = [
      [1, 0.3],
      [2, 0.1],
    ];
    expect(chooseCopper([edge(-1, wire, 0.2), edge(0, wire, 0.45)])).toEqual({ choices: [1, 0], massG: 3 });
  });
  test('parents come first, and every wire has a choice', () => {
    expect(() => chooseCopper([edge(0, [[1, 1]])])).toThrow(RangeError);
    expect(() => chooseCopper([edge(-1, [])])).toThrow(/an option for each, got edge 0/);
  });
  test('is the least of all combinations, and keeps every budget', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 10_000 }), fc.integer({ min: 1, max: 6 }), (seed, count) => {
        const edges = createTree(seed, count);
        const chosen = chooseCopper(edges);
        const least = tryAll(edges);
        if (least === null) return expect(chosen).toBeNull();
        expect(chosen!.massG).toBeCloseTo(least, 9);
        const spent: number[] = [];
        edges.forEach(({ parent, options, fixedV, budgetV }, index) => {
          spent[index] = (parent === -1 ? 0 : spent[parent]!) + fixedV + options[chosen!.choices[index]!]!.dropV;
          if (budgetV !== null) expect(spent[index]).toBeLessThanOrEqual(budgetV + 1e-6);
        });
        expect(chosen!.choices.reduce((sum, choice, index) => sum + edges[index]!.options[choice]!.massG, 0)).toBeCloseTo(chosen!.massG, 9);
      }),
      { numRuns: 60 },
    );
  });
  test('agrees with a MILP solver on seeded trees of 12 to 30 wires', async () => {
    for (let seed = 1; seed <= 12; seed += 1) {
      const edges = createTree(seed * 97, 12 + ((seed * 5) % 19));
      const chosen = chooseCopper(edges);
      const optimum = await solveMilp(toModel(edges));
      if (optimum === null) expect(chosen).toBeNull();
      else {
        expect(chosen!.massG / optimum).toBeGreaterThan(0.9999);
        expect(chosen!.massG / optimum).toBeLessThan(1.005);
      }
    }
  }, 60_000);
});

/** The same as a linear programme: one choice for each wire, a row for each budget. */
function toModel(edges: readonly CopperEdge[]): string {
  const name = (index: number, option: number) => `x${index}_${option}`;
  const terms = (index: number, of: 'massG' | 'dropV') =>
    edges[index]!.options.map((option, at) => `+ ${option[of].toFixed(9)} ${name(index, at)}`).join(' ');
  const budgets = edges.flatMap(({ budgetV }, index) => {
    if (budgetV === null) return [];
    const way: number[] = [];
    for (let at = index; at !== -1; at = edges[at]!.parent) way.push(at);
    const fixed = way.reduce((sum, at) => sum + edges[at]!.fixedV, 0);
    return [` b${index}: ${way.map((at) => terms(at, 'dropV')).join(' ')} <= ${(budgetV - fixed).toFixed(9)}`];
  });
  const ones = edges.map(({ options }, index) => ` o${index}: ${options.map((_, at) => `+ ${name(index, at)}`).join(' ')} = 1`);
  const all = edges.flatMap(({ options }, index) => options.map((_, at) => name(index, at)));
  return `Minimize\n obj: ${edges.map((_, index) => terms(index, 'massG')).join('\n ')}\nSubject To\n${[...ones, ...budgets].join('\n')}\nBinary\n ${all.join('\n ')}\nEnd\n`;
}
