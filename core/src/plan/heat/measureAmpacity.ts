import type { ShopStandard } from '../../catalogue';
import { findSurroundings } from '../../model';
import { once, type Stage } from '../../units';
import type { HeatContext } from './measureHeats';
import type { LaidBundle } from '../bundle/measureBundles';
import { COPPER_PER_K, createHottest } from './measureHeat';
import { createHeatedBundle, measureHeatAllowed, measureOwnHeatAllowed, type HeatedBundle } from './measureHeatAllowed';
import type { PlannedHeat, Section, SizedWire } from '../types';
import { mostOf } from '../electrical/currents/currents';
import type { CarriedCurrent } from '../electrical/currents/listCarriedCurrents';

// taken once: looked up for each sum they cost more than the sum
const { log, max, min, sqrt } = Math;

/** What a wire may carry for good, and how warm it gets. Null: no zone of its runs is known, nothing is said. */
export interface WireAmpacity {
  /** brings the middle of its hottest bundle to the shop's limit, what else lies there at its design current; A */
  steadyA: number | null;
  /** the same for the short-time limit of its insulation, A */
  shortA: number | null;
  /** hottest middle that it passes in the worst mode, °C; in a bundle that would run away, where its weakest insulation is harmed */
  runningC: number | null;
  /** part of its rise above the zone there that it makes itself, K */
  ownK: number;
}

/** The same of each of the wires in one section. */
export interface SectionAmpacity {
  wires: readonly number[];
  middleC: number;
  /** null: none makes any heat that counts */
  ownK: readonly number[] | null;
  /** of those that something protects and whose zone their insulation stands; null: of none */
  limits: { wires: readonly number[]; steadyA: readonly number[]; shortA: readonly number[] } | null;
}

interface LoadContext {
  laid: LaidBundle;
  odOutsideMm: number;
  place: Place;
  flows: HeatContext['flows'];
  loads: () => readonly Load[];
}

const LOAD: Stage<LoadContext, SectionAmpacity[]> = {
  name: 'load',
  keep: 8,
  inputs: ({ laid, odOutsideMm, place: { ambientC, hottestC, isDraft, standard }, flows }) => [
    ...[laid.content, odOutsideMm, ambientC, hottestC, flows, isDraft, standard],
  ],
  run: ({ laid: { bundle, occupants }, place, loads }) =>
    bundle.sections.flatMap((section, index) => (section.odMm === 0 ? [] : [measureSection(section, occupants[index]!, loads(), place)])),
};

/**
 * Steady and short-time ampacity of every wire in its bundles and zones (calculations 5). Of a draft the short-time one is looked for
 * behind fuses only: a channel trips long before it.
 */
export function measureAmpacities(context: HeatContext, heats: readonly PlannedHeat[], isDraft: boolean): readonly WireAmpacity[] {
  const { job, loomId, wires, coverings, flows, standard, memo } = context;
  const loads = once(() => wires.map((wire) => toLoad(wire, flows.get(wire.id), standard)));
  const middle = new Map(heats.map((heat) => [heat.segmentId, heat.middleC]));
  const sections = context.laid.flatMap((laid, index): readonly SectionAmpacity[] => {
    const { segmentId, odMm } = laid.bundle;
    const ambientC = findSurroundings(job.zones, job.looms[loomId]!.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return [];
    const { odOutsideMm } = coverings[index]!;
    const place = { ambientC, wallMm: odOutsideMm - odMm, hottestC: middle.get(segmentId), isDraft, standard };
    return memo(LOAD, laid.id, { laid, odOutsideMm, place, flows, loads });
  });
  return memo(LEAST, loomId, { count: wires.length, sections });
}

/** Of each wire the least that any of its sections lets it carry. */
const LEAST: Stage<{ count: number; sections: readonly SectionAmpacity[] }, readonly WireAmpacity[]> = {
  name: 'least',
  keep: 8,
  inputs: ({ count, sections }) => [count, ...sections],
  run: ({ count, sections }) => {
    const result = Array.from({ length: count }, (): WireAmpacity => ({ steadyA: null, shortA: null, runningC: null, ownK: 0 }));
    for (const section of sections) addSection(result, section);
    return result;
  },
};

/** The least of what a wire may carry, and the most that it gets to, with one section more. */
function addSection(result: readonly WireAmpacity[], { wires, middleC, ownK, limits }: SectionAmpacity): void {
  wires.forEach((wire, place) => {
    const one = result[wire]!;
    if (one.runningC === null || one.runningC < middleC) {
      one.runningC = middleC;
      one.ownK = ownK ? ownK[place]! : 0;
    }
  });
  limits?.wires.forEach((wire, place) => {
    const one = result[wire]!;
    const steadyA = limits.steadyA[place]!;
    const shortA = limits.shortA[place]!;
    if (one.steadyA === null || steadyA < one.steadyA) one.steadyA = steadyA;
    if (one.shortA === null || shortA < one.shortA) one.shortA = shortA;
  });
}

/** A wire as its bundles see it. */
interface Load {
  conductor: SizedWire['conductor'];
  /** heat at 20 °C in its worst mode, A² mΩ/m */
  given: number;
  r20: number;
  odMm: number;
  /** for good and for a short time, of its insulation, °C */
  limitC: number;
  shortC: number;
  isGuarded: boolean;
  isFused: boolean;
}

function toLoad({ conductor }: SizedWire, flow: CarriedCurrent | undefined, standard: ShopStandard): Load {
  const heatA = flow ? mostOf(flow.heatA) : 0;
  return {
    conductor,
    given: heatA * heatA * conductor.r20MilliohmPerM,
    r20: conductor.r20MilliohmPerM,
    odMm: conductor.odMm,
    limitC: standard.insulationLimitC[conductor.table]!,
    shortC: standard.insulationShortC[conductor.table]!,
    // what nothing protects needs no ampacity
    isGuarded: flow !== undefined && flow.guardIds.length > 0,
    isFused: flow?.isFused === true,
  };
}

interface Place {
  ambientC: number;
  wallMm: number;
  /** middle of the bundle in its worst mode; null: it would run away; undefined: not known */
  hottestC: number | null | undefined;
  isDraft: boolean;
  standard: ShopStandard;
}

function measureSection(section: Section, wires: readonly number[], known: readonly Load[], place: Place): SectionAmpacity {
  const { ambientC, wallMm, hottestC: found, isDraft, standard } = place;
  let [limitC, shortC, runawayC, heat] = [Infinity, Infinity, Infinity, 0];
  let isFused = false;
  /** places of what something protects */
  const guarded: number[] = [];
  // in a zone hotter than its insulation no size helps: that is a finding, and the run asks nothing of its size
  const { heatMarginK } = standard;
  for (let at = 0; at < wires.length; at += 1) {
    const one = known[wires[at]!]!;
    heat += one.given;
    if (one.shortC < runawayC) runawayC = one.shortC;
    if (ambientC > one.limitC - heatMarginK) continue;
    if (one.limitC < limitC) limitC = one.limitC;
    if (one.shortC < shortC) shortC = one.shortC;
    if (!one.isGuarded) continue;
    guarded.push(at);
    isFused ||= one.isFused;
  }
  limitC -= heatMarginK;
  // past the limit of its insulation no resistance means anything any more
  const hottestC = found === null ? max(runawayC, ambientC) : (found ?? ambientC);
  // a draft that is too warm will be mended: its wires are taken to run at what the shop allows
  const middleC = isDraft ? min(hottestC, max(limitC, ambientC)) : hottestC;
  const ownK = heat === 0 || found === null ? null : wires.map((wire) => ((middleC - ambientC) * known[wire]!.given) / heat);
  if (guarded.length === 0) return { wires, middleC, ownK, limits: null };
  const hottest = createHottest(wires.map((wire) => known[wire]!.given));
  const bundle = { ...createHeatedBundle(ambientC, section.odMm, section.odMm + wallMm, standard.altitudeM), heat };
  const steady = createAllowed(limitC, bundle, hottest);
  const short = isDraft && !isFused ? null : createAllowed(shortC, bundle, hottest);
  const measure = (allowed: typeof steady) => guarded.map((at) => allowed(known[wires[at]!]!, at));
  const steadyA = measure(steady);
  return { wires, middleC, ownK, limits: { wires: guarded.map((at) => wires[at]!), steadyA, shortA: short ? measure(short) : steadyA } };
}

interface LoadedBundle extends HeatedBundle {
  /** of all wires, A² mΩ/m */
  heat: number;
}

/** What brings the middle of a bundle, or the wire alone, to a temperature; A. */
function createAllowed(
  atC: number,
  { heat, ...bundle }: LoadedBundle,
  isHottestWith: ReturnType<typeof createHottest>,
): (wire: Load, at: number) => number {
  const watts = measureHeatAllowed(atC, bundle);
  const warmer = (1 + COPPER_PER_K * (atC - 20)) / 1000;
  const owns: { wireMm: number; rest: number; own: number }[] = [];
  const findOwn = (wireMm: number, rest: number) => {
    const known = owns.find((one) => one.wireMm === wireMm && one.rest === rest);
    if (known) return known.own;
    const own = measureOwnHeatAllowed(atC, bundle, wireMm, rest);
    owns.push({ wireMm, rest, own });
    return own;
  };
  const measure = ({ r20, given, odMm }: Load, at: number) => {
    const rest = (heat - given) * warmer;
    // spread over the bundle, or by itself where it is one of the few that give most of the heat and that makes it warmer
    const spread = max(0, watts - rest);
    const isLocal = 2 * spread * log(bundle.bundleMm / odMm) > watts;
    const own = isLocal ? findOwn(odMm, rest) : spread;
    return sqrt((own < spread && isHottestWith(at, own / warmer) ? own : spread) / (r20 * warmer));
  };
  // those of one kind that give no heat are all alike
  const cold = new Map<Load['conductor'], number>();
  return (one, at) => {
    if (one.given !== 0) return measure(one, at);
    const known = cold.get(one.conductor);
    if (known !== undefined) return known;
    const allowed = measure(one, at);
    cold.set(one.conductor, allowed);
    return allowed;
  };
}

/** Is a zone hotter than an insulation stands, less the shop's margin? No conductor cures it (calculations 3). */
export const isZoneTooHot = (
  ambientC: number,
  table: SizedWire['conductor']['table'],
  { insulationLimitC, heatMarginK }: Pick<ShopStandard, 'insulationLimitC' | 'heatMarginK'>,
): boolean => ambientC > insulationLimitC[table]! - heatMarginK;
