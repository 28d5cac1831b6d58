import { listJobSummaries } from '../server/jobSummaries';
import { listOpenProblems } from '../server/jobs/openProblems';
import { expectPerson } from '../server/accounts/page';
import { readShop } from '../server/shop';
import { JobsStation } from '../stations/jobs/JobsStation';

export const dynamic = 'force-dynamic';

export default async function JobsPage() {
  const person = await expectPerson();
  const [jobs, problems, { shop }] = await Promise.all([listJobSummaries(), listOpenProblems(), readShop()]);
  const { zones, modes, sources } = shop;
  const styles = Object.values(shop.standards).map(({ id, name }) => ({ id, name }));
  return <JobsStation jobs={jobs} problems={problems} begins={{ styles, zones, modes, sources }} person={person} />;
}
