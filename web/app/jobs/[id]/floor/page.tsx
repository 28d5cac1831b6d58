import { expectPerson, orNotFound } from '../../../../server/accounts/page';
import { listEarlierCrimps, openCrimping } from '../../../../server/jobs/openCrimping';
import { openTimes } from '../../../../server/jobs/openTimes';
import { openPack } from '../../../../server/jobs/openPack';
import { FloorStation } from '../../../../stations/floor/FloorStation';

export const dynamic = 'force-dynamic';

/** The floor works from a released revision: ?release= or the newest. */
export default async function FloorPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ release?: string; loom?: string; card?: string }>;
}) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const query = await searchParams;
  const opened = await orNotFound(open(id, query));
  return <FloorStation person={person} jobId={id} pack={opened.pack} events={opened.events} card={query.card?.slice(0, 120) ?? null} />;
}

async function open(id: string, query: { release?: string; loom?: string }) {
  const { pack, events } = await openPack(id, query);
  if (!pack) return { pack, events };
  const crimping = await openCrimping(id, pack, await listEarlierCrimps(id, pack.release));
  return { pack: { ...pack, crimping, times: await openTimes(pack) }, events };
}
