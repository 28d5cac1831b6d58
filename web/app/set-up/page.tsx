import { redirect } from 'next/navigation';
import { hasPeople } from '../../server/accounts/people';
import { SetUpStation } from '../../stations/accounts/SetUpStation';

export const dynamic = 'force-dynamic';

export default async function SetUpPage() {
  if (await hasPeople()) redirect('/sign-in');
  return <SetUpStation />;
}
