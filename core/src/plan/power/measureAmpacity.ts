import type { ShopStandard } from '../../catalogue';
import { findSurroundings, type Job, type Loom } from '../../model';
import { findHeatAllowed, findOwnHeatAllowed, type HeatStore } from '../heatStore';
import { COPPER_PER_K, listHottest } from '../measureHeat';
import { mostOf } from './currents';
import type { LoomFlow } from './listLoomFlows';
import type { Occupants } from '../measureBundles';
import type { PlannedBundle, PlannedCovering, PlannedHeat, SizedWire } from '../types';

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

/** Steady and short-time ampacity of every wire in its bundles and zones (calculations 5).
 * Of a draft the short-time one is looked for behind fuses only: a channel trips long before it. */
export function measureAmpacities(
  job: Job,
  loom: Loom,
  wires: readonly SizedWire[],
  bundles: readonly PlannedBundle[],
  coverings: readonly PlannedCovering[],
  occupants: Occupants,
  heats: readonly PlannedHeat[],
  flows: ReadonlyMap<string, LoomFlow>,
  isDraft: boolean,
  store: HeatStore,
  standard: ShopStandard,
): WireAmpacity[] {
  const known = wires.map(({ id, conductor }) => {
    const flow = flows.get(id);
    const heatA = flow ? mostOf(flow.heatA) : 0;
    return {
      squareA2: heatA * heatA,
      r20: conductor.r20MilliohmPerM,
      odMm: conductor.odMm,
      table: conductor.table,
      // what nothing protects needs no ampacity
      isGuarded: flow !== undefined && flow.guardIds.length > 0,
      isFused: flow?.isFused === true,
    };
  });
  const result = wires.map((): WireAmpacity => ({ steadyA: null, shortA: null, runningC: null, ownK: 0 }));
  const middle = new Map(heats.map((heat) => [heat.segmentId, heat.middleC]));
  const least = (one: number | null, now: number) => (one === null || now < one ? now : one);
  bundles.forEach(({ segmentId, sections, odMm }, index) => {
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return;
    const wallMm = coverings[index]!.odOutsideMm - odMm;
    const isTooHot = (table: SizedWire['conductor']['table']) => isZoneTooHot(ambientC, table, standard);
    sections.forEach((section, place) => {
      if (section.odMm === 0) return;
      const here = occupants[index]![place]!;
      let [limitC, shortC, runawayC, heat] = [Infinity, Infinity, Infinity, 0];
      let isFused = false;
      let isGuarded = false;
      for (const wire of here) {
        const one = known[wire]!;
        heat += one.squareA2 * one.r20;
        runawayC = min(runawayC, standard.insulationShortC[one.table]);
        // in a zone hotter than its insulation no size helps: that is a finding, and the run asks nothing of its size
        if (isTooHot(one.table)) continue;
        limitC = min(limitC, standard.insulationLimitC[one.table]);
        shortC = min(shortC, standard.insulationShortC[one.table]);
        isGuarded ||= one.isGuarded;
        isFused ||= one.isGuarded && one.isFused;
      }
      limitC -= standard.heatMarginK;
      const found = middle.get(segmentId);
      // past the limit of its insulation no resistance means anything any more
      const hottestC = found === null ? max(runawayC, ambientC) : (found ?? ambientC);
      // a draft that is too warm will be mended: its wires are taken to run at what the shop allows
      const middleC = isDraft ? min(hottestC, max(limitC, ambientC)) : hottestC;
      for (const wire of here) {
        const one = result[wire]!;
        if (one.runningC !== null && one.runningC >= middleC) continue;
        one.runningC = middleC;
        one.ownK = heat === 0 || found === null ? 0 : ((middleC - ambientC) * known[wire]!.squareA2 * known[wire]!.r20) / heat;
      }
      if (!isGuarded) return;
      const allowed = (atC: number) => {
        const outsideMm = section.odMm + wallMm;
        const watts = findHeatAllowed(store, atC, ambientC, section.odMm, outsideMm, standard.altitudeM);
        const warmer = (1 + COPPER_PER_K * (atC - 20)) / 1000;
        let loads: number[] | undefined;
        const listLoads = () => (loads ??= here.map((wire) => known[wire]!.squareA2 * known[wire]!.r20 * warmer));
        const owns: { wireMm: number; rest: number; own: number }[] = [];
        const findOwn = (wireMm: number, rest: number) => {
          const known = owns.find((one) => one.wireMm === wireMm && one.rest === rest);
          if (known) return known.own;
          const own = findOwnHeatAllowed(store, atC, ambientC, section.odMm, outsideMm, wireMm, rest, standard.altitudeM);
          owns.push({ wireMm, rest, own });
          return own;
        };
        return (place: number) => {
          const { r20, squareA2, odMm: wireMm } = known[here[place]!]!;
          const rest = (heat - squareA2 * r20) * warmer;
          // spread over the bundle, or by itself where it is one of the few that give most of the heat and that makes it warmer
          const spread = max(0, watts - rest);
          const isLocal = 2 * spread * log(section.odMm / wireMm) > watts;
          const own = isLocal ? findOwn(wireMm, rest) : spread;
          return sqrt((own < spread && isAmongHottest(own, listLoads(), place) ? own : spread) / (r20 * warmer));
        };
      };
      const steady = allowed(limitC);
      const short = isDraft && !isFused ? steady : allowed(shortC);
      here.forEach((wire, place) => {
        const one = known[wire]!;
        if (!one.isGuarded || isTooHot(one.table)) return;
        result[wire]!.steadyA = least(result[wire]!.steadyA, steady(place));
        result[wire]!.shortA = least(result[wire]!.shortA, short(place));
      });
    });
  });
  return result;
}

/** Is a zone hotter than an insulation stands, less the shop's margin? No conductor cures it (calculations 3). */
export const isZoneTooHot = (
  ambientC: number,
  table: SizedWire['conductor']['table'],
  { insulationLimitC, heatMarginK }: Pick<ShopStandard, 'insulationLimitC' | 'heatMarginK'>,
): boolean => ambientC > insulationLimitC[table] - heatMarginK;

/** With so much heat from one wire: is it one of the few that count by themselves? */
const isAmongHottest = (own: number, loads: readonly number[], place: number): boolean =>
  listHottest(loads.map((watts, at) => (at === place ? own : watts))).includes(place);
