import { notFound } from 'next/navigation';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { Refusal } from '../../../../server/refusal';
import { listFloorEvents, listReleases, readRelease } from '../../../../server/releases';
import { toJobId } from '../../../../server/requests';
import { FloorStation } from '../../../../stations/floor/FloorStation';

export const dynamic = 'force-dynamic';

/** The floor works from a released revision: ?release= or the newest. */
export default async function FloorPage({ params, searchParams }: { params: Promise<{ id: string }>; searchParams: Promise<{ release?: string; loom?: string }> }) {
  const { id } = await params;
  const query = await searchParams;
  try {
    const jobId = toJobId(id);
    const releases = await listReleases(jobId);
    const number = query.release ? Number(query.release) : releases.at(-1)?.number;
    if (number === undefined) return <FloorStation jobId={jobId} pack={null} events={[]} />;
    const { document } = await readRelease(jobId, number);
    const planned = plan(document, CATALOGUE).looms;
    const loomPlan = planned.find(({ loomId }) => loomId === query.loom) ?? planned.find(({ wires }) => wires.length > 0) ?? planned[0]!;
    const build = createBuild(document, loomPlan, CATALOGUE);
    return <FloorStation jobId={jobId} pack={{ release: number, newest: releases.at(-1)!.number, job: document, plan: loomPlan, steps: build.steps }} events={await listFloorEvents(jobId, number)} />;
  } catch (error) {
    if (error instanceof Refusal && error.status === 404) notFound();
    throw error;
  }
}
