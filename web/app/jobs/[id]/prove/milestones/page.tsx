import { notFound } from 'next/navigation';
import { expectPerson } from '../../../../../server/accounts/page';
import { openMilestones } from '../../../../../server/jobs/openMilestones';
import { Refusal } from '../../../../../server/refusal';
import { MilestonesStation } from '../../../../../stations/milestones/MilestonesStation';

export const dynamic = 'force-dynamic';

/** What is left until the vehicle starts, moves and goes, by a released revision: ?release= or the newest. */
export default async function MilestonesPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ release?: string }>;
}) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const opened = await openMilestones(id, await searchParams).catch((error: unknown) => {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  });
  if (!opened) notFound();
  return <MilestonesStation person={person} jobId={id} {...opened} />;
}
