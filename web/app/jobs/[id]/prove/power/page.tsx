import { expectPerson, orNotFound } from '../../../../../server/accounts/page';
import { openPower } from '../../../../../server/jobs/openPower';
import { FirstPowerStation } from '../../../../../stations/firstPower/FirstPowerStation';

export const dynamic = 'force-dynamic';

/** A vehicle gets power for the first time, as a released revision says: ?release= or the newest. */
export default async function FirstPowerPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ release?: string }>;
}) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const opened = await orNotFound(openPower(id, await searchParams));
  return <FirstPowerStation person={person} jobId={id} {...opened} />;
}
