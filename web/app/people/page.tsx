import { expectPerson } from '../../server/accounts/page';
import { listAudit, listDevices, listPeople } from '../../server/accounts/people';
import { PeopleStation } from '../../stations/accounts/PeopleStation';

export const dynamic = 'force-dynamic';

export default async function PeoplePage() {
  const person = await expectPerson('people');
  return <PeopleStation person={person} people={await listPeople()} devices={await listDevices()} audit={await listAudit()} />;
}
