import { toSizeWords, type Conductor } from '../../../catalogue';
import { createKeeper, pushTo } from '../../../units';
import type { MinimumSize } from '../../size/chooseConductors';
import { COPPER_G_PER_MM2_M } from '../../heat/measureHeat';
import type { SizedLoom } from '../sizedLoom';
import type { SizingContext } from './chooseMinimumSizes';
import type { MinimumSizes } from './minimumSizes';
import { listHardest, type RatedLink } from '../protection/chooseProtections';
import type { DropBudget } from '../drop/dropBudget';
import type { BudgetGroup } from '../drop/listBudgets';
import { isZoneTooHot } from '../../heat/measureAmpacity';
import { explainFuse, isTrialBorne, measureTrialDrop, measureTrialMiddle } from '../drop/measureTrial';

/** Limits to be kept to in part: loads by name, runs by loom and segment, protections by id; all others may be used whole. */
export type TightLimits = ReadonlyMap<string, number>;

/** Sizes that were slimmed, and the copper of the wires that share drop budgets, g. */
export interface Slimmed {
  minimums: MinimumSizes;
  /** alikeG: of that, what alike devices cost that are wired alike */
  measureCopper: () => { massG: number; alikeG: number };
}

/** What asks for a size: the rule, in words that hold for the size as it is. */
type Blocker = Pick<MinimumSize, 'ruledBy' | 'because'>;

/**
 * Demands with every wire as thin as a rule still asks for, and the rule that governs it printed (calculations 3). Rounds of sizing only add
 * in the end, so some wires come out a size too thick; here each is tried one size thinner, the heaviest saving first, a bank as one, until
 * drop, heat or a fuse forbids it. tight: what came out over its limit when it was built so thin, with the share of the limit to keep to.
 */
export function slimMinimumSizes(context: SizingContext, before: MinimumSizes, tight: TightLimits): Slimmed {
  const slimmer = new Slimmer(context, before, tight);
  slimmer.slim();
  return { minimums: slimmer.listMinimums(before), measureCopper: () => slimmer.measureCopper() };
}

/** Copper of the wires that share drop budgets with these sizes, as they are. */
export const measureCopper = (context: SizingContext, minimums: MinimumSizes): ReturnType<Slimmed['measureCopper']> =>
  new Slimmer(context, minimums, NOT_TIGHT).measureCopper();

/** every limit may be used whole */
export const NOT_TIGHT: TightLimits = new Map();

interface WarmSection {
  edges: number[];
  odMm: number;
  wallMm: number;
  ambientC: number;
  /** over its zone in the worst mode, K; Infinity where it would run away */
  riseK: number;
  /** loom/segment */
  key: string;
}

/** One size thinner has at most so many times the resistance, and what that warms some more. */
const MOST_WARMER = 2.2;

class Slimmer {
  private readonly sizes = new Map<number, Conductor>();
  private readonly reasons = new Map<number, Blocker>();
  private readonly bankOf = new Map<number, readonly number[]>();
  /** budgets that a wire's drop counts for */
  private readonly budgetsOf = new Map<number, { group: BudgetGroup; budget: DropBudget; before: number }[]>();
  /** stretches that a wire lies in */
  private readonly sectionsOf = new Map<number, WarmSection[]>();
  private readonly guardsOf: ReturnType<typeof listHardest>;

  constructor(
    private readonly context: SizingContext,
    before: MinimumSizes,
    private readonly tight: TightLimits,
  ) {
    const { banks, edgeOf } = context;
    for (const [loomId, minimums] of before)
      for (const [wireId, minimum] of minimums) {
        const edge = edgeOf.get(loomId)!.get(wireId)!;
        this.sizes.set(edge, minimum.conductor);
        if (minimum.ruledBy === 'alike') this.reasons.set(edge, minimum);
      }
    for (const bank of banks) for (const edge of bank) this.bankOf.set(edge, bank);
    this.guardsOf = listHardest(context.protections, context.guarded);
    if (this.sizes.size === 0) return;
    this.listBudgetUses();
    this.listSectionUses();
  }

  slim(): void {
    const units = [...this.sizes.keys()].map((edge) => this.toUnit(edge));
    const seen = new Set<number>();
    const ordered = units
      .filter((unit) => !seen.has(unit[0]!) && seen.add(unit[0]!))
      .map((unit) => ({ unit, savedG: this.measureSaving(unit) }))
      .sort((a, b) => b.savedG - a.savedG || a.unit[0]! - b.unit[0]!);
    // what one gives up another may need: those that were let be are tried again as long as any gets thinner
    for (let isThinner = true; isThinner;) {
      isThinner = false;
      for (const { unit } of ordered) while (this.tryThinner(unit)) isThinner = true;
    }
  }

  listMinimums(before: MinimumSizes): MinimumSizes {
    const { wires } = this.context;
    const byLoom = new Map<string, Map<string, MinimumSize>>();
    for (const [edge, conductor] of [...this.sizes].sort(([a], [b]) => a - b)) {
      const { loomId, wire, range } = wires[edge]!;
      const reason = this.reasons.get(edge) ?? before.get(loomId)?.get(wire.id);
      if (conductor === range.conductors[0] || !reason) continue;
      const ofLoom = byLoom.get(loomId) ?? new Map<string, MinimumSize>();
      byLoom.set(loomId, ofLoom.set(wire.id, { conductor, ruledBy: reason.ruledBy, because: reason.because }));
    }
    return byLoom;
  }

  measureCopper() {
    const { budgets, wires } = this.context;
    let massG = 0;
    for (const group of budgets) for (const edge of new Set(group.edges)) massG += this.toCopperG(edge, this.sizeOf(edge));
    let alikeG = 0;
    for (const [edge, { ruledBy }] of this.reasons) {
      if (ruledBy !== 'alike') continue;
      const own = wires[edge]!.range.conductors.find(
        (one) => one.areaMm2 >= this.sizeOf(edge).areaMm2 || this.findBlocker(edge, one) === null,
      )!;
      alikeG += this.toCopperG(edge, this.sizeOf(edge)) - this.toCopperG(edge, own);
    }
    return { massG, alikeG };
  }

  /** A wire with those of its bank that are as thick. */
  private toUnit(edge: number): number[] {
    const bank = this.bankOf.get(edge);
    if (!bank) return [edge];
    const { areaMm2 } = this.sizeOf(edge);
    return bank.filter((one) => this.sizes.has(one) && this.sizeOf(one).areaMm2 === areaMm2);
  }

  private sizeOf(edge: number): Conductor {
    return this.sizes.get(edge) ?? this.context.wires[edge]!.wire.conductor;
  }

  private toThinner(edge: number): Conductor | undefined {
    const { conductors } = this.context.wires[edge]!.range;
    return conductors[conductors.indexOf(this.sizeOf(edge)) - 1];
  }

  private toCopperG = (edge: number, { areaMm2 }: Conductor) => (areaMm2 * this.context.wires[edge]!.lengthMm * COPPER_G_PER_MM2_M) / 1000;

  private measureSaving(unit: readonly number[]): number {
    return unit.reduce((sum, edge) => {
      const thinner = this.toThinner(edge);
      return sum + (thinner ? this.toCopperG(edge, this.sizeOf(edge)) - this.toCopperG(edge, thinner) : 0);
    }, 0);
  }

  /** Take one size off all wires of a unit where every rule lets it; else note what forbids it. */
  private tryThinner(unit: readonly number[]): boolean {
    const before = unit.map((edge) => this.sizeOf(edge));
    const thinner = unit.map((edge) => this.toThinner(edge));
    if (thinner.includes(undefined)) return false;
    unit.forEach((edge, index) => this.sizes.set(edge, thinner[index]!));
    const blockers = unit.map((edge, index) => this.findBlocker(edge, thinner[index]!));
    const at = blockers.findIndex((one) => one !== null);
    if (at === -1) return true;
    unit.forEach((edge, index) => this.sizes.set(edge, before[index]!));
    const first = blockers[at]!;
    unit.forEach((edge, index) =>
      this.reasons.set(
        edge,
        blockers[index] ?? { ruledBy: 'alike', because: `as the others of its bank, for one of them: ${first.because}` },
      ),
    );
    return false;
  }

  /** What forbids a wire to be so thin, all others as they are; null: nothing. */
  private findBlocker(edge: number, conductor: Conductor): Blocker | null {
    const kept = this.sizeOf(edge);
    this.sizes.set(edge, conductor);
    const found =
      this.findContact(edge, conductor) ??
      this.findDrop(edge, conductor) ??
      this.findWarmth(edge, conductor) ??
      this.findFuse(edge, conductor);
    this.sizes.set(edge, kept);
    return found;
  }

  private findContact(edge: number, { areaMm2 }: Conductor): Blocker | null {
    const floor = this.context.contactFloors.get(edge);
    return floor && areaMm2 < floor.conductor.areaMm2 ? floor : null;
  }

  private shareOf(key: string): number {
    return this.tight.get(key) ?? 1;
  }

  private findDrop(edge: number, conductor: Conductor): Blocker | null {
    for (const { group, budget, before } of this.budgetsOf.get(edge) ?? []) {
      const dropV = this.measureBudget(group, budget);
      // one that is over as it is may not get worse
      if (dropV <= Math.max(this.shareOf(budget.name) * budget.budgetV, before) + 1e-9) continue;
      const volts = `${dropV.toFixed(2)} V of its ${budget.budgetV.toFixed(2)} V${dropV <= budget.budgetV ? ', and more as built' : ''}`;
      return { ruledBy: 'drop', because: `with ${toSizeWords(conductor)} ${budget.name} would lose ${volts}` };
    }
    return null;
  }

  private findWarmth(edge: number, conductor: Conductor): Blocker | null {
    const { standard, wires } = this.context;
    const mostC = standard.insulationLimitC[conductor.table]! - standard.heatMarginK;
    if ((wires[edge]!.current.designA ?? 0) === 0) return null;
    for (const { edges, odMm, wallMm, ambientC, riseK, key } of this.sectionsOf.get(edge) ?? []) {
      // far from its limit a run need not be solved again
      if (isZoneTooHot(ambientC, conductor.table, standard) || ambientC + MOST_WARMER * riseK < mostC) continue;
      const toHere = (sizeOf: (one: number) => Conductor) => edges.map((one) => ({ netlistWire: wires[one]!, conductor: sizeOf(one) }));
      const middleC = measureTrialMiddle(
        toHere((one) => this.sizeOf(one)),
        { odMm },
        wallMm,
        ambientC,
        standard.altitudeM,
      );
      if (middleC !== null && middleC <= ambientC + this.shareOf(key) * (mostC - ambientC)) continue;
      const would = middleC === null ? 'heat up without end' : `reach ${middleC.toFixed(0)} °C`;
      return {
        ruledBy: 'heat',
        because: `with ${toSizeWords(conductor)} the middle of the bundle would ${would}; the shop keeps ${mostC} °C`,
      };
    }
    return null;
  }

  private findFuse(edge: number, conductor: Conductor): Blocker | null {
    const { wires, standard } = this.context;
    const isOver = (one: RatedLink) =>
      one.ratingA !== null && !isTrialBorne(wires[edge]!, conductor, { ...one, ratingA: one.ratingA / this.shareOf(one.id) }, standard);
    const guard = (this.guardsOf.get(edge) ?? []).find(isOver);
    if (!guard) return null;
    return { ruledBy: 'fuse', because: explainFuse(wires[edge]!, conductor, guard, standard) };
  }

  private measureBudget({ elements, currentsA }: BudgetGroup, budget: DropBudget): number {
    let dropV = budget.fixedV;
    for (const { edge, currentA } of budget.taken) dropV += measureTrialDrop(this.context.wires[edge]!, this.sizeOf(edge), currentA);
    for (const element of budget.elements) {
      let most = 0;
      for (const { edges, fixedV } of elements[element]!.ways) {
        let way = fixedV;
        for (const edge of edges) way += measureTrialDrop(this.context.wires[edge]!, this.sizeOf(edge), currentsA.get(edge)!);
        most = Math.max(most, way);
      }
      dropV += most;
    }
    return dropV;
  }

  private listBudgetUses(): void {
    for (const group of this.context.budgets)
      for (const budget of group.budgets) {
        const before = this.measureBudget(group, budget);
        for (const { edge } of budget.taken) if (this.sizes.has(edge)) pushTo(this.budgetsOf, edge, { group, budget, before });
        for (const element of budget.elements)
          for (const { edges } of group.elements[element]!.ways)
            for (const edge of edges) if (this.sizes.has(edge)) pushTo(this.budgetsOf, edge, { group, budget, before });
      }
  }

  private listSectionUses(): void {
    for (const loom of this.context.looms)
      for (const section of listWarmSections(loom, this.context))
        for (const edge of section.edges) if (this.sizes.has(edge)) pushTo(this.sectionsOf, edge, section);
  }
}

/** Sections of a loom, those apart that stay cool enough for any insulation whatever is thinned. */
function listWarmSections(loom: SizedLoom, { edgeOf, standard }: SizingContext): readonly WarmSection[] {
  const { loomId, heats, bundles, coverings } = loom;
  return remember(bundles, [heats, coverings, edgeOf, standard], () => {
    const edges = edgeOf.get(loomId)!;
    const coolC = Math.min(...Object.values(standard.insulationLimitC)) - standard.heatMarginK;
    const heatOf = new Map(heats.map((heat) => [heat.segmentId, heat]));
    return bundles.flatMap(({ segmentId, sections, odMm: widestMm }, index): WarmSection[] => {
      const heat = heatOf.get(segmentId);
      if (!heat || (heat.middleC !== null && heat.ambientC + MOST_WARMER * (heat.middleC - heat.ambientC) < coolC)) return [];
      const wallMm = coverings[index]!.odOutsideMm - widestMm;
      const riseK = heat.middleC === null ? Infinity : heat.middleC - heat.ambientC;
      return sections.flatMap(({ elements, odMm }) => {
        if (odMm === 0) return [];
        const here = elements.flat().map((id) => edges.get(id)!);
        return [{ edges: here, odMm, wallMm, ambientC: heat.ambientC, riseK, key: `${loomId}/${segmentId}` }];
      });
    });
  });
}

/** asked for with every slimming, of looms that mostly are as they were */
const remember = createKeeper<SizedLoom['bundles'], readonly WarmSection[]>();
