import type { Job } from '../../model';
import type { JobPlan } from '../../plan';
import { createFinding } from '../createFinding';
import type { Finding } from '../types';

/** MA1, stop: the same wire number twice in one job. */
export function checkWireNumbers(job: Job, plan: JobPlan): Finding[] {
  const first = new Map<string, string>();
  return plan.looms.flatMap(({ loomId, wires }) =>
    wires.flatMap(({ id, number }) => {
      const other = first.get(number);
      if (other === undefined) {
        first.set(number, loomId);
        return [];
      }
      const where = other === loomId ? `loom ${job.looms[loomId]!.name}` : `looms ${job.looms[other]!.name} and ${job.looms[loomId]!.name}`;
      return [
        createFinding({ loomId }, 'MA1', [{ kind: 'wire', id }], `Wire number ${number} is given twice in ${where}.`, {
          measured: 2,
          limit: 1,
        }),
      ];
    }),
  );
}
