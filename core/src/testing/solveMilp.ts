import createHighs from 'highs';

/** Optimum of a linear programme with whole-number variables, in the CPLEX LP format; null where there is none. For tests that hold ours to it. */
export async function solveMilp(model: string): Promise<number | null> {
  const highs = await (solver ??= createHighs());
  const result = highs.solve(model);
  return result.Status === 'Optimal' ? result.ObjectiveValue : null;
}

let solver: ReturnType<typeof createHighs> | null = null;
