import { listJobSummaries } from '../server/jobSummaries';
import { listOpenProblems } from '../server/jobs/openProblems';
import { expectPerson } from '../server/accounts/page';
import { JobsStation } from '../stations/jobs/JobsStation';

export const dynamic = 'force-dynamic';

export default async function JobsPage() {
  const person = await expectPerson();
  const [jobs, problems] = await Promise.all([listJobSummaries(), listOpenProblems()]);
  return <JobsStation jobs={jobs} problems={problems} person={person} />;
}
