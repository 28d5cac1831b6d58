import type { ShopStandard } from '../catalogue';
import type { Job } from '../model';
import { createMemory } from '../units';
import { measureHeats } from './measureHeats';
import type { LoomFlow } from './power/listLoomFlows';
import type { LoomPlan, PlannedHeat } from './types';

/** Steady heat of each segment of a planned loom in one mode (calculations 4): what the plan keeps is the worst mode. mode: place in modeIds. */
export function measureModeHeats(
  job: Job,
  plan: LoomPlan,
  modeIds: readonly string[],
  mode: number,
  standard: ShopStandard,
): PlannedHeat[] {
  const places = new Map(plan.wires.map(({ id }, place) => [id, place]));
  const laid = plan.bundles.map((bundle) => ({
    id: bundle.segmentId,
    bundle,
    occupants: bundle.sections.map(({ elements }) => elements.flat().map((id) => places.get(id)!)),
  }));
  const flows = new Map(
    plan.currents.map(({ wireId, onA, heatA, designA, inrushA, guardIds }): [string, LoomFlow] => [
      wireId,
      { onA: [onA[mode] ?? 0], heatA: [heatA[mode] ?? 0], designA, inrushA, guardIds, isFused: false },
    ]),
  );
  const store = { warmed: createMemory<PlannedHeat | null>(1) };
  return measureHeats(job, plan.loomId, plan.wires, laid, plan.coverings, flows, [modeIds[mode]!], store, standard);
}
