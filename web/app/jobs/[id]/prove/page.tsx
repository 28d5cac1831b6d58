import { createRingOut } from 'wattograph-core';
import { expectPerson, orNotFound } from '../../../../server/accounts/page';
import { openPack } from '../../../../server/jobs/openPack';
import { readShopOf } from '../../../../server/shop';
import { ProveStation } from '../../../../stations/prove/ProveStation';

export const dynamic = 'force-dynamic';

/** A loom is proved as a released revision says it is: ?release= or the newest. */
export default async function ProvePage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ release?: string; loom?: string }>;
}) {
  const { id } = await params;
  const person = await expectPerson('look', id);
  const opened = await orNotFound(open(id, await searchParams));
  return <ProveStation person={person} jobId={id} pack={opened.pack} events={opened.events} />;
}

async function open(id: string, query: { release?: string; loom?: string }) {
  const { pack, continuity, events } = await openPack(id, query);
  if (!pack) return { pack, events };
  const { board: _, needsSecond: __, ...bench } = pack;
  const { shop } = await readShopOf(pack.job);
  return { pack: { ...bench, ringOut: createRingOut(pack.job, shop, pack.plan, continuity) }, events };
}
