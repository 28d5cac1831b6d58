import type { InlinePart, Job } from '../../model';
import { toPinKey } from '../../netlist';
import type { PlannedNet, PowerPlan } from '../../plan';

/** The net at every wired pin, by loom/end/cavity. */
export function listNetsAt(job: Job, { nets }: Pick<PowerPlan, 'nets'>): ReadonlyMap<string, PlannedNet> {
  const netAt = new Map<string, PlannedNet>();
  for (const net of nets)
    for (const { loomId, circuitId } of net.circuits)
      for (const { endId, cavity } of job.looms[loomId]!.circuits[circuitId]!.terminations)
        netAt.set(toPinKey({ loomId, endId, cavity }), net);
  return netAt;
}

/**
 * What a resistor gives off between its nets, W, and their volts: V² / R (Joule). Null: its value, or the volts of a net, are not known or
 * change.
 */
export function measurePartHeat(
  job: Job,
  netAt: ReadonlyMap<string, PlannedNet>,
  { at, ohms }: InlinePart,
): { watts: number; volts: [number, number] } | null {
  const [one, other] = at.cavities.map((cavity) => {
    const net = netAt.get(toPinKey({ ...at, cavity }));
    return net && toVolts(job, net);
  });
  if (ohms === null || one === undefined || other === undefined) return null;
  return { watts: (one - other) ** 2 / ohms, volts: [one, other] };
}

/** Volts of a net, the source's own where it hangs on that; undefined: they change, or are not known. */
function toVolts({ source }: Job, { kind, volts }: PlannedNet): number | undefined {
  if (kind === 'power-ground' || kind === 'sensor-ground') return 0;
  if (volts === null) return undefined;
  return Math.abs(volts - source.volts) <= 1 ? source.volts : volts;
}
