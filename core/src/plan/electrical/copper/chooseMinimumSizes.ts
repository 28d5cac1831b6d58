import { createMemory, type Memory } from '../../../units';
import { toSizeWords, type Conductor, type ShopStandard } from '../../../catalogue';
import type { MinimumSize } from '../../size/chooseConductors';
import { COPPER_G_PER_MM2_M } from '../../heat/measureHeat';
import type { CopperOption } from './chooseCopper';
import { chooseLeastCopper } from './chooseLeastCopper';
import { listHardest, type RatedLink } from '../protection/chooseProtections';
import { combineParallelSizes } from './combineParallelSizes';
import type { BudgetGroup } from '../drop/listBudgets';
import type { NetlistWire } from '../drop/measureLoads';
import { explainFuse, isTrialBorne, measureTrialResistance } from '../drop/measureTrial';
import type { SizedLoom } from '../sizedLoom';
import { listForHeat, type SizesSoFar } from './listForHeat';
import type { MinimumSizes } from './minimumSizes';

/** A little of each budget is kept back: the bundles and lengths as built are not quite those of a draft. */
const KEEP = 0.995;
/** A budget that is passed by no more than this with the thickest conductors is still worth them. */
const NEARLY = 1.06;
/** Steps in which lengths and temperatures count as the drop is shared out. */
const STEP_MM = 10;
const STEP_K = 2;
const STEP_V = 0.001;

export interface SizingContext {
  looms: readonly SizedLoom[];
  /** by edge of the netlist */
  wires: readonly NetlistWire[];
  /** edge of a wire, by loom and wire */
  edgeOf: ReadonlyMap<string, ReadonlyMap<string, number>>;
  budgets: readonly BudgetGroup[];
  /** what contacts ask for, by edge */
  contactFloors: ReadonlyMap<number, MinimumSize>;
  /** edges that stay alike, a list a pin of a bank */
  banks: readonly (readonly number[])[];
  protections: readonly RatedLink[];
  /** edges behind each protection, by link id */
  guarded: ReadonlyMap<string, readonly number[]>;
  standard: ShopStandard;
  store: CopperStore;
}

/** Sizes that groups of budgets came to, by all that decides them. Only ever a shortcut: the same inputs always give the same sizes. */
export type CopperStore = Map<string, Memory<SettledGroup>>;

/** Wires of a group that have to be thicker, as options of theirs; edge: its place in the group. */
type SettledGroup = readonly { edge: number; size: number }[];

/** groups that differ in more than lengths and temperatures */
const MOST_STORED = 2_000;
/** of each: groups alike, and the rounds of the last edits */
const MOST_ALIKE = 32;

/** How much of the round before stands: nothing, what heat and fuses asked for, or all of it. */
export type Stage = 'fresh' | 'fitting' | 'adding';

/**
 * Thicker conductors that the drop budgets, the heat and the fuses ask for (calculations 3 and 5), each on top of the one before: what is
 * too warm, or bears too little, beside a thin wire need not beside a thicker one. What stands of the round before, and so what the drop
 * may count on, is a matter of the stage; in the last one all only add, so that the rounds come to an end (slimDemands then takes away what
 * nothing asks for any more). Wires of a bank stay alike.
 */
export function chooseMinimumSizes(context: SizingContext, before: MinimumSizes, stage: Stage): MinimumSizes {
  const maker = new MinimumMaker(context, before, stage);
  maker.askForDrop();
  maker.askForHeat();
  maker.askForFuses();
  maker.askForAlike();
  return maker.listMinimums();
}

/** A wire of a group with the conductors that it may still have. */
interface ChoiceOfWire {
  edge: number;
  conductors: readonly Conductor[];
  options: CopperOption[];
}

interface CoarseWire {
  lengthMm: number;
  runningC: number;
  ownK: number;
}

const roundToStep = (value: number, step: number) => Math.ceil(value / step - 1e-9) * step;

class MinimumMaker {
  /** asked for each edge of the netlist */
  private readonly asked: (MinimumSize | undefined)[] = [];
  /** asked for by the heat in the round before, and to be looked at again */
  private readonly warm = new Map<number, MinimumSize>();
  private readonly coarse: (CoarseWire | undefined)[] = [];

  constructor(
    private readonly context: SizingContext,
    before: MinimumSizes,
    stage: Stage,
  ) {
    for (const [edge, minimum] of context.contactFloors) this.ask(edge, minimum);
    for (const [loomId, minimums] of before)
      for (const [wireId, minimum] of minimums) {
        const edge = context.edgeOf.get(loomId)!.get(wireId)!;
        if (minimum.ruledBy === 'contact') continue;
        if (stage === 'adding' || (stage === 'fitting' && minimum.ruledBy !== 'drop' && minimum.ruledBy !== 'alike')) {
          this.asked[edge] = minimum;
        }
        if (this.asked[edge] === undefined && minimum.ruledBy === 'heat') this.warm.set(edge, minimum);
      }
  }

  listMinimums(): MinimumSizes {
    const byLoom = new Map<string, Map<string, MinimumSize>>();
    this.asked.forEach((minimum, edge) => {
      if (!minimum) return;
      const { loomId, wire } = this.context.wires[edge]!;
      let ofLoom = byLoom.get(loomId);
      if (!ofLoom) byLoom.set(loomId, (ofLoom = new Map<string, MinimumSize>()));
      ofLoom.set(wire.id, minimum);
    });
    return byLoom;
  }

  private ask(edge: number, minimum: MinimumSize): void {
    const known = this.asked[edge];
    if (!known || known.conductor.areaMm2 < minimum.conductor.areaMm2) this.asked[edge] = minimum;
  }

  /** Conductors that a wire may still have: no thinner than what was asked for. */
  private optionsOf(edge: number): readonly Conductor[] {
    const { conductors } = this.context.wires[edge]!.range;
    const floor = this.asked[edge]?.conductor.areaMm2 ?? 0;
    if (conductors[0]!.areaMm2 >= floor) return conductors;
    const at = conductors.findIndex(({ areaMm2 }) => areaMm2 >= floor);
    return conductors.slice(at === -1 ? conductors.length - 1 : at);
  }

  /** Conductor of a wire as it is asked for so far. */
  private sizeOf(edge: number): Conductor {
    return this.optionsOf(edge)[0]!;
  }

  askForFuses(): void {
    const { protections, guarded, wires, standard } = this.context;
    for (const [edge, hardest] of listHardest(protections, guarded))
      for (const protection of hardest) {
        const isEnough = (conductor: Conductor) => isTrialBorne(wires[edge]!, conductor, protection, standard);
        const size = this.sizeOf(edge);
        if (isEnough(size)) continue;
        const conductor = this.optionsOf(edge).find(isEnough);
        if (conductor) this.ask(edge, { conductor, ruledBy: 'fuse', because: explainFuse(wires[edge]!, size, protection, standard) });
      }
  }

  /** Each wire of a bank as thick as the thickest of it (craft G10); what that makes too much elsewhere is taken away when all are slimmed. */
  askForAlike(): void {
    for (const bank of this.context.banks) {
      const thickest = bank.reduce((most, edge) => (this.sizeOf(edge).areaMm2 > this.sizeOf(most).areaMm2 ? edge : most));
      const size = this.sizeOf(thickest);
      for (const edge of bank) {
        if (this.sizeOf(edge).areaMm2 >= size.areaMm2) continue;
        const conductor = this.optionsOf(edge).find((one) => one.table === size.table && one.size === size.size);
        const why = this.asked[thickest]?.because ?? 'its contacts take nothing thinner';
        if (conductor) this.ask(edge, { conductor, ruledBy: 'alike', because: `as the others of its bank, for one of them: ${why}` });
      }
    }
  }

  askForHeat(): void {
    const { context, warm } = this;
    const sizes: SizesSoFar = {
      warm,
      optionsOf: (edge) => this.optionsOf(edge),
    };
    for (const loom of context.looms) for (const { edge, minimum } of listForHeat(context, loom, sizes)) this.ask(edge, minimum);
  }

  askForDrop(): void {
    for (const group of this.context.budgets) this.settle(group);
  }

  private toDrop(edge: number, { r20MilliohmPerM }: Conductor, currentA: number): number {
    const { lengthMm, runningC, ownK } = this.toCoarse(edge);
    const { wire } = this.context.wires[edge]!;
    return (measureTrialResistance({ lengthMm, runningC, ownK, r20: wire.conductor.r20MilliohmPerM }, r20MilliohmPerM) * currentA) / 1000;
  }

  /**
   * A wire as the drop is shared out: a little longer and warmer than it is, in steps, so that a group whose draft moved by a hair is not
   * chosen anew. What that asks for too much is taken away in the end.
   */
  private toCoarse(edge: number): CoarseWire {
    const known = this.coarse[edge];
    if (known) return known;
    const { lengthMm, runningC, current } = this.context.wires[edge]!;
    const ownK = roundToStep(current.ownK, STEP_K);
    return (this.coarse[edge] = { lengthMm: roundToStep(lengthMm, STEP_MM), runningC: roundToStep(runningC, STEP_K), ownK });
  }

  private settle(group: BudgetGroup): void {
    const settled = this.findMemory(group)('', this.listInputs(group), () => this.chooseSizes(group));
    for (const { edge, size } of settled) {
      const conductors = this.optionsOf(group.edges[edge]!);
      this.ask(group.edges[edge]!, {
        conductor: conductors[size]!,
        ruledBy: 'drop',
        because: `keeps every load behind it within its drop budget; ${toSizeWords(conductors[0]!)} would not`,
      });
    }
  }

  private findMemory({ shape }: BudgetGroup): Memory<SettledGroup> {
    const { store } = this.context;
    let memory = store.get(shape);
    if (!memory) {
      if (store.size >= MOST_STORED) store.clear();
      store.set(shape, (memory = createMemory(MOST_ALIKE)));
    }
    return memory;
  }

  /** All that decides the sizes of a group beside its shape. */
  private listInputs({ edges, budgets }: BudgetGroup): (string | number)[] {
    const inputs: (string | number)[] = [];
    for (const budget of budgets) if (budget.taken.length > 0) inputs.push(this.measureTaken(budget));
    for (const edge of edges) {
      const { lengthMm, runningC, ownK } = this.toCoarse(edge);
      const { wire, range } = this.context.wires[edge]!;
      const { table, size } = this.sizeOf(edge);
      const { conductors } = range;
      inputs.push(wire.conductor.r20MilliohmPerM, lengthMm, runningC, ownK, table, size, conductors.length, conductors.at(-1)!.size);
    }
    return inputs;
  }

  /** Drop of what a budget takes as it is, V. */
  private measureTaken({ taken }: BudgetGroup['budgets'][number]): number {
    return taken.reduce((sum, { edge, currentA }) => sum + this.toDrop(edge, this.context.wires[edge]!.wire.conductor, currentA), 0);
  }

  /** Least copper of a group; one that keeps its budgets as it is needs no search. */
  private chooseSizes(group: BudgetGroup): SettledGroup {
    const { elements, currentsA } = group;
    if (this.isKept(group)) return [];
    const known = group.budgets.map((one) => ({ ...one, fixedV: one.fixedV + this.measureTaken(one) }));
    const choices = elements.map(({ ways }) =>
      ways.flatMap(({ edges }) => edges.map((edge) => this.listChoices(edge, this.optionsOf(edge), currentsA.get(edge)!))),
    );
    const options = elements.map(({ ways }, index) => {
      const [only] = choices[index]!;
      if (ways.length === 1) return only!.options.map((one, option) => ({ ...one, sizes: [option] }));
      let at = 0;
      return combineParallelSizes(ways.map(({ edges, fixedV }) => ({ fixedV, wires: edges.map(() => choices[index]![at++]!.options) })));
    });
    const sum = (budget: BudgetGroup['budgets'][number], end: 0 | -1) =>
      budget.elements.reduce((total, element) => total + options[element]!.at(end)!.dropV, budget.fixedV);
    // a budget that no allowed conductor keeps asks for nothing: the check of the drop says so, copper would not mend it
    // one that the thickest nearly keep has them: the steps of the draft may be all that is wrong
    const budgets = known.map((one) => {
      const leastV = sum(one, -1);
      return { ...one, budgetV: leastV <= NEARLY * one.budgetV ? Math.max(KEEP * one.budgetV, leastV + 1e-9) : Infinity };
    });
    const chosen = budgets.some((one) => sum(one, 0) > one.budgetV) ? chooseLeastCopper(options, budgets, group.nesting, STEP_V) : null;
    const places = new Map(group.edges.map((edge, place) => [edge, place]));
    return (chosen?.choices ?? []).flatMap((option, index) =>
      options[index]![option]!.sizes.flatMap((size, at) => (size === 0 ? [] : [{ edge: places.get(choices[index]![at]!.edge)!, size }])),
    );
  }

  /** Does a group keep its budgets with the thinnest that its wires may have? False where it shares a current: that is searched. */
  private isKept({ elements, budgets, currentsA }: BudgetGroup): boolean {
    const dropsV: number[] = [];
    for (const { ways } of elements) {
      if (ways.length !== 1 || ways[0]!.edges.length !== 1) return false;
      const edge = ways[0]!.edges[0]!;
      dropsV.push(this.toDrop(edge, this.sizeOf(edge), currentsA.get(edge)!));
    }
    return budgets.every((one) => {
      let dropV = one.fixedV + this.measureTaken(one);
      for (const element of one.elements) dropV += dropsV[element]!;
      return dropV <= KEEP * one.budgetV;
    });
  }

  private listChoices(edge: number, conductors: readonly Conductor[], currentA: number): ChoiceOfWire {
    return {
      edge,
      conductors,
      // by the coarse length too: what decides a choice has to be in its key
      options: conductors.map((one) => ({
        massG: (one.areaMm2 * this.toCoarse(edge).lengthMm * COPPER_G_PER_MM2_M) / 1000,
        dropV: this.toDrop(edge, one, currentA),
      })),
    };
  }
}
