import type { Job } from '../../model';
import { compareIds, type Stage } from '../../units';
import type { JobContext } from '../stages';
import type { LoomPlan } from '../types';
import { measureTaken, planFeeds } from './planFeeds';

interface SharedContext {
  context: Pick<JobContext, 'job' | 'catalogue' | 'standard'>;
  plan: LoomPlan;
  /** hole → mm of it that looms take which are led through before */
  taken: ReadonlyMap<string, number>;
}

/** The feeds of a loom that shares a hole with another: they hang on the same as without it, and on what is through already. */
const SHARE: Stage<SharedContext, LoomPlan['feeds']> = {
  name: 'share',
  keep: 4,
  inputs: ({ plan, taken }) => [plan.feeds, [...taken].join(';')],
  run: ({ context: { job, catalogue, standard }, plan, taken }) =>
    planFeeds({ job, loom: job.looms[plan.loomId]!, plan, catalogue, standard, taken }),
};

/** The loom with those: the same object as long as it and they are. */
const SHARED: Stage<{ plan: LoomPlan; feeds: LoomPlan['feeds'] }, LoomPlan> = {
  name: 'shared',
  keep: 2,
  inputs: ({ plan, feeds }) => [plan, feeds],
  run: ({ plan, feeds }) => ({ ...plan, feeds }),
};

/**
 * Looms that go through one hole one after another (craft I2): whose hole it is first, then the others in the order of their ids. Each has what
 * is through already beside it. A hole that is said to be one that is not there is one by itself.
 */
export function shareHoles(context: JobContext, plans: readonly LoomPlan[]): LoomPlan[] {
  const sharing = listSharing(context.job);
  if (sharing.length === 0) return [...plans];
  const takenOf = new Map<string, Map<string, number>>();
  const through = new Map<string, number>();
  for (const { loomId, nodeId, beside } of sharing) {
    const hole = `${beside.loomId} ${beside.nodeId}`;
    const first = plans.find((one) => one.loomId === beside.loomId)!;
    const before = through.get(hole) ?? measureTaken(first, beside.nodeId);
    const own = plans.find((one) => one.loomId === loomId)!;
    takenOf.set(loomId, (takenOf.get(loomId) ?? new Map<string, number>()).set(nodeId, before));
    through.set(hole, before + measureTaken(own, nodeId));
  }
  return plans.map((plan) => {
    const taken = takenOf.get(plan.loomId);
    if (!taken) return plan;
    const { memo } = context.store;
    return memo(SHARED, plan.loomId, { plan, feeds: memo(SHARE, plan.loomId, { context, plan, taken }) });
  });
}

/** Holes that are said to be one of another loom, which is there and has one of its own; by loom and node. */
export function listSharing({ looms }: Pick<Job, 'looms'>) {
  return Object.keys(looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(looms[loomId]!.nodes)
        .sort(compareIds)
        .flatMap((nodeId) => {
          const { beside, holeMm } = looms[loomId]!.nodes[nodeId]!;
          if (beside === null || holeMm === null || beside.loomId === loomId) return [];
          const first = looms[beside.loomId]?.nodes[beside.nodeId];
          return first && first.holeMm !== null && first.beside === null ? [{ loomId, nodeId, beside }] : [];
        }),
    );
}
