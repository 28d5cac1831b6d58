import { findStandard } from 'wattograph-core';
import { listFrozen, readFrozen } from '../frozen';
import { readJob } from '../documents';
import { hasSeveral, listFloorEvents, listReleases, readCarried, readRelease } from '../releases';
import { toJobId, toReleaseNumber } from '../requests';
import { readShop, readShopOf } from '../shop';

/** A revision of a job as the bench works from it: the one asked for, or the newest; pack null: none is released. */
export async function openPack(id: string, query: { release?: string; loom?: string }) {
  const jobId = toJobId(id);
  await readJob(jobId, '');
  const releases = await listReleases(jobId);
  const newest = releases.at(-1)?.number;
  const number = query.release ? toReleaseNumber(query.release) : newest;
  if (number === undefined || newest === undefined) return { pack: null, continuity: [], events: [] };
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
      leaseMin: findStandard(document, (await readShopOf(document)).shop).leaseMin,
    },
    continuity: build.continuity,
    events: await listFloorEvents(jobId, number),
  };
}
