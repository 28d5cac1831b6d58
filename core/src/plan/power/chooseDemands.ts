import { toSizeWords, type Conductor, type ShopStandard } from '../../catalogue';
import type { SizeDemand } from '../chooseConductors';
import { COPPER_G_PER_MM2_M, COPPER_PER_K } from '../measureHeat';
import { measureHeatAllowed } from '../measureHeatAllowed';
import { findHarm, toGuarded } from './chooseProtections';
import type { SizedLoom } from './createPower';
import type { CopperOption } from './chooseCopper';
import { chooseLeastCopper } from './chooseLeastCopper';
import { joinOptions } from './joinOptions';
import type { BudgetGroup } from './listBudgets';
import { measureResistance, type GridWire } from './measureLoads';
import type { PlannedProtection } from './types';

/** A little of each budget is kept back: the bundles and lengths as built are not quite those of a draft. */
const KEEP = 0.995;
/** A wire that makes less of a bundle's heat is not thickened for it: it would not help. */
const WORTH = 0.02;

/** Thicker conductors, by loom and wire. A loom that is asked for nothing new keeps its map. */
export type Demands = ReadonlyMap<string, ReadonlyMap<string, SizeDemand>>;

/** Copper of the wires that share drop budgets, g, and of the same with one size throughout each tree. */
export interface Copper {
  massG: number;
  oneSizeMassG: number;
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
  protections: readonly PlannedProtection[];
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
 * may count on, is a matter of the stage; in the last one all only add, so that the rounds come to an end.
 */
export function chooseDemands(context: DemandContext, before: Demands, stage: Stage): Asked {
  const maker = new DemandMaker(context, before, stage);
  maker.askForDrop();
  maker.askForHeat();
  maker.askForFuses();
  return { demands: maker.listDemands(before), measureCopper: () => maker.measureCopper() };
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
  private massG = 0;

  constructor(
    private readonly context: DemandContext,
    before: Demands,
    stage: Stage,
  ) {
    for (const [loomId, demands] of before)
      for (const [wireId, demand] of demands) {
        const edge = context.edgeOf.get(loomId)!.get(wireId)!;
        if (stage === 'adding' || (stage === 'fitting' && demand.ruledBy !== 'drop')) this.asked[edge] = demand;
        else if (demand.ruledBy === 'heat') this.warm.set(edge, demand);
      }
  }

  listDemands(before: Demands): Demands {
    const byLoom = new Map<string, Map<string, SizeDemand>>();
    this.asked.forEach((demand, edge) => {
      const { loomId, wire } = this.context.wires[edge]!;
      let ofLoom = byLoom.get(loomId);
      if (!ofLoom) byLoom.set(loomId, (ofLoom = new Map<string, SizeDemand>()));
      ofLoom.set(wire.id, demand!);
    });
    return new Map(
      [...byLoom].map(([loomId, demands]) => [loomId, isSameDemand(before.get(loomId), demands) ? before.get(loomId)! : demands]),
    );
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
    for (const { id, ratingA, tripS, name } of protections) {
      if (ratingA === null) continue;
      for (const edge of guarded.get(id) ?? []) {
        const { wire } = wires[edge]!;
        const bears = toGuarded(wires[edge]!, standard);
        if (bears === null || bears.steadyA === 0) continue;
        // the bundle lets it give off so much heat: a thicker wire makes that at more current
        const isEnough = ({ r20MilliohmPerM, areaMm2 }: Conductor) => {
          const more = Math.sqrt(wire.conductor.r20MilliohmPerM / r20MilliohmPerM);
          const steadyA = bears.steadyA * more;
          return steadyA >= ratingA && findHarm(ratingA, tripS, { ...bears, steadyA, shortA: bears.shortA * more, areaMm2 }) === null;
        };
        const size = this.sizeOf(edge);
        if (isEnough(size)) continue;
        const conductor = this.optionsOf(edge).find(isEnough);
        const bearsA = bears.steadyA * Math.sqrt(wire.conductor.r20MilliohmPerM / size.r20MilliohmPerM);
        if (conductor)
          this.ask(edge, {
            conductor,
            ruledBy: 'fuse',
            because: `bears the ${ratingA} A of ${name} until it opens; ${toSizeWords(size)} bears ${bearsA.toFixed(1)} A here`,
          });
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
          const allowed = measureHeatAllowed(most, ambientC, odMm, odMm + wallMm, standard.altitudeM);
          const here = elements.flat().map((id) => {
            const edge = edgeOf.get(loomId)!.get(id)!;
            const conductor = this.sizeOf(edge);
            return { edge, was: conductor, conductor, designA: wires[edge]!.current.designA ?? 0 };
          });
          const watts = ({ designA, conductor }: (typeof here)[number]) =>
            (designA ** 2 * conductor.r20MilliohmPerM * (1 + COPPER_PER_K * (most - 20))) / 1000;
          // the wire that heats most is thickened first, until the bundle gives off what is left
          for (let sum = here.reduce((total, one) => total + watts(one), 0); sum > allowed;) {
            const thicker = here
              .map((one) => ({ one, to: this.optionsOf(one.edge).find(({ areaMm2 }) => areaMm2 > one.conductor.areaMm2) }))
              .filter(({ one, to }) => to && watts(one) >= WORTH * sum)
              .sort((a, b) => watts(b.one) - watts(a.one))[0];
            if (!thicker) break;
            sum -= watts(thicker.one);
            thicker.one.conductor = thicker.to!;
            sum += watts(thicker.one);
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
    return { massG: this.massG, oneSizeMassG };
  }

  private toDrop(edge: number, { r20MilliohmPerM }: Conductor, currentA: number): number {
    const { wire, lengthMm, runningC, current } = this.context.wires[edge]!;
    // a thicker one heats less, a thinner one more
    const temperatureC = runningC + current.ownK * (r20MilliohmPerM / wire.conductor.r20MilliohmPerM - 1);
    return (measureResistance(r20MilliohmPerM, lengthMm, temperatureC) * currentA) / 1000;
  }

  private toCopperG = (edge: number, { areaMm2 }: Conductor) => (areaMm2 * this.context.wires[edge]!.lengthMm * COPPER_G_PER_MM2_M) / 1000;

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
        because: `least copper in all that keeps every load behind it within its drop budget; ${toSizeWords(conductors[0]!)} would not`,
      });
    }
  }

  private toKey({ shape, edges }: BudgetGroup): string {
    let key = shape;
    for (const edge of edges) {
      const { wire, lengthMm, runningC, current, range } = this.context.wires[edge]!;
      const { conductors } = range;
      const least = this.optionsOf(edge)[0]!;
      key += `;${wire.conductor.r20MilliohmPerM} ${lengthMm} ${runningC} ${current.ownK} ${least.table} ${least.size} ${conductors.length} ${conductors.at(-1)!.size}`;
    }
    return key;
  }

  /** Least copper of a group; one that keeps its budgets as it is needs no search. */
  private chooseSizes(group: BudgetGroup): SettledGroup {
    const { elements, currentsA } = group;
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
    const budgets = group.budgets.map((one) => ({
      ...one,
      budgetV: sum(one, -1) <= KEEP * one.budgetV + 1e-9 ? KEEP * one.budgetV : Infinity,
    }));
    const chosen = budgets.some((one) => sum(one, 0) > one.budgetV) ? chooseLeastCopper(options, budgets, group.nesting) : null;
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
      options: conductors.map((one) => ({ massG: this.toCopperG(edge, one), dropV: this.toDrop(edge, one, currentA) })),
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
    const pick = ({ conductors, options }: ChoiceOfWire, area: number) => {
      const at = conductors.findIndex(({ areaMm2 }) => areaMm2 >= area);
      return options.at(at)!;
    };
    const fits = (area: number) => {
      const drops = choices.map((ways) =>
        Math.max(...ways.map(({ wires, fixedV }) => wires.reduce((sum, one) => sum + pick(one, area).dropV, fixedV))),
      );
      return budgets.every((one) => one.elements.reduce((sum, element) => sum + drops[element]!, one.fixedV) <= one.budgetV + 1e-9);
    };
    const area = areas.find(fits) ?? areas.at(-1) ?? 0;
    return all.reduce((sum, one) => sum + pick(one, area).massG, 0);
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

/** The same sizes for the same reasons, in the same order. */
export function isSameDemand(
  one: ReadonlyMap<string, SizeDemand> | undefined,
  other: ReadonlyMap<string, SizeDemand> | undefined,
): boolean {
  if (one === other) return true;
  if ((one?.size ?? 0) !== (other?.size ?? 0)) return false;
  for (const [wireId, { conductor, because }] of one ?? []) {
    const same = other!.get(wireId);
    if (!same || same.conductor !== conductor || same.because !== because) return false;
  }
  return true;
}
