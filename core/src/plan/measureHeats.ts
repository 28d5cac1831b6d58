import type { ShopStandard } from '../catalogue';
import { findSurroundings, type Job, type Loom } from '../model';
import { findHeat, type HeatStore } from './heatStore';
import { listHottest, type HotWire } from './measureHeat';
import type { LoomFlow } from './power/listLoomFlows';
import { isZoneTooHot } from './power/measureAmpacity';
import type { Occupants } from './measureBundles';
import type { PlannedBundle, PlannedCovering, PlannedHeat, SizedWire } from './types';

// taken once: looked up for each sum they cost more than the sum
const { max } = Math;

/** Steady heat of each segment whose ambient is known, at its hottest section and in its worst mode (calculations 4). */
export function measureHeats(
  job: Job,
  loom: Loom,
  wires: readonly SizedWire[],
  bundles: readonly PlannedBundle[],
  coverings: readonly PlannedCovering[],
  occupants: Occupants,
  flows: ReadonlyMap<string, LoomFlow>,
  modeIds: readonly string[],
  store: HeatStore,
  standard: ShopStandard,
): PlannedHeat[] {
  const sources = wires.map(({ id, conductor }) => {
    const flow = flows.get(id);
    return {
      // most wires carry next to nothing: they have no sum to add to
      watts: flow && flow.designA !== 0 ? flow.heatA.map((currentA) => (currentA ** 2 * conductor.r20MilliohmPerM) / 1000) : null,
      odMm: conductor.odMm,
      table: conductor.table,
      isKnown: flow !== undefined && flow.designA !== null,
      limitC: standard.insulationLimitC[conductor.table],
    };
  });
  const listHotWires = (here: readonly number[], mode: number): HotWire[] => {
    const given = here.map((wire) => sources[wire]!.watts?.[mode] ?? 0);
    return listHottest(given).map((at) => ({ wattsPerMAt20: given[at]!, odMm: sources[here[at]!]!.odMm }));
  };
  return bundles.flatMap(({ segmentId, sections, odMm }, index): PlannedHeat[] => {
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return [];
    const wallMm = coverings[index]!.odOutsideMm - odMm;
    let hottest: PlannedHeat | null = null;
    for (const [place, section] of sections.entries()) {
      if (section.odMm === 0) continue;
      const here = occupants[index]![place]!;
      const watts = modeIds.map(() => 0);
      let limitC = Infinity;
      let uncounted = 0;
      for (const wire of here) {
        const one = sources[wire]!;
        if (one.watts) for (let mode = 0; mode < watts.length; mode += 1) watts[mode]! += one.watts[mode]!;
        // where the zone alone is too much for an insulation the finding is that, not the bundle's heat
        if (one.limitC < limitC && !isZoneTooHot(ambientC, one.table, standard)) limitC = one.limitC;
        if (!one.isKnown) uncounted += 1;
      }
      const most = watts.length ? max(...watts) : 0;
      const mode = watts.indexOf(most);
      const heat = findHeat(store, {
        ambientC,
        bundleMm: section.odMm,
        outsideMm: section.odMm + wallMm,
        wattsPerMAt20: most,
        hottest: most > 0 ? listHotWires(here, mode) : [],
        altitudeM: standard.altitudeM,
      });
      if (hottest && (hottest.middleC === null || (heat && heat.middleC <= hottest.middleC))) continue;
      hottest = {
        segmentId,
        ambientC,
        modeId: most > 0 ? modeIds[mode]! : null,
        surfaceC: heat?.surfaceC ?? null,
        middleC: heat?.middleC ?? null,
        wattsPerM: heat?.wattsPerM ?? null,
        limitC: Number.isFinite(limitC) ? limitC : null,
        uncounted,
      };
    }
    return hottest ? [hottest] : [];
  });
}
