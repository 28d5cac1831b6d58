import type { Catalogue } from '../../catalogue';
import { findSurroundings, isOffered, type Clip, type Job } from '../../model';
import { findStandard } from '../findStandard';
import type { LoomPlan } from '../types';
import { findFree, spreadClips } from './spreadClips';

/** What holds one run to the vehicle. */
export interface PlannedClips {
  segmentId: string;
  everyMm: number;
  /** where the pitch comes from: a zone, or the shop */
  because: string;
  /** where they lie was chosen by hand */
  isByHand: boolean;
  /** mm from where the run begins, nearest to the datum first */
  atMm: number[];
  item: Clip | null;
  /** hottest there, °C, which the clip stands; null: not known, and no clip is left out for it */
  ambientC: number | null;
  /**
   * why no clip is named: the shop has none that holds so thick a bundle, or none that stands what there is; of those chosen by hand: some lie
   * beyond the run, or too far apart
   */
  problem: 'no-size' | 'too-hot' | 'beyond' | 'too-far' | null;
  /** the longest that hangs free between clips chosen by hand, with what is asked there, mm; null: none is too long */
  free: { fromMm: number; toMm: number; mostMm: number } | null;
}

/** Clips of every run that has wires, in the order of the coverings; none where the shop has no clips. */
export function planClips(job: Job, plan: LoomPlan, catalogue: Catalogue): PlannedClips[] {
  if (catalogue.clips.length === 0) return [];
  const loom = job.looms[plan.loomId]!;
  const standard = findStandard(job, catalogue);
  const offered = catalogue.clips.filter(({ id }) => isOffered(catalogue, 'clips', id));
  const bare = new Set(plan.bundles.flatMap(({ segmentId, odMm }) => (odMm > 0 ? [] : [segmentId])));
  return plan.coverings.flatMap(({ segmentId, odOutsideMm }): PlannedClips[] => {
    if (bare.has(segmentId)) return [];
    const { nearNodeId, lengthMm } = plan.tree.segments[segmentId]!;
    const segment = loom.segments[segmentId]!;
    const around = findSurroundings(job.zones, segment, standard.hotTickC);
    const zone = segment.zoneId === null ? undefined : job.zones[segment.zoneId];
    const everyMm = zone?.clipEveryMm ?? standard.clipEveryMm;
    const isHeldNear = loom.nodes[nearNodeId]!.kind !== 'breakout';
    const run = { lengthMm, everyMm, firstMm: standard.clipFirstMm, isHeldNear, moves: around?.flexing ?? false };
    const chosen = segment.clipsAtMm;
    const atMm = chosen === null ? spreadClips(run) : chosen.filter((mm) => mm <= lengthMm).sort((a, b) => a - b);
    const free = chosen === null ? null : findFree(run, atMm);
    const because = zone && zone.clipEveryMm !== null ? zone.name : standard.name;
    const holding = offered.filter(({ leastMm, mostMm }) => leastMm <= odOutsideMm && odOutsideMm <= mostMm);
    const ambientC = around?.ambientC ?? null;
    const item = holding.find(({ limitC }) => ambientC === null || limitC >= ambientC) ?? null;
    const placed = chosen !== null && atMm.length < chosen.length ? 'beyond' : free ? 'too-far' : null;
    const problem = item || atMm.length === 0 ? placed : holding.length === 0 ? 'no-size' : 'too-hot';
    const isByHand = chosen !== null;
    return [{ segmentId, everyMm, because, isByHand, atMm, item: atMm.length === 0 ? null : item, ambientC, problem, free }];
  });
}
