import { and, asc, eq, lt } from 'drizzle-orm';
import { findStandard, isCheck, MILESTONE_STEP, type Job, type ShopStandard } from 'wattograph-core';
import { database } from '../database';
import { Refusal } from '../refusal';
import { floorEvents, type FloorEventRow } from '../schema';
import { readShopOf } from '../shop';

/** The shop's standard as a job goes by it. */
export const readStandardOf = async (job: Job): Promise<ShopStandard> => findStandard(job, (await readShopOf(job)).shop);

/** A check of a milestone is one that the shop asks for; it is ticked, or taken back, of the vehicle. Throws 422. */
export function expectCheckAsked(
  { milestoneChecks }: Pick<ShopStandard, 'milestoneChecks'>,
  { loomId, itemId, kind }: Pick<FloorEventRow, 'loomId' | 'itemId' | 'kind'>,
): void {
  const refuse = (message: string) => Refusal.at(422, `${MILESTONE_STEP} ${itemId}`, message);
  if (loomId !== '') throw refuse('a check is of the vehicle: expected no loom');
  if (kind !== 'tick' && kind !== 'untick') throw refuse('expected a tick, or one taken back');
  if (!isCheck(milestoneChecks, itemId)) throw refuse('expected a check of the shop’s milestones, got another');
}

export type CheckEvent = Pick<FloorEventRow, 'stepId' | 'itemId' | 'kind' | 'author'> & { happenedAt: string };

/** Checks ticked in revisions before one, in order: the vehicle is the same. */
export async function listEarlierChecks(jobId: string, release: number): Promise<CheckEvent[]> {
  const { stepId, itemId, kind, author, happenedAt } = floorEvents;
  const rows = await database()
    .select({ stepId, itemId, kind, author, happenedAt })
    .from(floorEvents)
    .where(and(eq(floorEvents.jobId, jobId), lt(floorEvents.release, release), eq(stepId, MILESTONE_STEP)))
    .orderBy(asc(floorEvents.serial));
  return rows.map((row) => ({ ...row, happenedAt: row.happenedAt.toISOString() }));
}
