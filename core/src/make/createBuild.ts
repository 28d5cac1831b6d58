import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import type { LoomPlan } from '../plan';
import { listContinuity, type ContinuityRow } from './listContinuity';
import { listCuts, type CutGroup } from './listCuts';
import { listParts, type PartLine } from './listParts';
import { listSteps } from './listSteps';
import { orderSteps } from './orderSteps';
import type { Step } from './step';
import { toDigest } from './toDigest';

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
    steps: ordered.ok ? askAll(ordered.steps) : [],
    continuity: listContinuity(job, plan, catalogue),
  };
}

/** What a test or a signature asks for. */
export const ALL_WORK = 'the loom as built';

/** A test and a signature are about the loom as it was built: other work on it asks for them again. */
function askAll(steps: readonly Step[]): Step[] {
  const isOfAll = ({ operation }: Step) => operation === 'test' || operation === 'sign';
  const work = steps.flatMap(({ id, items }) => items.map((item) => [id, item.id, item.asks]));
  const asks = [{ what: ALL_WORK, value: toDigest(JSON.stringify(work)) }];
  return steps.map((step) => (isOfAll(step) ? { ...step, items: step.items.map((item) => ({ ...item, asks })) } : step));
}
