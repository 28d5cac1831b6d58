import type { Catalogue } from '../catalogue';
import type { Job } from '../model';
import { findStandard, type LoomPlan } from '../plan';
import { listContinuity, type ContinuityRow } from './listContinuity';
import { listCuts, type CutGroup } from './listCuts';
import { listFillers, type FillerCut } from './listFillers';
import { listParts, type PartLine } from './listParts';
import { listSteps } from './listSteps';
import { orderSteps } from './orderSteps';
import { findIsolation, listIsolation, toPairId } from './prove/listIsolation';
import { listProvedNets } from './prove/listProvedNets';
import { ISOLATION, PAIRS, type ExpectedReading, type Step } from './step';
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
    steps: ordered.ok ? withReads(askAll(ordered.steps), listTestReads(job, plan, catalogue, continuity)) : [],
    continuity,
  };
}

/** What is read at a test, by item: of the whole loom, or of one end. */
function listTestReads(job: Job, plan: LoomPlan, catalogue: Catalogue, continuity: readonly ContinuityRow[]) {
  const loom = job.looms[plan.loomId]!;
  const { ends } = loom;
  const { megohm, volts } = findIsolation(loom, findStandard(job, catalogue));
  const nets = listProvedNets(job, plan, continuity);
  const isolated = listIsolation(nets, megohm).map(({ id, from, least }, at): ExpectedReading => ({
    ...{ id, unit: 'MΩ', least, most: null },
    words: `${nets[at]!.name}: ${ends[from.endId]!.name} · ${from.cavity} against all others at ${volts} V`,
  }));
  return (endId: string | null, itemId: string): ExpectedReading[] => {
    if (itemId === PAIRS) return listPairs(job, plan, listOfEnd(continuity, endId));
    return itemId === ISOLATION ? isolated : [];
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

/** Every pair of the continuity table is read at the test, at the test of an end those of that end; every net against all others. */
const withReads = (steps: readonly Step[], listReads: (endId: string | null, itemId: string) => ExpectedReading[]): Step[] =>
  steps.map((step) =>
    step.operation === 'test' ? { ...step, items: step.items.map((item) => ({ ...item, reads: listReads(step.endId, item.id) })) } : step,
  );

const listOfEnd = (rows: readonly ContinuityRow[], endId: string | null) =>
  endId === null ? rows : rows.filter(({ from, to }) => from.endId === endId || to.endId === endId);

function listPairs(job: Job, plan: Pick<LoomPlan, 'loomId'>, rows: readonly ContinuityRow[]): ExpectedReading[] {
  const { ends, circuits } = job.looms[plan.loomId]!;
  const place = ({ endId, cavity }: ContinuityRow['from']) => `${ends[endId]!.name} · ${cavity}`;
  return rows.map(({ circuitId, from, to, mostOhm, millivolts }) => ({
    id: toPairId(from, to),
    words: `${circuits[circuitId]!.name}: ${place(from)} → ${place(to)}${millivolts ? ` at ${millivolts.atA} A` : ''}`,
    unit: millivolts ? 'mV' : 'Ω',
    least: null,
    most: millivolts ? millivolts.mostMv : mostOhm,
  }));
}
