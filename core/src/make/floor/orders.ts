import type { Job } from '../../model';
import type { LoomPlan } from '../../plan';
import { readLane } from './lanes';
import type { Work } from './listWork';

/** Schools of which work comes next where several could (craft D1). */
export const WORK_ORDERS = ['operation', 'system', 'branch', 'outwards', 'inwards', 'largest'] as const;
export type WorkOrder = (typeof WORK_ORDERS)[number];

export const isWorkOrder = (words: string | undefined): words is WorkOrder =>
  (WORK_ORDERS as readonly (string | undefined)[]).includes(words);

export const ORDER_WORDS: Readonly<Record<WorkOrder, string>> = {
  operation: 'by operation',
  system: 'by subsystem',
  branch: 'branch by branch',
  outwards: 'anchor outwards',
  inwards: 'sensors inwards',
  largest: 'largest plug first',
};

type Ordered = Pick<LoomPlan, 'loomId' | 'tree' | 'terminations'>;

/** Of what all else is made: undoing, cutting, twisting. */
const FIRST = -Infinity;
/** of several at once: the trunk, a run to devices of several systems */
const SHARED = -1;

/**
 * The same work in another order: what has to come first still does, for only what is ready is taken. Within a lane, and where a school says
 * nothing, the order stays as it was.
 */
export function orderWork(work: readonly Work[], order: WorkOrder, job: Job, plan: Ordered): Work[] {
  if (order === 'operation') return [...work];
  const rankOf = RANKS[order](job, plan);
  const known = new Map<string | null, number>();
  const rank = (lane: string | null): number => {
    const at = known.get(lane) ?? (lane === null || lane.startsWith('post ') ? FIRST : rankOf(readLane(lane)));
    known.set(lane, at);
    return at;
  };
  return work
    .map((one, index) => ({ one, index, at: rank(one.lane) }))
    .sort((a, b) => (a.at === b.at ? a.index - b.index : a.at - b.at))
    .map(({ one }) => one);
}

type Lane = ReturnType<typeof readLane>;
type Ranks = (job: Job, plan: Ordered) => (lane: Lane) => number;

const RANKS: Record<Exclude<WorkOrder, 'operation'>, Ranks> = {
  system: rankBySystem,
  branch: rankByBranch,
  outwards: (job, plan) => (lane) => measureDistance(job, plan, lane),
  inwards: (job, plan) => (lane) => -measureDistance(job, plan, lane),
  // runs have no plug
  largest: (_, { terminations }) => {
    const sizes = new Map<string, number>();
    for (const { endId } of terminations) sizes.set(endId, (sizes.get(endId) ?? 0) + 1);
    return ({ kind, id }) => (kind === 'end' ? -(sizes.get(id) ?? 0) : 0);
  },
};

/** From the datum to an end, or to where a run begins, mm. */
function measureDistance({ looms }: Job, { loomId, tree }: Ordered, { kind, id }: Lane): number {
  if (kind === 'run') return tree.segments[id]?.startMm ?? 0;
  const nodeId = looms[loomId]!.ends[id]?.nodeId;
  return (nodeId === undefined ? undefined : tree.nodes[nodeId]?.distanceMm) ?? 0;
}

/** In the order in which the job lists its systems. A run belongs to the system of all that lies beyond it, where that is one. */
function rankBySystem(job: Job, { loomId, tree }: Ordered): (lane: Lane) => number {
  const { ends } = job.looms[loomId]!;
  const systemOf = new Map<string, string>();
  for (const { at, system } of Object.values(job.devices)) if (at?.loomId === loomId) systemOf.set(at.endId, system);
  const places = new Map([...new Set(Object.values(job.devices).map(({ system }) => system))].map((system, at) => [system, at]));
  const placeOf = (endId: string): number => places.get(systemOf.get(endId) ?? '') ?? SHARED;
  const beyond = new Map<string, Set<number>>();
  for (const [endId, { nodeId }] of Object.entries(ends))
    for (const segmentId of listWayIn(tree, nodeId))
      beyond.set(segmentId, (beyond.get(segmentId) ?? new Set<number>()).add(placeOf(endId)));
  return ({ kind, id }) => {
    if (kind === 'end') return placeOf(id);
    const here = [...(beyond.get(id) ?? [])];
    return here.length === 1 ? here[0]! : SHARED;
  };
}

/** Branch after branch, from the datum on: a branch begins where a run leaves the bundle that goes on. The trunk first. */
function rankByBranch(job: Job, { loomId, tree }: Ordered): (lane: Lane) => number {
  const { ends } = job.looms[loomId]!;
  const starts = Object.values(tree.segments)
    .filter(({ onward }) => !onward)
    .sort((a, b) => a.startMm - b.startMm || (a.id < b.id ? -1 : 1));
  const places = new Map(starts.map(({ id }, at) => [id, at]));
  const placeOf = (segmentIds: readonly string[]): number => {
    // from the datum: the first run that leaves the trunk
    const first = [...segmentIds].reverse().find((id) => places.has(id));
    return first === undefined ? SHARED : places.get(first)!;
  };
  return ({ kind, id }) => {
    if (kind === 'end') return placeOf(listWayIn(tree, ends[id]?.nodeId));
    const segment = tree.segments[id];
    return segment ? placeOf([id, ...listWayIn(tree, segment.nearNodeId)]) : SHARED;
  };
}

/** Runs from a node to the datum. */
function listWayIn({ nodes }: Ordered['tree'], nodeId: string | null | undefined): string[] {
  const way: string[] = [];
  for (let at = nodeId ? nodes[nodeId] : undefined; at?.parentSegmentId; at = at.parentNodeId ? nodes[at.parentNodeId] : undefined)
    way.push(at.parentSegmentId);
  return way;
}
