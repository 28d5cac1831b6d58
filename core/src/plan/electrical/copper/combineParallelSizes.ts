import type { CopperOption } from './chooseCopper';

/** Conductors of several wires chosen together. sizes: option of each wire, in the order given. */
export interface JointOption extends CopperOption {
  sizes: number[];
}

/**
 * The lightest ways to choose wires that share a current evenly, for each drop that the worst of them may have: V, g. ways: of each,
 * the options of its wires in series and the drop of its contacts. Lightest first; none is both heavier and drops more.
 */
export function combineParallelSizes(
  ways: readonly { wires: readonly (readonly CopperOption[])[]; fixedV: number }[],
): [JointOption, ...JointOption[]] {
  const fronts = ways.map(({ wires, fixedV }) =>
    wires.reduce<JointOption[]>(
      (front, options) =>
        prune(
          front.flatMap(({ massG, dropV, sizes }) =>
            options.map((one, option) => ({ massG: massG + one.massG, dropV: dropV + one.dropV, sizes: [...sizes, option] })),
          ),
        ),
      [{ massG: 0, dropV: fixedV, sizes: [] }],
    ),
  );
  const levels = [...new Set(fronts.flatMap((front) => front.map(({ dropV }) => dropV)))];
  const joined = levels.flatMap((level): JointOption[] => {
    // of each way the lightest that drops no more
    const picks = fronts.map((front) => front.find(({ dropV }) => dropV <= level + 1e-12));
    if (picks.includes(undefined)) return [];
    const all = picks as JointOption[];
    return [
      {
        massG: all.reduce((sum, { massG }) => sum + massG, 0),
        dropV: all.reduce((most, { dropV }) => Math.max(most, dropV), 0),
        sizes: all.flatMap(({ sizes }) => sizes),
      },
    ];
  });
  const [first, ...rest] = prune(joined);
  if (!first) throw new RangeError('copper: expected at least one option for each wire of a shared way');
  return [first, ...rest];
}

function prune(options: JointOption[]): JointOption[] {
  const front: JointOption[] = [];
  for (const one of options.sort((a, b) => a.massG - b.massG || a.dropV - b.dropV))
    if (front.length === 0 || one.dropV < front.at(-1)!.dropV - 1e-12) front.push(one);
  return front;
}
