import type { ShopStandard } from '../../catalogue';
import { findSurroundings, type Job, type Loom } from '../../model';
import { findHeatAllowed, type HeatStore } from '../heatStore';
import { COPPER_PER_K } from '../measureHeat';
import type { LoomFlow } from './createPower';
import type { Occupants } from '../measureBundles';
import type { PlannedBundle, PlannedCovering, PlannedHeat, SizedWire } from '../types';

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
    const designA = flow?.designA ?? 0;
    return {
      squareA2: designA * designA,
      r20: conductor.r20MilliohmPerM,
      table: conductor.table,
      // what nothing protects needs no ampacity
      isGuarded: flow !== undefined && flow.protectionId !== null,
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
    sections.forEach((section, place) => {
      if (section.odMm === 0) return;
      const here = occupants[index]![place]!;
      let [limitC, shortC, heat] = [Infinity, Infinity, 0];
      let isFused = false;
      let isGuarded = false;
      for (const wire of here) {
        const one = known[wire]!;
        limitC = Math.min(limitC, standard.insulationLimitC[one.table]);
        shortC = Math.min(shortC, standard.insulationShortC[one.table]);
        heat += one.squareA2 * one.r20;
        isGuarded ||= one.isGuarded;
        isFused ||= one.isGuarded && one.isFused;
      }
      limitC -= standard.heatMarginK;
      const found = middle.get(segmentId);
      // past the limit of its insulation no resistance means anything any more
      const hottestC = found === null ? Math.max(shortC, ambientC) : (found ?? ambientC);
      // a draft that is too warm will be mended: its wires are taken to run at what the shop allows
      const middleC = isDraft ? Math.min(hottestC, Math.max(limitC, ambientC)) : hottestC;
      for (const wire of here) {
        const one = result[wire]!;
        if (one.runningC !== null && one.runningC >= middleC) continue;
        one.runningC = middleC;
        one.ownK = heat === 0 || found === null ? 0 : ((middleC - ambientC) * known[wire]!.squareA2 * known[wire]!.r20) / heat;
      }
      if (!isGuarded) return;
      const allowed = (atC: number) => {
        const watts = findHeatAllowed(store, atC, ambientC, section.odMm, section.odMm + wallMm, standard.altitudeM);
        const warmer = (1 + COPPER_PER_K * (atC - 20)) / 1000;
        return ({ squareA2, r20 }: (typeof known)[number]) =>
          Math.sqrt(Math.max(0, watts - (heat - squareA2 * r20) * warmer) / (r20 * warmer));
      };
      const steady = allowed(limitC);
      const short = isDraft && !isFused ? steady : allowed(shortC);
      for (const wire of here) {
        const one = known[wire]!;
        if (!one.isGuarded) continue;
        result[wire]!.steadyA = least(result[wire]!.steadyA, steady(one));
        result[wire]!.shortA = least(result[wire]!.shortA, short(one));
      }
    });
  });
  return result;
}
