import { notFound } from 'next/navigation';
import { expectPerson } from '../../../../server/accounts/page';
import { readJob } from '../../../../server/documents';
import { Refusal } from '../../../../server/refusal';
import { listFrozen, readFrozen } from '../../../../server/frozen';
import { hasSeveral, listFloorEvents, listReleases, readCarried, readRelease } from '../../../../server/releases';
import { readShop } from '../../../../server/shop';
import { toJobId, toReleaseNumber } from '../../../../server/requests';
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
  const opened = await open(id, query).catch((error: unknown) => {
    if (error instanceof Refusal && error.status === 404) return null;
    throw error;
  });
  if (!opened) notFound();
  return <FloorStation person={person} jobId={id} pack={opened.pack} events={opened.events} card={query.card?.slice(0, 120) ?? null} />;
}

async function open(id: string, query: { release?: string; loom?: string }) {
  const jobId = toJobId(id);
  await readJob(jobId, '');
  const releases = await listReleases(jobId);
  const newest = releases.at(-1)?.number;
  const number = query.release ? toReleaseNumber(query.release) : newest;
  if (number === undefined || newest === undefined) return { pack: null, events: [] };
  const { document } = await readRelease(jobId, number);
  const looms = await listFrozen(jobId, number);
  const { loomId } = looms.find((loom) => loom.loomId === query.loom) ?? looms.find(({ wires }) => wires > 0) ?? looms[0]!;
  const { plan, build, families, board } = await readFrozen(jobId, number, loomId);
  const carried = await readCarried(jobId, number, loomId);
  const { tools } = (await readShop()).shop;
  return {
    pack: {
      release: number,
      newest,
      job: document,
      plan,
      steps: build.steps,
      families,
      board,
      carried,
      needsSecond: await hasSeveral(),
      instruments: tools.map(({ name }) => name),
    },
    events: await listFloorEvents(jobId, number),
  };
}
