import type { Catalogue } from '../../catalogue';
import { findSurroundings, type Job, type Resin } from '../../model';
import { compareIds } from '../../units';
import { findStandard } from '../findStandard';
import { findLeg } from '../route/findLeg';
import type { LoomPlan } from '../types';
import { measureCure, measurePottingFill, measurePottingLoop, type PottingFill } from './measurePotting';

/** How the wires of one end are potted into their device. */
export interface PlannedPotting extends PottingFill {
  endId: string;
  resin: Resin;
  /** at the temperature of the workshop */
  cureH: number;
  potLifeMin: number;
  workshopC: number;
  /** behind the resin, after so much straight lead */
  straightMm: number;
  loopRadiusMm: number;
  loopMm: number;
  /** hottest there, °C; null: not known */
  ambientC: number | null;
  /** other potted ends of the loom with the same cavity and as many wires: their tails are taken for one another */
  twinIds: string[];
}

/** Ends with wires that are potted, in the order of their ids; one whose resin the shop does not have is left out (EN12 tells). */
export function planPottings(job: Job, plan: LoomPlan, catalogue: Catalogue): PlannedPotting[] {
  const loom = job.looms[plan.loomId]!;
  const potted = Object.keys(loom.ends)
    .sort(compareIds)
    .filter((id) => loom.ends[id]!.potting !== null && plan.terminations.some(({ endId }) => endId === id));
  if (potted.length === 0) return [];
  const standard = findStandard(job, catalogue);
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const wiresOf = (endId: string) => plan.terminations.filter((one) => one.endId === endId).flatMap(({ wireIds }) => wireIds);
  const looks = (endId: string) => {
    const { lengthMm, widthMm, depthMm } = loom.ends[endId]!.potting!;
    return [lengthMm, widthMm, depthMm, wiresOf(endId).length].join(' ');
  };
  return potted.flatMap((endId): PlannedPotting[] => {
    const potting = loom.ends[endId]!.potting!;
    const resin = catalogue.resins.find(({ id }) => id === potting.resinId);
    if (!resin) return [];
    const segmentId = findLeg(plan.tree, loom.ends[endId]!.nodeId);
    const odMm = plan.bundles.find((one) => one.segmentId === segmentId)?.odMm ?? 0;
    const loop = measurePottingLoop(odMm, standard.potLoopRatio);
    const ods = wiresOf(endId).map((id) => wires.get(id)!.conductor.odMm);
    return [
      {
        ...{ endId, resin, ...measurePottingFill(potting, ods, resin, standard.potWaste) },
        ...{ cureH: measureCure(resin, standard.workshopC), potLifeMin: resin.potLifeMin, workshopC: standard.workshopC },
        ...{ straightMm: standard.potStraightMm, loopRadiusMm: loop.radiusMm, loopMm: loop.lengthMm },
        ambientC: segmentId === null ? null : (findSurroundings(job.zones, loom.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null),
        twinIds: potted.filter((other) => other !== endId && looks(other) === looks(endId)),
      },
    ];
  });
}
