import type { Catalogue } from '../catalogue';
import { createChecker, createFinding, listLoomInputs, type Checker, type Finding } from '../check';
import type { Job, Loom } from '../model';
import { isHeldFromCutting, listSlid, type JobPlan, type LoomPlan } from '../plan';
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
  const orders = createMemory<boolean>(6);
  return (job, plan, today) => [
    ...plan.looms.flatMap((loom) =>
      rings(loom.loomId, listLoomInputs(job, loom), () => {
        const isKnown = orders(loom.loomId, listOrderInputs(job, loom), () => orderSteps(listSteps(job, toMostWork(loom), catalogue)).ok);
        return isKnown ? [] : checkOrder(job, loom, catalogue);
      }),
    ),
    ...check(job, plan, today),
  ];
}

/** All findings on a day, from nothing. */
export const listFindings = (job: Job, plan: JobPlan, catalogue: Catalogue, today: string | null): Finding[] =>
  createInspector(catalogue)(job, plan, today);

/**
 * A loom of which every wire that is not fitted is cut rough and trimmed later, as it may be after any edit of a length: what can be put in
 * an order with that work can be without it.
 */
const toMostWork = (plan: LoomPlan): LoomPlan => ({
  ...plan,
  wires: plan.wires.map((wire) => (wire.unfittedIds.length === 0 ? wire : { ...wire, roughMm: wire.cutMm + 1 })),
});

/** All that decides whether the steps of a loom can be put in an order: what has to be before what, not how long it is. */
function listOrderInputs(job: Job, plan: LoomPlan): unknown[] {
  const { circuits, ends, nodes, segments } = job.looms[plan.loomId]!;
  return [circuits, ends, nodes, job.families, ...listOrderShape(segments, plan)];
}

function listOrderShape(
  segments: Loom['segments'],
  { wires, terminations, coverings, splices, endDress, breakoutDress, feeds, screens }: LoomPlan,
): unknown[] {
  const words: unknown[] = [];
  for (const { id, circuitId, conductor, cable, heldBy, unfittedIds } of wires)
    words.push(id, circuitId, conductor, cable?.groupId ?? null, isHeldFromCutting({ heldBy }), unfittedIds.length > 0);
  // of what is planned by its inputs the same list says the same
  words.push(terminations, feeds, screens);
  for (const { segmentId, kind } of coverings) words.push(segmentId, kind);
  for (const { endId, segmentId, pieces, parking } of endDress)
    words.push(endId, segmentId, pieces.length > 0, listSlid(pieces).length > 0, parking.order);
  for (const { nodeId, pieces, legSegmentIds } of breakoutDress)
    words.push(nodeId, pieces.length > 0, listSlid(pieces).length > 0, ...legSegmentIds);
  for (const { id, place } of splices) words.push(id, place.segmentId);
  for (const [id, { fromNodeId, toNodeId, slideOn, fittedMm }] of Object.entries(segments))
    words.push(id, fromNodeId, toNodeId, slideOn, fittedMm === null);
  return words;
}

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
