import { notFound } from 'next/navigation';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { readJob } from '../../../../server/documents';
import { Refusal } from '../../../../server/refusal';
import { listFloorEvents, listReleases, readRelease } from '../../../../server/releases';
import { toJobId } from '../../../../server/requests';
import { FloorStation } from '../../../../stations/floor/FloorStation';

export const dynamic = 'force-dynamic';

/** The floor works from a released revision: ?release= or the newest. */
export default async function FloorPage({
  params,
  searchParams,
}: {
  params: Promise<{ id: string }>;
  searchParams: Promise<{ release?: string; loom?: string }>;
}) {
  const { id } = await params;
  const opened = await open(id, await searchParams).catch((error: unknown) => {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  });
  if (!opened) notFound();
  return <FloorStation jobId={id} pack={opened.pack} events={opened.events} />;
}

async function open(id: string, query: { release?: string; loom?: string }) {
  const jobId = toJobId(id);
  await readJob(jobId, '');
  const releases = await listReleases(jobId);
  const newest = releases.at(-1)?.number;
  const number = query.release ? Number(query.release) : newest;
  if (number === undefined || newest === undefined) return { pack: null, events: [] };
  const { document } = await readRelease(jobId, number);
  const planned = plan(document, CATALOGUE).looms;
  const loomPlan = planned.find(({ loomId }) => loomId === query.loom) ?? planned.find(({ wires }) => wires.length > 0) ?? planned[0]!;
  const { steps } = createBuild(document, loomPlan, CATALOGUE);
  return { pack: { release: number, newest, job: document, plan: loomPlan, steps }, events: await listFloorEvents(jobId, number) };
}
