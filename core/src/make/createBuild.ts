import type { Catalogue } from '../catalogue';
import { checkPlan, createFinding, type Finding } from '../check';
import type { Job } from '../model';
import type { JobPlan, LoomPlan } from '../plan';
import { listContinuity, type ContinuityRow } from './listContinuity';
import { listCuts, type CutGroup } from './listCuts';
import { listParts, type PartLine } from './listParts';
import { listSteps } from './listSteps';
import { orderSteps } from './orderSteps';
import type { Step } from './step';

/** Everything the shop needs to make one loom. steps is empty where no order can be built; a finding then says why. */
export interface LoomBuild {
  loomId: string;
  cuts: CutGroup[];
  parts: PartLine[];
  steps: Step[];
  continuity: ContinuityRow[];
}

/** Cut list, parts list, ordered steps and continuity table of one planned loom. */
export function createBuild(job: Job, plan: LoomPlan, catalogue: Catalogue): LoomBuild {
  const ordered = orderSteps(listSteps(job, plan, catalogue));
  return {
    loomId: plan.loomId,
    cuts: listCuts(plan),
    parts: listParts(job, plan, catalogue),
    steps: ordered.ok ? ordered.steps : [],
    continuity: listContinuity(job, plan, catalogue),
  };
}

/** All findings on a day (null: rules that need one say nothing): those of the plan, and BT1, stop, where the steps of a loom cannot be put in any order. */
export function listFindings(job: Job, plan: JobPlan, catalogue: Catalogue, today: string | null): Finding[] {
  const impossible = plan.looms.flatMap((loomPlan) => {
    const ordered = orderSteps(listSteps(job, loomPlan, catalogue));
    if (ordered.ok) return [];
    return [
      createFinding(
        { loomId: loomPlan.loomId },
        'BT1',
        'stop',
        ordered.ring.slice(0, 3).map(({ id }) => ({ kind: 'step', id })),
        `No order of work keeps all of these: ${ordered.ring.map(({ title }) => title.toLowerCase()).join(' → ')} → again.`,
      ),
    ];
  });
  return [...impossible, ...checkPlan(job, plan, catalogue, today)];
}
