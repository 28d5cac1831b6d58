import type { ShopStandard } from '../catalogue';
import { findSurroundings, type Job, type Loom } from '../model';
import { measureHeat } from './measureHeat';
import type { PlannedBundle, PlannedCovering, PlannedHeat, SizedWire } from './types';

/** Steady heat of each segment whose ambient is known, at its hottest section, every circuit at its design current (calculations 4). */
export function measureHeats(
  job: Job,
  loom: Loom,
  wires: readonly SizedWire[],
  bundles: readonly PlannedBundle[],
  coverings: readonly PlannedCovering[],
  standard: ShopStandard,
): PlannedHeat[] {
  const sources = new Map(
    wires.map(({ id, circuitId, conductor }) => {
      const { currentA } = loom.circuits[circuitId]!;
      return [
        id,
        {
          watts: currentA === null ? null : (currentA ** 2 * conductor.r20MilliohmPerM) / 1000,
          limitC: standard.insulationLimitC[conductor.table],
        },
      ];
    }),
  );
  return bundles.flatMap(({ segmentId, sections, odMm }, index): PlannedHeat[] => {
    const ambientC = findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return [];
    const wallMm = coverings[index]!.odOutsideMm - odMm;
    let hottest: PlannedHeat | null = null;
    for (const section of sections) {
      if (section.odMm === 0) continue;
      const here = section.elements.flat().map((id) => sources.get(id)!);
      const heat = measureHeat({
        ambientC,
        bundleMm: section.odMm,
        outsideMm: section.odMm + wallMm,
        wattsPerMAt20: here.reduce((sum, { watts }) => sum + (watts ?? 0), 0),
        altitudeM: standard.altitudeM,
      });
      if (hottest && (hottest.middleC === null || (heat && heat.middleC <= hottest.middleC))) continue;
      hottest = {
        segmentId,
        ambientC,
        surfaceC: heat?.surfaceC ?? null,
        middleC: heat?.middleC ?? null,
        wattsPerM: heat?.wattsPerM ?? null,
        limitC: here.length ? Math.min(...here.map(({ limitC }) => limitC)) : null,
        uncounted: here.filter(({ watts }) => watts === null).length,
      };
    }
    return hottest ? [hottest] : [];
  });
}
