import type { Catalogue } from '../catalogue';
import { createChecker, createFinding, listLoomInputs, type Checker, type Finding } from '../check';
import type { Job } from '../model';
import type { JobPlan, LoomPlan } from '../plan';
import { createMemory } from '../units';
import { listSteps } from './listSteps';
import { orderSteps } from './orderSteps';

/**
 * Lists all findings on a day (null: rules that need one say nothing): those of the plan, and BT1, stop, where the steps of a loom cannot be
 * put in any order. What of a loom is as it was the time before is not looked at again.
 */
export function createInspector(catalogue: Catalogue): Checker {
  const check = createChecker(catalogue);
  const rings = createMemory<Finding[]>(2);
  return (job, plan, today) => [
    ...plan.looms.flatMap((loom) => rings(loom.loomId, listLoomInputs(job, loom), () => checkOrder(job, loom, catalogue))),
    ...check(job, plan, today),
  ];
}

/** All findings on a day, from nothing. */
export const listFindings = (job: Job, plan: JobPlan, catalogue: Catalogue, today: string | null): Finding[] =>
  createInspector(catalogue)(job, plan, today);

function checkOrder(job: Job, plan: LoomPlan, catalogue: Catalogue): Finding[] {
  const ordered = orderSteps(listSteps(job, plan, catalogue));
  if (ordered.ok) return [];
  return [
    createFinding(
      { loomId: plan.loomId },
      'BT1',
      ordered.ring.slice(0, 3).map(({ id }) => ({ kind: 'step', id })),
      `No order of work keeps all of these: ${ordered.ring.map(({ title }) => title.toLowerCase()).join(' → ')} → again.`,
    ),
  ];
}
