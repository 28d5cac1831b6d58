import { and, eq, isNotNull, isNull, lt, sql } from 'drizzle-orm';
import { record } from '../accounts/record';
import { database } from '../database';
import { hear } from '../listener';
import { removeStored } from '../photoStore';
import { Refusal } from '../refusal';
import { floorEvents, jobs, photos } from '../schema';
import { tell } from '../tell';
import { BIN_DAYS } from './binDays';

/** what is in the bin is asked anew so often beside being told */
const KNOWN_MS = 10_000;

let known: { ids: Promise<ReadonlySet<string>>; until: number } | null = null;
let isHearing = false;

/** Ids of the jobs in the bin. */
function listDeleted(): Promise<ReadonlySet<string>> {
  if (!isHearing) {
    isHearing = true;
    hear(({ topic }) => {
      if (topic === 'bin' || topic === 'again') known = null;
    });
  }
  if (known && known.until > Date.now()) return known.ids;
  const ids = database()
    .select({ id: jobs.id })
    .from(jobs)
    .where(isNotNull(jobs.deletedAt))
    .then((rows) => new Set(rows.map(({ id }) => id)));
  known = { ids, until: Date.now() + KNOWN_MS };
  ids.catch(() => (known = null));
  return ids;
}

export const isDeleted = async (id: string): Promise<boolean> => (await listDeleted()).has(id.toLowerCase());

/** Throws 410 where the job was deleted. */
export async function expectKept(id: string): Promise<void> {
  if (await isDeleted(id)) throw Refusal.at(410, '', 'This job was deleted. It can be brought back from the wall.');
}

/** Put a job in the bin, or bring it back from there. */
export async function setDeleted(id: string, isGone: boolean, by: string): Promise<void> {
  await database().transaction(async (tx) => {
    const [row] = await tx
      .update(jobs)
      .set(isGone ? { deletedAt: new Date(), deletedBy: by } : { deletedAt: null, deletedBy: null })
      .where(and(eq(jobs.id, id), isGone ? isNull(jobs.deletedAt) : isNotNull(jobs.deletedAt)))
      .returning({ name: jobs.name });
    if (!row) {
      const [there] = await tx.select({ id: jobs.id }).from(jobs).where(eq(jobs.id, id));
      // twice is as good as once
      if (there) return;
      throw Refusal.at(404, '', 'There is no such job.');
    }
    await record(tx, by, isGone ? 'deleted a job' : 'brought a job back', row.name ?? id);
    await tell(tx, { topic: 'bin' });
    await tell(tx, { topic: 'lines', id });
  });
  known = null;
}

/** Remove for good what has been in the bin for a month, with all that was stored of it. */
export async function emptyBin(): Promise<void> {
  const due = and(isNotNull(jobs.deletedAt), lt(jobs.deletedAt, sql`now() - make_interval(days => ${BIN_DAYS})`));
  for (const { id } of await database().select({ id: jobs.id }).from(jobs).where(due)) {
    const stored = await database().select({ id: photos.id }).from(photos).where(eq(photos.jobId, id));
    await database().transaction(async (tx) => {
      const [gone] = await tx
        .delete(jobs)
        .where(and(eq(jobs.id, id), due))
        .returning({ name: jobs.name, by: jobs.deletedBy });
      if (!gone) return;
      await tx.delete(floorEvents).where(eq(floorEvents.jobId, id));
      await record(tx, gone.by ?? '', 'deleted a job, a month is over: gone for good', gone.name ?? id);
    });
    for (const photo of stored) await removeStored(photo.id);
  }
}
