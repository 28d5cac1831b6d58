import type { ShopStandard } from '../../catalogue';
import type { Job } from '../../model';
import { createMemo } from '../../units';
import { measureHeats } from './measureHeats';
import type { CarriedCurrent } from '../electrical/currents/listCarriedCurrents';
import type { LoomPlan, PlannedHeat } from '../types';

/** Steady heat of each segment of a planned loom in one mode (calculations 4): what the plan keeps is the worst mode. mode: place in modeIds. */
export function measureModeHeats(
  job: Job,
  plan: LoomPlan,
  modeIds: readonly string[],
  mode: number,
  standard: ShopStandard,
): readonly PlannedHeat[] {
  const places = new Map(plan.wires.map(({ id }, place) => [id, place]));
  const laid = plan.bundles.map((bundle) => ({
    id: bundle.segmentId,
    bundle,
    content: bundle,
    occupants: bundle.sections.map(({ elements }) => elements.flat().map((id) => places.get(id)!)),
  }));
  const flows = new Map(
    plan.currents.map(({ wireId, onA, heatA, designA, inrushA, guardIds }): [string, CarriedCurrent] => [
      wireId,
      { onA: [onA[mode] ?? 0], heatA: [heatA[mode] ?? 0], designA, inrushA, guardIds, isFused: false },
    ]),
  );
  const { loomId, wires, coverings } = plan;
  return measureHeats({ job, loomId, wires, laid, coverings, flows, modeIds: [modeIds[mode]!], standard, memo: createMemo() });
}
