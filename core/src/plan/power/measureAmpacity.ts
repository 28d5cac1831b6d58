import type { ShopStandard } from '../../catalogue';
import { findSurroundings, type Job, type Loom } from '../../model';
import { findHeatAllowed, type HeatStore } from '../heatStore';
import { COPPER_PER_K } from '../measureHeat';
import type { LoomFlow } from './planPower';
import type { PlannedBundle, PlannedCovering, PlannedHeat, SizedWire } from '../types';

/** What a wire may carry for good, and how warm it gets. Null: no zone of its runs is known, nothing is said. */
export interface WireAmpacity {
  /** brings the middle of its hottest bundle to the shop's limit, what else lies there at its design current; A */
  steadyA: number | null;
  /** the same for the short-time limit of its insulation, A */
  shortA: number | null;
  /** hottest middle that it passes at design currents, °C */
  runningC: number | null;
}

/** Steady and short-time ampacity of every wire in its bundles and zones (calculations 5).
 * Of a draft the short-time one is looked for behind fuses only: a channel trips long before it. */
export function measureAmpacities(
  job: Job,
  loom: Loom,
  wires: readonly SizedWire[],
  bundles: readonly PlannedBundle[],
  coverings: readonly PlannedCovering[],
  heats: readonly PlannedHeat[],
  flows: ReadonlyMap<string, LoomFlow>,
  isDraft: boolean,
  store: HeatStore,
  standard: ShopStandard,
): Map<string, WireAmpacity> {
  const designA = (wireId: string) => flows.get(wireId)?.designA ?? 0;
  const isGuarded = ({ id }: SizedWire) => (flows.get(id)?.protectionId ?? null) !== null;
  const byId = new Map(wires.map((wire) => [wire.id, wire]));
  const result = new Map<string, WireAmpacity>(wires.map(({ id }) => [id, { steadyA: null, shortA: null, runningC: null }]));
  const middle = new Map(heats.map((heat) => [heat.segmentId, heat.middleC ?? Infinity]));
  bundles.forEach(({ segmentId, sections, odMm }, index) => {
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return;
    const wallMm = coverings[index]!.odOutsideMm - odMm;
    for (const section of sections) {
      if (section.odMm === 0) continue;
      const here = section.elements.flat().map((id) => byId.get(id)!);
      const allowed = (limitC: number) => {
        const watts = findHeatAllowed(store, limitC, ambientC, section.odMm, section.odMm + wallMm, standard.altitudeM);
        const perAmpere = (wire: SizedWire) => (wire.conductor.r20MilliohmPerM / 1000) * (1 + COPPER_PER_K * (limitC - 20));
        const others = here.reduce((sum, wire) => sum + designA(wire.id) ** 2 * perAmpere(wire), 0);
        return (wire: SizedWire) => Math.sqrt(Math.max(0, watts - others + designA(wire.id) ** 2 * perAmpere(wire)) / perAmpere(wire));
      };
      for (const wire of here) {
        const one = result.get(wire.id)!;
        one.runningC = Math.max(one.runningC ?? -Infinity, middle.get(segmentId) ?? ambientC);
      }
      // what nothing protects needs no ampacity
      const guarded = here.filter(isGuarded);
      if (guarded.length === 0) continue;
      const tables = new Set(here.map(({ conductor }) => conductor.table));
      const limitC = Math.min(...[...tables].map((table) => standard.insulationLimitC[table])) - standard.heatMarginK;
      const shortC = Math.min(...[...tables].map((table) => standard.insulationShortC[table]));
      const steady = allowed(limitC);
      const isLetOff = isDraft && !guarded.some(({ id }) => flows.get(id)!.isFused);
      const short = isLetOff ? steady : allowed(shortC);
      for (const wire of guarded) {
        const one = result.get(wire.id)!;
        const least = (known: number | null, now: number) => (known === null ? now : Math.min(known, now));
        one.steadyA = least(one.steadyA, steady(wire));
        one.shortA = least(one.shortA, short(wire));
      }
    }
  });
  return result;
}
