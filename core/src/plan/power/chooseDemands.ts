import { toSizeWords, type Conductor, type ShopStandard } from '../../catalogue';
import type { SizeDemand } from '../chooseConductors';
import type { SizeRange } from '../createSizes';
import type { LoomPlan, PlannedWire, RunWire } from '../types';
import { chooseCopper, type CopperEdge } from './chooseCopper';
import { findHarm, type GuardedWire } from './chooseProtections';
import { COPPER_PER_K } from '../measureHeat';
import { measureHeatAllowed } from '../measureHeatAllowed';
import { measureResistance, type TracedWire } from './tracePaths';
import type { PathStep, PlannedLoad, PlannedProtection } from './types';

/** Copper, g per mm² and m. */
const COPPER_G = 8.96;

const KEEP = 0.995;
/** A wire that makes less of a bundle's heat is not thickened for it: it would not help. */
const WORTH = 0.02;

export type Demands = ReadonlyMap<string, ReadonlyMap<string, SizeDemand>>;

export interface DemandContext {
  looms: readonly LoomPlan[];
  /** by loom/wire */
  wires: ReadonlyMap<string, TracedWire>;
  sizes: ReadonlyMap<string, (wire: RunWire) => SizeRange>;
  loads: readonly PlannedLoad[];
  twins: ReadonlyMap<string, readonly PathStep[][]>;
  protections: readonly PlannedProtection[];
  guarded: ReadonlyMap<string, readonly GuardedWire[]>;
  standard: ShopStandard;
  /** of the round before: a wire that had to be thicker stays so */
  before: Demands;
}

/**
 * Thicker conductors that the fuses, the heat and the drop budgets ask for (calculations 3 and 5), on top of what was asked before:
 * sizes only grow from round to round, so that the rounds come to an end. With them, the copper of the wires that share drop budgets.
 */
export function chooseDemands(context: DemandContext): { demands: Demands; copper: { massG: number; oneSizeMassG: number } } {
  const maker = new DemandMaker(context);
  maker.askForFuses();
  maker.askForHeat();
  const copper = maker.askForDrop();
  return { demands: maker.demands, copper };
}

interface DropTree {
  edges: CopperEdge[];
  /** wire of each edge; null: a stretch without one */
  keys: (string | null)[];
  options: (readonly Conductor[])[];
  currentsA: number[];
}

class DemandMaker {
  readonly demands = new Map<string, Map<string, SizeDemand>>();

  constructor(private readonly context: DemandContext) {
    for (const [loomId, wires] of context.before) this.demands.set(loomId, new Map(wires));
  }

  private ask(loomId: string, wireId: string, demand: SizeDemand): void {
    const ofLoom = this.demands.get(loomId) ?? new Map<string, SizeDemand>();
    this.demands.set(loomId, ofLoom);
    const known = ofLoom.get(wireId);
    if (!known || known.conductor.areaMm2 < demand.conductor.areaMm2) ofLoom.set(wireId, demand);
  }

  private optionsOf(loomId: string, wire: RunWire): readonly Conductor[] {
    const { conductors } = this.context.sizes.get(loomId)!(wire);
    const floor = this.demands.get(loomId)?.get(wire.id)?.conductor.areaMm2 ?? 0;
    const above = conductors.filter(({ areaMm2 }) => areaMm2 >= floor);
    return above.length ? above : [conductors.at(-1)!];
  }

  askForFuses(): void {
    const { protections, guarded, wires } = this.context;
    for (const { id, ratingA, tripS, name } of protections) {
      if (ratingA === null) continue;
      for (const { loomId, wireId, circuitId, shortC, current } of guarded.get(id) ?? []) {
        const { steadyA, shortA, runningC } = current;
        if (steadyA === null || shortA === null || runningC === null || steadyA === 0) continue;
        const { wire } = wires.get(`${loomId}/${wireId}`)!;
        // the bundle lets it give off so much heat: a thicker wire makes that at more current
        const isEnough = ({ r20MilliohmPerM, areaMm2 }: Conductor) => {
          const more = Math.sqrt(wire.conductor.r20MilliohmPerM / r20MilliohmPerM);
          const thicker = { loomId, wireId, circuitId, steadyA: steadyA * more, shortA: shortA * more, areaMm2, runningC, shortC };
          return thicker.steadyA >= ratingA && findHarm(ratingA, tripS, thicker) === null;
        };
        if (isEnough(wire.conductor)) continue;
        const conductor = this.optionsOf(loomId, wire).find(isEnough);
        if (conductor && conductor.areaMm2 > wire.conductor.areaMm2)
          this.ask(loomId, wireId, {
            conductor,
            ruledBy: 'fuse',
            because: `bears the ${ratingA} A of ${name} until it opens; ${toSizeWords(wire.conductor)} bears ${steadyA.toFixed(1)} A here`,
          });
      }
    }
  }

  askForHeat(): void {
    const { looms, standard } = this.context;
    for (const { loomId, heats, bundles, coverings, wires, currents } of looms) {
      const byId = new Map(wires.map((wire, index) => [wire.id, { wire, designA: currents[index]!.designA ?? 0 }]));
      for (const { segmentId, middleC, limitC, wattsPerM, ambientC } of heats) {
        if (limitC === null || wattsPerM === 0) continue;
        const most = limitC - standard.heatMarginK;
        if (middleC !== null && middleC <= most) continue;
        const at = bundles.findIndex((one) => one.segmentId === segmentId);
        const { sections } = bundles[at]!;
        const covering = coverings[at]!;
        for (const { elements, odMm } of sections) {
          if (odMm === 0) continue;
          const wallMm = covering.odOutsideMm - Math.max(...sections.map((one) => one.odMm));
          const allowed = measureHeatAllowed(most, ambientC, odMm, odMm + wallMm, standard.altitudeM);
          const here = elements.flat().map((id) => ({ ...byId.get(id)!, conductor: byId.get(id)!.wire.conductor }));
          const watts = ({ designA, conductor }: (typeof here)[number]) =>
            (designA ** 2 * conductor.r20MilliohmPerM * (1 + COPPER_PER_K * (most - 20))) / 1000;
          // the wire that heats most is thickened first, until the bundle gives off what is left
          for (let sum = here.reduce((total, one) => total + watts(one), 0); sum > allowed;) {
            const thicker = here
              .map((one) => ({ one, to: this.optionsOf(loomId, one.wire).find(({ areaMm2 }) => areaMm2 > one.conductor.areaMm2) }))
              .filter(({ one, to }) => to && watts(one) >= WORTH * sum)
              .sort((a, b) => watts(b.one) - watts(a.one))[0];
            if (!thicker) break;
            sum -= watts(thicker.one);
            thicker.one.conductor = thicker.to!;
            sum += watts(thicker.one);
          }
          for (const { wire, conductor } of here)
            if (conductor !== wire.conductor)
              this.ask(loomId, wire.id, {
                conductor,
                ruledBy: 'heat',
                because: `with ${toSizeWords(wire.conductor)} the middle of the bundle would ${middleC === null ? 'heat up without end' : `reach ${middleC.toFixed(0)} °C`}; the shop keeps ${most} °C`,
              });
        }
      }
    }
  }

  askForDrop(): { massG: number; oneSizeMassG: number } {
    const fed = this.context.loads
      .filter(({ steps }) => steps.length > 0)
      .map((load) => ({ ...load, steps: load.steps.filter(({ counts }) => counts) }));
    // the starter's way counts in cranking only: it is settled first, and what it shares starts from there
    const parts = [fed.filter(({ load }) => load === 'starter'), fed.filter(({ load }) => load !== 'starter')];
    const copper = { massG: 0, oneSizeMassG: 0 };
    for (const loads of parts) {
      if (loads.length === 0) continue;
      const shared = this.settleSharedReturns(loads, copper);
      this.settle(this.createSupplyTree(loads, shared), copper);
    }
    return copper;
  }

  private toDrop(key: string, conductor: Conductor, currentA: number): number {
    const { wire, runningC } = this.context.wires.get(key)!;
    const milliohm = measureResistance(conductor.r20MilliohmPerM, wire.lengthMm, runningC ?? this.context.standard.unknownZoneC);
    return (milliohm * currentA) / 1000;
  }

  private toCopperG = (wire: PlannedWire, { areaMm2 }: Conductor) => (areaMm2 * wire.lengthMm * COPPER_G) / 1000;

  /** Drop of a step with the thinnest conductor that is allowed now. */
  private leastDrop(step: PathStep): number {
    if (step.wireId === null) return step.dropV;
    const key = `${step.loomId}/${step.wireId}`;
    return this.toDrop(key, this.optionsOf(step.loomId!, this.context.wires.get(key)!.wire)[0]!, step.currentA);
  }

  /** Return wires that several loads share: their part of each budget is that of their drop. By wire: loads that use it. */
  private settleSharedReturns(loads: readonly PlannedLoad[], copper: { massG: number; oneSizeMassG: number }): Set<string> {
    const users = new Map<string, number>();
    const backs = loads.map(({ steps }) => steps.filter(({ way }) => way === 'back'));
    for (const back of backs)
      for (const { loomId, wireId } of back)
        if (wireId !== null) users.set(`${loomId}/${wireId}`, (users.get(`${loomId}/${wireId}`) ?? 0) + 1);
    const shared = new Set([...users].filter(([, count]) => count > 1).map(([key]) => key));
    const tree: DropTree = { edges: [], keys: [], options: [], currentsA: [] };
    const known = new Map<string, number>();
    loads.forEach(({ id, steps, budgetV }, index) => {
      const isShared = ({ loomId, wireId }: PathStep) => wireId !== null && shared.has(`${loomId}/${wireId}`);
      const first = backs[index]!.findIndex(isShared);
      if (first === -1) return;
      // from the ground side: the last step first
      const common = backs[index]!.slice(first).reverse();
      const total = steps.reduce((sum, step) => sum + this.leastDrop(step), 0);
      const part = common.reduce((sum, step) => sum + this.leastDrop(step), 0);
      const share = total === 0 ? budgetV : (KEEP * budgetV * part) / total;
      this.addPath(tree, known, common, -1, share);
      // the grounds of a box share its current: all of them have to be as good
      for (const twin of this.context.twins.get(id) ?? [])
        this.addPath(tree, known, twin.filter(({ counts }) => counts).reverse(), -1, share);
    });
    this.settle(tree, copper);
    return shared;
  }

  private createSupplyTree(loads: readonly PlannedLoad[], shared: ReadonlySet<string>): DropTree {
    const tree: DropTree = { edges: [], keys: [], options: [], currentsA: [] };
    const known = new Map<string, number>();
    for (const { steps, budgetV } of loads) {
      // a little is kept back: the lengths of the bundles as built are not quite those of the draft
      const isShared = ({ way, loomId, wireId }: PathStep) => way === 'back' && wireId !== null && shared.has(`${loomId}/${wireId}`);
      const first = steps.findIndex(isShared);
      const own = first === -1 ? steps : steps.slice(0, first);
      const gone = first === -1 ? 0 : steps.slice(first).reduce((sum, step) => sum + this.leastDrop(step), 0);
      this.addPath(tree, known, own, -1, KEEP * budgetV - gone);
    }
    return tree;
  }

  /** Lay a load's way into a tree, source side first; wires that are there already are shared. */
  private addPath(tree: DropTree, known: Map<string, number>, steps: readonly PathStep[], start: number, budgetV: number): void {
    let parent = start;
    let fixedV = 0;
    let thickest = 0;
    for (const step of steps) {
      if (step.wireId === null) {
        fixedV += step.dropV;
        continue;
      }
      const key = `${step.loomId}/${step.wireId}`;
      const { wire } = this.context.wires.get(key)!;
      let index = known.get(key);
      if (index === undefined) {
        const options = this.optionsOf(step.loomId!, wire);
        index =
          tree.edges.push({
            parent,
            options: options.map((one) => ({ massG: this.toCopperG(wire, one), dropV: this.toDrop(key, one, step.currentA) })),
            fixedV,
            budgetV: null,
          }) - 1;
        tree.keys.push(key);
        tree.options.push(options);
        tree.currentsA.push(step.currentA);
        known.set(key, index);
      }
      thickest += fixedV + tree.edges[index]!.options.at(-1)!.dropV;
      fixedV = 0;
      parent = index;
    }
    thickest += fixedV;
    // a budget that no allowed conductor keeps asks for nothing: the check of the drop says so, copper would not mend it
    tree.edges.push({ parent, options: [{ massG: 0, dropV: 0 }], fixedV, budgetV: thickest > budgetV ? null : budgetV });
    tree.keys.push(null);
    tree.options.push([]);
    tree.currentsA.push(0);
  }

  /** Least copper of each tree by itself; one that keeps its budgets as it is needs no search. */
  private settle(tree: DropTree, copper: { massG: number; oneSizeMassG: number }): void {
    if (tree.edges.length === 0) return;
    copper.oneSizeMassG += this.measureOneSize(tree);
    for (const members of listTrees(tree)) {
      const part = toPart(tree, members);
      const chosen = keepsBudgets(part) ? null : chooseCopper(part);
      copper.massG += chosen?.massG ?? part.reduce((sum, { options }) => sum + options[0]!.massG, 0);
      chosen?.choices.forEach((option, at) => {
        const index = members[at]!;
        const key = tree.keys[index]!;
        if (key === null || option === 0) return;
        const { loomId, wire } = this.context.wires.get(key)!;
        this.ask(loomId, wire.id, {
          conductor: tree.options[index]![option]!,
          ruledBy: 'drop',
          because: `least copper in all that keeps every load behind it within its drop budget; ${toSizeWords(tree.options[index]![0]!)} would not`,
        });
      });
    }
  }

  /** Copper if all wires of each tree had one size, no thinner than their ends, heat and fuses have it: the rule of thumb. */
  private measureOneSize(tree: DropTree): number {
    const choices = tree.keys.map((key, index) => (key === null ? [] : this.listPlain(key, tree.currentsA[index]!)));
    const areas = [...new Set(choices.flatMap((options) => options.map(({ areaMm2 }) => areaMm2)))].sort((a, b) => a - b);
    let massG = 0;
    for (const members of listTrees(tree)) {
      const pick = (index: number, area: number) => choices[index]!.find(({ areaMm2 }) => areaMm2 >= area) ?? choices[index]!.at(-1);
      const fits = (area: number) => {
        const spent = new Map<number, number>();
        return members.every((index) => {
          const { parent, fixedV, budgetV } = tree.edges[index]!;
          const spentV = (spent.get(parent) ?? 0) + fixedV + (pick(index, area)?.dropV ?? 0);
          spent.set(index, spentV);
          return budgetV === null || spentV <= budgetV + 1e-9;
        });
      };
      const area = areas.find(fits) ?? areas.at(-1) ?? 0;
      massG += members.reduce((sum, index) => sum + (pick(index, area)?.massG ?? 0), 0);
    }
    return massG;
  }

  /** Conductors of a wire before any drop budget asked for more. */
  private listPlain(key: string, currentA: number): { areaMm2: number; massG: number; dropV: number }[] {
    const { loomId, wire } = this.context.wires.get(key)!;
    const { conductors } = this.context.sizes.get(loomId)!(wire);
    const demand = this.demands.get(loomId)?.get(wire.id);
    const floor = demand && demand.ruledBy !== 'drop' ? demand.conductor.areaMm2 : 0;
    const above = conductors.filter(({ areaMm2 }) => areaMm2 >= floor);
    return (above.length ? above : [conductors.at(-1)!]).map((one) => ({
      areaMm2: one.areaMm2,
      massG: this.toCopperG(wire, one),
      dropV: this.toDrop(key, one, currentA),
    }));
  }
}

/** Edges that hang together, by the one nearest to the source; in their order. */
function listTrees({ edges }: DropTree): number[][] {
  const trees = new Map<number, number[]>();
  const rootOf: number[] = [];
  edges.forEach(({ parent }, index) => {
    const root = parent === -1 ? index : rootOf[parent]!;
    rootOf[index] = root;
    const members = trees.get(root);
    if (members) members.push(index);
    else trees.set(root, [index]);
  });
  return [...trees.values()];
}

function toPart({ edges }: DropTree, members: readonly number[]): CopperEdge[] {
  const at = new Map(members.map((index, place) => [index, place]));
  return members.map((index) => {
    const { parent, options, fixedV, budgetV } = edges[index]!;
    return { parent: parent === -1 ? -1 : at.get(parent)!, options, fixedV, budgetV };
  });
}

/** Are all budgets kept with the thinnest that is allowed? */
function keepsBudgets(edges: readonly CopperEdge[]): boolean {
  const spent: number[] = [];
  return edges.every(({ parent, options, fixedV, budgetV }, index) => {
    spent[index] = (parent === -1 ? 0 : spent[parent]!) + fixedV + options[0]!.dropV;
    return budgetV === null || spent[index] <= budgetV;
  });
}
