import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import type { LoomPlan } from '../plan';
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
