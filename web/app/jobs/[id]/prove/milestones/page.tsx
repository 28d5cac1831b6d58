import { expectPerson, orNotFound } from '../../../../../server/accounts/page';
import { openMilestones } from '../../../../../server/jobs/openMilestones';
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
  const opened = await orNotFound(openMilestones(id, await searchParams));
  return <MilestonesStation person={person} jobId={id} {...opened} />;
}
