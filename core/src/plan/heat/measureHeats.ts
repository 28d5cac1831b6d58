import type { ShopStandard } from '../../catalogue';
import { findSurroundings, type Job } from '../../model';
import { createListStage, once, type Memo, type Stage } from '../../units';
import { listHottest, measureHeat, type HotWire } from './measureHeat';
import type { CarriedCurrent } from '../electrical/currents/listCarriedCurrents';
import type { LaidBundle } from '../bundle/measureBundles';
import type { PlannedCovering, PlannedHeat, SizedWire } from '../types';

// taken once: looked up for each sum they cost more than the sum
const { max } = Math;

/** What a wire gives to the bundles that it lies in. */
interface Source {
  /** by mode, W/m at 20 °C; null: next to nothing in any */
  watts: readonly number[] | null;
  odMm: number;
  isKnown: boolean;
  limitC: number;
}

/** What the bundles of a loom are warmed by. */
export interface HeatContext {
  job: Job;
  loomId: string;
  wires: readonly SizedWire[];
  laid: readonly LaidBundle[];
  coverings: readonly PlannedCovering[];
  flows: ReadonlyMap<string, CarriedCurrent>;
  modeIds: readonly string[];
  standard: ShopStandard;
  memo: Memo;
}

interface WarmContext {
  laid: LaidBundle;
  odOutsideMm: number;
  ambientC: number;
  context: HeatContext;
  sources: () => readonly Source[];
}

const WARM: Stage<WarmContext, PlannedHeat | null> = {
  name: 'warm',
  keep: 8,
  inputs: ({ laid, odOutsideMm, ambientC, context: { flows, standard, modeIds } }) => [
    ...[laid.content, odOutsideMm, ambientC, flows, standard],
    ...modeIds,
  ],
  run: ({ laid, odOutsideMm, ambientC, context: { modeIds, standard }, sources }) =>
    measureBundleHeat(laid, sources(), { ambientC, wallMm: odOutsideMm - laid.bundle.odMm, modeIds, standard }),
};

/** Steady heat of each segment whose ambient is known, at its hottest section and in its worst mode (calculations 4). */
export function measureHeats(context: HeatContext): readonly PlannedHeat[] {
  const { job, loomId, wires, coverings, flows, standard, memo } = context;
  const sources = once(() => wires.map((wire) => toSource(wire, flows.get(wire.id), standard)));
  const heats = context.laid.flatMap((laid, index): PlannedHeat[] => {
    const { segmentId, odMm } = laid.bundle;
    const ambientC = findSurroundings(job.zones, job.looms[loomId]!.segments[segmentId]!, standard.hotTickC)?.ambientC ?? null;
    if (ambientC === null || odMm === 0) return [];
    const heat = memo(WARM, laid.id, { laid, odOutsideMm: coverings[index]!.odOutsideMm, ambientC, context, sources });
    return heat ? [heat] : [];
  });
  return memo(HEATS, loomId, heats);
}

const HEATS = createListStage<PlannedHeat>('heats');

function toSource({ conductor }: SizedWire, flow: CarriedCurrent | undefined, standard: ShopStandard): Source {
  return {
    // most wires carry next to nothing: they have no sum to add to
    watts: flow && flow.designA !== 0 ? flow.heatA.map((currentA) => (currentA ** 2 * conductor.r20MilliohmPerM) / 1000) : null,
    odMm: conductor.odMm,
    isKnown: flow !== undefined && flow.designA !== null,
    limitC: standard.insulationLimitC[conductor.table]!,
  };
}

interface Place {
  ambientC: number;
  wallMm: number;
  modeIds: readonly string[];
  standard: ShopStandard;
}

/** Heat of the hottest section of a bundle; null where it has no wires. */
function measureBundleHeat(
  { bundle, occupants }: LaidBundle,
  sources: readonly Source[],
  { ambientC, wallMm, modeIds, standard }: Place,
): PlannedHeat | null {
  const listHotWires = (here: readonly number[], mode: number): HotWire[] => {
    const given = here.map((wire) => sources[wire]!.watts?.[mode] ?? 0);
    return listHottest(given).map((at) => ({ wattsPerMAt20: given[at]!, odMm: sources[here[at]!]!.odMm }));
  };
  let hottest: PlannedHeat | null = null;
  for (const [place, section] of bundle.sections.entries()) {
    if (section.odMm === 0) continue;
    const here = occupants[place]!;
    let watts: number[] | null = null;
    let limitC = Infinity;
    let uncounted = 0;
    for (const wire of here) {
      const one = sources[wire]!;
      if (one.watts) {
        watts ??= modeIds.map(() => 0);
        for (let mode = 0; mode < watts.length; mode += 1) watts[mode]! += one.watts[mode]!;
      }
      // where the zone alone is too much for an insulation the finding is that, not the bundle's heat
      if (one.limitC < limitC && ambientC <= one.limitC - standard.heatMarginK) limitC = one.limitC;
      if (!one.isKnown) uncounted += 1;
    }
    const most = watts?.length ? max(...watts) : 0;
    const mode = watts?.indexOf(most) ?? -1;
    const heat = measureHeat({
      ambientC,
      bundleMm: section.odMm,
      outsideMm: section.odMm + wallMm,
      wattsPerMAt20: most,
      hottest: most > 0 ? listHotWires(here, mode) : [],
      altitudeM: standard.altitudeM,
    });
    if (hottest && (hottest.middleC === null || (heat && heat.middleC <= hottest.middleC))) continue;
    hottest = {
      segmentId: bundle.segmentId,
      ambientC,
      modeId: most > 0 ? modeIds[mode]! : null,
      surfaceC: heat?.surfaceC ?? null,
      middleC: heat?.middleC ?? null,
      wattsPerM: heat?.wattsPerM ?? null,
      limitC: Number.isFinite(limitC) ? limitC : null,
      uncounted,
    };
  }
  return hottest;
}
