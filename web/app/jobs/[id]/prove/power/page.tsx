import { notFound } from 'next/navigation';
import { expectPerson } from '../../../../../server/accounts/page';
import { openPower } from '../../../../../server/jobs/openPower';
import { Refusal } from '../../../../../server/refusal';
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
  const opened = await openPower(id, await searchParams).catch((error: unknown) => {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  });
  if (!opened) notFound();
  return <FirstPowerStation person={person} jobId={id} {...opened} />;
}
