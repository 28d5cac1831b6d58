import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import type { LoomPlan } from '../plan';
import { listContinuity, type ContinuityRow } from './listContinuity';
import { listCuts, type CutGroup } from './listCuts';
import { listFillers, type FillerCut } from './listFillers';
import { listParts, type PartLine } from './listParts';
import { listSteps } from './listSteps';
import { orderSteps } from './orderSteps';
import { PAIRS, type ExpectedReading, type Step } from './step';
import { toDigest } from './toDigest';

/** Everything the shop needs to make one loom. steps is empty where no order can be built; a finding then says why. */
export interface LoomBuild {
  loomId: string;
  cuts: CutGroup[];
  /** dead wire of the lay-up */
  fillers: FillerCut[];
  parts: PartLine[];
  steps: Step[];
  continuity: ContinuityRow[];
}

/** Cut list, parts list, ordered steps and continuity table of one planned loom. */
export function createBuild(job: Job, plan: LoomPlan, catalogue: Catalogue): LoomBuild {
  const ordered = orderSteps(listSteps(job, plan, catalogue));
  const continuity = listContinuity(job, plan, catalogue);
  return {
    loomId: plan.loomId,
    cuts: listCuts(plan),
    fillers: listFillers(plan),
    parts: listParts(job, plan, catalogue),
    steps: ordered.ok ? withContinuity(askAll(ordered.steps), (endId) => listPairs(job, plan, listOfEnd(continuity, endId))) : [],
    continuity,
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

/** Every pair of the continuity table is read at the test; at the test of an end, those of that end. */
const withContinuity = (steps: readonly Step[], listReads: (endId: string | null) => ExpectedReading[]): Step[] =>
  steps.map((step) => {
    if (step.operation !== 'test') return step;
    const reads = listReads(step.endId);
    return { ...step, items: step.items.map((item) => (item.id === PAIRS ? { ...item, reads } : item)) };
  });

const listOfEnd = (rows: readonly ContinuityRow[], endId: string | null) =>
  endId === null ? rows : rows.filter(({ from, to }) => from.endId === endId || to.endId === endId);

function listPairs(job: Job, plan: Pick<LoomPlan, 'loomId'>, rows: readonly ContinuityRow[]): ExpectedReading[] {
  const { ends, circuits } = job.looms[plan.loomId]!;
  const place = ({ endId, cavity }: ContinuityRow['from']) => `${ends[endId]!.name} · ${cavity}`;
  return rows.map(({ circuitId, from, to, mostOhm, millivolts }) => ({
    id: `${from.endId} ${from.cavity} ${to.endId} ${to.cavity}`,
    words: `${circuits[circuitId]!.name}: ${place(from)} → ${place(to)}${millivolts ? ` at ${millivolts.atA} A` : ''}`,
    unit: millivolts ? 'mV' : 'Ω',
    least: null,
    most: millivolts ? millivolts.mostMv : mostOhm,
  }));
}
