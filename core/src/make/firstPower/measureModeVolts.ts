import type { Catalogue } from '../../catalogue';
import type { Job } from '../../model';
import { toPinKey } from '../../netlist';
import type { JobPlan } from '../../plan';
import { standIn } from './listVoltTests';
import { createPowerContext } from './powerContext';

/** Volts at every pin on the feed side in a mode, all boxes in their places, cold, against battery negative; a pin that is not fed is left out. */
export function measureModeVolts(job: Job, planned: JobPlan, catalogue: Catalogue, modeId: string): Map<string, number> {
  const context = createPowerContext(job, planned, catalogue);
  const { volts } = standIn(context, modeId).potentials;
  return new Map(
    context.netlist.nodes.flatMap(({ pins }, node) =>
      Number.isNaN(volts[node]!) ? [] : pins.map((pin) => [toPinKey(pin), volts[node]!] as const),
    ),
  );
}
