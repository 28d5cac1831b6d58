import { toSizeWords, type Conductor, type ShopStandard } from '../../catalogue';
import type { SizeDemand } from '../chooseConductors';
import { COPPER_G_PER_MM2_M } from '../measureHeat';
import type { CopperOption } from './chooseCopper';
import { chooseLeastCopper } from './chooseLeastCopper';
import { listHardest, type RatedLink } from './chooseProtections';
import { mostOf } from './currents';
import { joinOptions } from './joinOptions';
import type { BudgetGroup } from './listBudgets';
import { isZoneTooHot } from './measureAmpacity';
import type { GridWire } from './measureLoads';
import { explainFuse, isTrialBorne, measureTrialDrop, measureTrialMiddle } from './measureTrial';
import type { SizedLoom } from './sizedLoom';

/** A little of each budget is kept back: the bundles and lengths as built are not quite those of a draft. */
const KEEP = 0.995;
/** A budget that is passed by no more than this with the thickest conductors is still worth them. */
const NEARLY = 1.06;
/** Steps in which lengths and temperatures count as the drop is shared out. */
const STEP_MM = 10;
const STEP_K = 2;
const STEP_V = 0.001;
/** A wire that makes less of a bundle's heat is not thickened for it: it would not help. */
const WORTH = 0.02;

/** Thicker conductors, by loom and wire. */
export type Demands = ReadonlyMap<string, ReadonlyMap<string, SizeDemand>>;

/** Copper of the wires that share drop budgets, g, and of the same with one size throughout each tree. */
export interface Copper {
  massG: number;
  oneSizeMassG: number;
  /** what alike devices cost that are wired alike, g */
  alikeG: number;
}

export interface Asked {
  demands: Demands;
  measureCopper: () => Copper;
}

export interface DemandContext {
  looms: readonly SizedLoom[];
  /** by edge of the grid */
  wires: readonly GridWire[];
  /** edge of a wire, by loom and wire */
  edgeOf: ReadonlyMap<string, ReadonlyMap<string, number>>;
  budgets: readonly BudgetGroup[];
  /** what contacts ask for, by edge */
  contactFloors: ReadonlyMap<number, SizeDemand>;
  /** edges that stay alike, a list a pin of a bank */
  banks: readonly (readonly number[])[];
  protections: readonly RatedLink[];
  /** edges behind each protection, by link id */
  guarded: ReadonlyMap<string, readonly number[]>;
  standard: ShopStandard;
  store: CopperStore;
}

/** Sizes that groups of budgets came to, by all that decides them. Only ever a shortcut: the same inputs always give the same sizes. */
export type CopperStore = Map<string, SettledGroup>;

interface SettledGroup {
  massG: number;
  /** wires that have to be thicker, as options of theirs; edges of the grid, counted from the first of the group */
  thicker: { edge: number; size: number }[];
}

const MOST_STORED = 4_000;

/** How much of the round before stands: nothing, what heat and fuses asked for, or all of it. */
export type Stage = 'fresh' | 'fitting' | 'adding';

/**
 * Thicker conductors that the drop budgets, the heat and the fuses ask for (calculations 3 and 5), each on top of the one before: what is
 * too warm, or bears too little, beside a thin wire need not beside a thicker one. What stands of the round before, and so what the drop
 * may count on, is a matter of the stage; in the last one all only add, so that the rounds come to an end (slimDemands then takes away what
 * nothing asks for any more). Wires of a bank stay alike.
 */
export function chooseDemands(context: DemandContext, before: Demands, stage: Stage): Asked {
  const maker = new DemandMaker(context, before, stage);
  maker.askForDrop();
  maker.askForHeat();
  maker.askForFuses();
  maker.askForAlike();
  return { demands: maker.listDemands(), measureCopper: () => maker.measureCopper() };
}

/** A wire of a group with the conductors that it may still have. */
interface ChoiceOfWire {
  edge: number;
  conductors: readonly Conductor[];
  options: CopperOption[];
}

class DemandMaker {
  /** asked for each edge of the grid */
  private readonly asked: (SizeDemand | undefined)[] = [];
  /** asked for by the heat in the round before, and to be looked at again */
  private readonly warm = new Map<number, SizeDemand>();
  private readonly coarse: (GridWire | undefined)[] = [];
  private massG = 0;

  constructor(
    private readonly context: DemandContext,
    before: Demands,
    stage: Stage,
  ) {
    for (const [edge, demand] of context.contactFloors) this.ask(edge, demand);
    for (const [loomId, demands] of before)
      for (const [wireId, demand] of demands) {
        const edge = context.edgeOf.get(loomId)!.get(wireId)!;
        if (demand.ruledBy === 'contact') continue;
        if (stage === 'adding' || (stage === 'fitting' && demand.ruledBy !== 'drop' && demand.ruledBy !== 'alike')) {
          this.asked[edge] = demand;
        }
        if (this.asked[edge] === undefined && demand.ruledBy === 'heat') this.warm.set(edge, demand);
      }
  }

  listDemands(): Demands {
    const byLoom = new Map<string, Map<string, SizeDemand>>();
    this.asked.forEach((demand, edge) => {
      if (!demand) return;
      const { loomId, wire } = this.context.wires[edge]!;
      let ofLoom = byLoom.get(loomId);
      if (!ofLoom) byLoom.set(loomId, (ofLoom = new Map<string, SizeDemand>()));
      ofLoom.set(wire.id, demand);
    });
    return byLoom;
  }

  private ask(edge: number, demand: SizeDemand): void {
    const known = this.asked[edge];
    if (!known || known.conductor.areaMm2 < demand.conductor.areaMm2) this.asked[edge] = demand;
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
    const { looms, standard, wires, edgeOf } = this.context;
    for (const { loomId, heats, bundles, coverings } of looms) {
      for (const { segmentId, middleC, limitC, wattsPerM, ambientC } of heats) {
        if (limitC === null || wattsPerM === 0) continue;
        const most = limitC - standard.heatMarginK;
        const isOver = middleC === null || middleC > most;
        if (!isOver && this.warm.size === 0) continue;
        const at = bundles.findIndex((one) => one.segmentId === segmentId);
        const { sections } = bundles[at]!;
        const wasWarm = (id: string) => this.warm.has(edgeOf.get(loomId)!.get(id)!);
        if (!isOver && !sections.some(({ elements }) => elements.some((ids) => ids.some(wasWarm)))) continue;
        const covering = coverings[at]!;
        for (const { elements, odMm } of sections) {
          if (odMm === 0) continue;
          const wallMm = covering.odOutsideMm - Math.max(...sections.map((one) => one.odMm));
          const here = elements.flat().map((id) => {
            const edge = edgeOf.get(loomId)!.get(id)!;
            const conductor = this.sizeOf(edge);
            return { edge, gridWire: wires[edge]!, was: conductor, conductor };
          });
          const watts = ({ gridWire, conductor }: (typeof here)[number]) =>
            (mostOf(gridWire.current.heatA) ** 2 * conductor.r20MilliohmPerM) / 1000;
          const isTooWarm = () => {
            const trialC = measureTrialMiddle(here, { odMm }, wallMm, ambientC, standard.altitudeM);
            return trialC === null || trialC > most;
          };
          // the wire that heats most is thickened first, until the middle stays cool enough
          while (isTooWarm()) {
            const sum = here.reduce((total, one) => total + watts(one), 0);
            const thicker = here
              .filter(({ conductor }) => !isZoneTooHot(ambientC, conductor.table, standard))
              .map((one) => ({ one, to: this.optionsOf(one.edge).find(({ areaMm2 }) => areaMm2 > one.conductor.areaMm2) }))
              .filter(({ one, to }) => to && watts(one) >= WORTH * sum)
              .sort((a, b) => watts(b.one) - watts(a.one))[0];
            if (!thicker) break;
            thicker.one.conductor = thicker.to!;
          }
          for (const { edge, was, conductor } of here) {
            if (conductor === was) continue;
            const start = `with ${toSizeWords(was)} the middle of the bundle would`;
            const known = this.warm.get(edge);
            const would = middleC === null ? 'heat up without end' : isOver ? `reach ${middleC.toFixed(0)} °C` : 'be too warm';
            this.ask(
              edge,
              known?.conductor === conductor && known.because.startsWith(start)
                ? known
                : { conductor, ruledBy: 'heat', because: `${start} ${would}; the shop keeps ${most} °C` },
            );
          }
        }
      }
    }
  }

  askForDrop(): void {
    for (const group of this.context.budgets) this.settle(group);
  }

  measureCopper(): Copper {
    const oneSizeMassG = this.context.budgets.reduce((sum, group) => sum + this.measureOneSize(group), 0);
    return { massG: this.massG, oneSizeMassG, alikeG: 0 };
  }

  private toDrop(edge: number, conductor: Conductor, currentA: number): number {
    return measureTrialDrop(this.toCoarse(edge), conductor, currentA);
  }

  /**
   * A wire as the drop is shared out: a little longer and warmer than it is, in steps, so that a group whose draft moved by a hair is not
   * chosen anew. What that asks for too much is taken away in the end.
   */
  private toCoarse(edge: number): GridWire {
    const known = this.coarse[edge];
    if (known) return known;
    const gridWire = this.context.wires[edge]!;
    const up = (value: number, step: number) => Math.ceil(value / step - 1e-9) * step;
    const { lengthMm, runningC, current } = gridWire;
    return (this.coarse[edge] = {
      ...gridWire,
      lengthMm: up(lengthMm, STEP_MM),
      runningC: up(runningC, STEP_K),
      current: { ...current, ownK: up(current.ownK, STEP_K) },
    });
  }

  private toCopperG = (edge: number, { areaMm2 }: Conductor, lengthMm = this.context.wires[edge]!.lengthMm) =>
    (areaMm2 * lengthMm * COPPER_G_PER_MM2_M) / 1000;

  private settle(group: BudgetGroup): void {
    const { store } = this.context;
    const key = this.toKey(group);
    let settled = store.get(key);
    if (!settled) {
      if (store.size > MOST_STORED) store.clear();
      settled = this.chooseSizes(group);
      store.set(key, settled);
    }
    this.massG += settled.massG;
    for (const { edge, size } of settled.thicker) {
      const conductors = this.optionsOf(group.edges[edge]!);
      this.ask(group.edges[edge]!, {
        conductor: conductors[size]!,
        ruledBy: 'drop',
        because: `keeps every load behind it within its drop budget; ${toSizeWords(conductors[0]!)} would not`,
      });
    }
  }

  private toKey({ shape, edges, budgets }: BudgetGroup): string {
    let key = shape;
    for (const budget of budgets) if (budget.taken.length > 0) key += `;${this.measureTaken(budget)}`;
    for (const edge of edges) {
      const { wire, lengthMm, runningC, current, range } = this.toCoarse(edge);
      const { conductors } = range;
      const least = this.optionsOf(edge)[0]!;
      key += `;${wire.conductor.r20MilliohmPerM} ${lengthMm} ${runningC} ${current.ownK} ${least.table} ${least.size} ${conductors.length} ${conductors.at(-1)!.size}`;
    }
    return key;
  }

  /** Drop of what a budget takes as it is, V. */
  private measureTaken({ taken }: BudgetGroup['budgets'][number]): number {
    return taken.reduce((sum, { edge, currentA }) => sum + this.toDrop(edge, this.context.wires[edge]!.wire.conductor, currentA), 0);
  }

  /** Least copper of a group; one that keeps its budgets as it is needs no search. */
  private chooseSizes(group: BudgetGroup): SettledGroup {
    const { elements, currentsA } = group;
    const known = group.budgets.map((one) => ({ ...one, fixedV: one.fixedV + this.measureTaken(one) }));
    const choices = elements.map(({ ways }) =>
      ways.flatMap(({ edges }) => edges.map((edge) => this.listChoices(edge, this.optionsOf(edge), currentsA.get(edge)!))),
    );
    const options = elements.map(({ ways }, index) => {
      const [only] = choices[index]!;
      if (ways.length === 1) return only!.options.map((one, option) => ({ ...one, sizes: [option] }));
      let at = 0;
      return joinOptions(ways.map(({ edges, fixedV }) => ({ fixedV, wires: edges.map(() => choices[index]![at++]!.options) })));
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
    return {
      massG: chosen?.massG ?? options.reduce((total, [first]) => total + first!.massG, 0),
      thicker: (chosen?.choices ?? []).flatMap((option, index) =>
        options[index]![option]!.sizes.flatMap((size, at) => (size === 0 ? [] : [{ edge: places.get(choices[index]![at]!.edge)!, size }])),
      ),
    };
  }

  private listChoices(edge: number, conductors: readonly Conductor[], currentA: number): ChoiceOfWire {
    return {
      edge,
      conductors,
      // by the coarse length too: what decides a choice has to be in its key
      options: conductors.map((one) => ({
        massG: this.toCopperG(edge, one, this.toCoarse(edge).lengthMm),
        dropV: this.toDrop(edge, one, currentA),
      })),
    };
  }

  /** Copper if all wires of a group had one size, no thinner than their ends, heat and fuses have it: the rule of thumb. */
  private measureOneSize({ elements, budgets, currentsA }: BudgetGroup): number {
    const choices = elements.map(({ ways }) =>
      ways.map(({ edges, fixedV }) => ({
        fixedV,
        wires: edges.map((edge) => this.listChoices(edge, this.listPlain(edge), currentsA.get(edge)!)),
      })),
    );
    const all = choices.flat().flatMap(({ wires }) => wires);
    const areas = [...new Set(all.flatMap(({ conductors }) => conductors.map(({ areaMm2 }) => areaMm2)))].sort((a, b) => a - b);
    const pick = ({ conductors }: ChoiceOfWire, area: number) => conductors.findIndex(({ areaMm2 }) => areaMm2 >= area);
    const fits = (area: number) => {
      const drops = choices.map((ways) =>
        Math.max(...ways.map(({ wires, fixedV }) => wires.reduce((sum, one) => sum + one.options.at(pick(one, area))!.dropV, fixedV))),
      );
      return budgets.every(
        (one) => one.elements.reduce((sum, element) => sum + drops[element]!, one.fixedV + this.measureTaken(one)) <= one.budgetV + 1e-9,
      );
    };
    const area = areas.find(fits) ?? areas.at(-1) ?? 0;
    return all.reduce((sum, one) => sum + this.toCopperG(one.edge, one.conductors.at(pick(one, area))!), 0);
  }

  /** Conductors of a wire before any drop budget asked for more. */
  private listPlain(edge: number): readonly Conductor[] {
    const { conductors } = this.context.wires[edge]!.range;
    const demand = this.asked[edge];
    const floor = demand && demand.ruledBy !== 'drop' ? demand.conductor.areaMm2 : 0;
    const above = conductors.filter(({ areaMm2 }) => areaMm2 >= floor);
    return above.length ? above : [conductors.at(-1)!];
  }
}

/** The same sizes by the same rules, in the same order: the words may differ by a figure. */
export function isSameDemand(
  one: ReadonlyMap<string, SizeDemand> | undefined,
  other: ReadonlyMap<string, SizeDemand> | undefined,
): boolean {
  if (one === other) return true;
  if ((one?.size ?? 0) !== (other?.size ?? 0)) return false;
  for (const [wireId, { conductor, ruledBy }] of one ?? []) {
    const same = other!.get(wireId);
    if (!same || same.conductor !== conductor || same.ruledBy !== ruledBy) return false;
  }
  return true;
}
