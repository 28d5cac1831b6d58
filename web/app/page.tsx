import { listJobSummaries } from '../server/jobSummaries';
import { expectPerson } from '../server/accounts/page';
import { JobsStation } from '../stations/jobs/JobsStation';

export const dynamic = 'force-dynamic';

export default async function JobsPage() {
  const person = await expectPerson();
  return <JobsStation jobs={await listJobSummaries()} person={person} />;
}
