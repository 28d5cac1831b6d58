import { expectPerson } from '../../server/accounts/page';
import { listAudit, listDevices, listPeople } from '../../server/accounts/people';
import { listJobNames } from '../../server/jobSummaries';
import { PeopleStation } from '../../stations/accounts/PeopleStation';

export const dynamic = 'force-dynamic';

export default async function PeoplePage() {
  const person = await expectPerson('people');
  const jobs = await listJobNames();
  return <PeopleStation person={person} people={await listPeople()} jobs={jobs} devices={await listDevices()} audit={await listAudit()} />;
}
