import type { Conductor } from '../../../catalogue';
import { createKeeper } from '../../../units';
import { COPPER_G_PER_MM2_M } from '../../heat/measureHeat';
import type { BudgetGroup } from '../drop/listBudgets';
import type { NetlistWire } from '../drop/measureLoads';
import { measureTrialDrop } from '../drop/measureTrial';
import type { MinimumSizes } from './minimumSizes';

interface PlainWire {
  netlistWire: NetlistWire;
  currentA: number;
  /** that it may have before any drop budget asks for more */
  conductors: readonly Conductor[];
}

/**
 * Copper of the wires that share drop budgets if all of a group had one size, no thinner than their ends, heat and fuses have it, g: the
 * rule of thumb that a plan is held against.
 */
export function measureOneSize(budgets: readonly BudgetGroup[], wires: readonly NetlistWire[], minimums: MinimumSizes): number {
  return budgets.reduce(
    (sum, group) => sum + remember(group, listInputs(group, wires, minimums), () => measureGroup(group, wires, minimums)),
    0,
  );
}

/** groups are those of one wiring: an edit of a length leaves most as they were */
const remember = createKeeper<BudgetGroup, number>();

function listInputs({ edges, budgets }: BudgetGroup, wires: readonly NetlistWire[], minimums: MinimumSizes): unknown[] {
  const inputs: unknown[] = [];
  const add = (edge: number) => {
    const { wire, lengthMm, runningC, current } = wires[edge]!;
    inputs.push(lengthMm, runningC, current.ownK, wire.conductor, listPlain(wires[edge]!, minimums)[0]);
  };
  edges.forEach(add);
  for (const { taken } of budgets) for (const { edge } of taken) add(edge);
  return inputs;
}

function measureGroup({ elements, budgets, currentsA }: BudgetGroup, wires: readonly NetlistWire[], minimums: MinimumSizes): number {
  const toPlain = (edge: number): PlainWire => {
    const netlistWire = wires[edge]!;
    return { netlistWire, currentA: currentsA.get(edge)!, conductors: listPlain(netlistWire, minimums) };
  };
  const choices = elements.map(({ ways }) => ways.map(({ edges, fixedV }) => ({ fixedV, wires: edges.map(toPlain) })));
  const takenV = budgets.map(({ taken }) =>
    taken.reduce((sum, { edge, currentA }) => sum + measureTrialDrop(wires[edge]!, wires[edge]!.wire.conductor, currentA), 0),
  );
  const all = choices.flat().flatMap((way) => way.wires);
  const areas = [...new Set(all.flatMap(({ conductors }) => conductors.map(({ areaMm2 }) => areaMm2)))].sort((a, b) => a - b);
  const pick = ({ conductors }: PlainWire, area: number) => conductors.find(({ areaMm2 }) => areaMm2 >= area) ?? conductors.at(-1)!;
  const measureWay = (way: (typeof choices)[number][number], area: number) =>
    way.wires.reduce((sum, one) => sum + measureTrialDrop(one.netlistWire, pick(one, area), one.currentA), way.fixedV);
  const fits = (area: number) => {
    const dropsV = choices.map((ways) => Math.max(...ways.map((way) => measureWay(way, area))));
    return budgets.every(
      (one, index) => one.elements.reduce((sum, element) => sum + dropsV[element]!, one.fixedV + takenV[index]!) <= one.budgetV + 1e-9,
    );
  };
  const area = areas.find(fits) ?? areas.at(-1) ?? 0;
  return all.reduce((sum, one) => sum + (pick(one, area).areaMm2 * one.netlistWire.lengthMm * COPPER_G_PER_MM2_M) / 1000, 0);
}

function listPlain({ loomId, wire, range: { conductors } }: NetlistWire, minimums: MinimumSizes): readonly Conductor[] {
  const minimum = minimums.get(loomId)?.get(wire.id);
  if (!minimum || minimum.ruledBy === 'drop') return conductors;
  const at = conductors.findIndex(({ areaMm2 }) => areaMm2 >= minimum.conductor.areaMm2);
  return at === 0 ? conductors : conductors.slice(at === -1 ? conductors.length - 1 : at);
}
