import { and, asc, eq, inArray, like, lt, or } from 'drizzle-orm';
import {
  CRIMP_STEP,
  CRIMPED_AT,
  dropOvertaken,
  findDueDay,
  findStandard,
  findTool,
  joinSeries,
  listCrimpSeries,
  toPlaceKey,
  type BenchTool,
  type CrimpDeed,
  type CrimpPlace,
  type CrimpSeries,
  type ShopStandard,
} from 'wattograph-core';
import type { BenchPack, Crimping } from '../../client/floor/useFloorStore';
import { today } from '../../client/today';
import { database } from '../database';
import { listFrozen } from '../frozen';
import { readBuild } from '../releases';
import { floorEvents, toolCrimps } from '../schema';
import { readShop, readShopOf } from '../shop';
import { toToolName } from './crimps';

/** The tools that crimps are made with, as the shop has them today, and how often each was used since its last service. */
async function listBenchTools(
  series: readonly Pick<CrimpSeries, 'tool'>[],
  { serviceCrimps }: Pick<ShopStandard, 'serviceCrimps'>,
): Promise<Record<string, BenchTool>> {
  const { tools } = (await readShop()).shop;
  const words = [...new Set(series.map(({ tool }) => tool))];
  const names = [...new Set(words.map((one) => toToolName(tools, one)))];
  const rows = names.length === 0 ? [] : await database().select().from(toolCrimps).where(inArray(toolCrimps.tool, names));
  const day = today();
  return Object.fromEntries(
    words.map((one) => {
      const tool = findTool(tools, one);
      const name = tool?.name ?? one;
      const since = tool?.servicedOn ?? '';
      const crimps = rows.reduce((sum, row) => (row.tool === name && row.day >= since ? sum + row.crimps : sum), 0);
      const dueDay = tool ? findDueDay(tool) : null;
      const isPast = dueDay === null ? tool !== undefined && tool.everyDays !== null : dueDay < day;
      const known = { setting: tool?.setting ?? '', gauged: tool?.gauged ?? false };
      return [one, { name, isListed: tool !== undefined, ...known, dueDay, isPast, crimps, serviceCrimps }];
    }),
  );
}

/** What earlier revisions of a job know of its crimps, in order: crimps of a revision stand in the next. */
export async function listEarlierCrimps(jobId: string, release: number): Promise<CrimpDeed[]> {
  const rows = await database()
    .select({
      ...{ release: floorEvents.release, stepId: floorEvents.stepId, itemId: floorEvents.itemId, kind: floorEvents.kind },
      ...{ words: floorEvents.words, author: floorEvents.author, samples: floorEvents.samples, happenedAt: floorEvents.happenedAt },
      ...{ loomId: floorEvents.loomId, serial: floorEvents.serial, device: floorEvents.device, after: floorEvents.after },
    })
    .from(floorEvents)
    .where(
      and(
        ...[eq(floorEvents.jobId, jobId), lt(floorEvents.release, release)],
        or(eq(floorEvents.stepId, CRIMP_STEP), ...CRIMPED_AT.map((begins) => like(floorEvents.stepId, `${begins}%`))),
        inArray(floorEvents.kind, ['tick', 'untick', 'gauge', 'sample', 'changeover']),
      ),
    )
    .orderBy(asc(floorEvents.release), asc(floorEvents.serial));
  const releases = [...new Set(rows.map((row) => row.release))];
  return releases
    .flatMap((number) => dropOvertaken(rows.filter((row) => row.release === number)))
    .map(({ kind, loomId, stepId, itemId, words, author, samples, happenedAt }) => ({
      ...{ kind, loomId, stepId, itemId, words, author, samples, atMs: happenedAt.getTime() },
    }));
}

/** Crimps of the other looms of a revision, by how they are made. */
async function listOthers(jobId: string, release: number, own: string): Promise<CrimpSeries[]> {
  const looms = (await listFrozen(jobId, release)).filter(({ loomId }) => loomId !== own);
  const builds = await Promise.all(looms.map(({ loomId }) => readBuild(jobId, release, loomId)));
  return builds.flatMap(({ crimps }) => [...crimps.series.values()]);
}

/**
 * How the crimps of a loom of a revision are proved, as the floor asks for it.
 *
 * @param past of the job before this revision, all looms
 */
export async function openCrimping(
  jobId: string,
  { release, job, plan, steps }: Pick<BenchPack, 'release' | 'job' | 'plan' | 'steps'>,
  past: readonly CrimpDeed[],
): Promise<Crimping> {
  const { shop } = await readShopOf(job);
  const standard = findStandard(job, shop);
  const series = joinSeries(listCrimpSeries(plan, steps, shop.contacts), await listOthers(jobId, release, plan.loomId));
  const toName = ({ loomId, endId }: CrimpPlace) =>
    `${job.looms[loomId]!.name}, ${endId === null ? 'splices' : job.looms[loomId]!.ends[endId]!.name}`;
  const toKey = ({ loomId, stepId, itemId }: Pick<CrimpPlace, 'loomId' | 'stepId' | 'itemId'>) => `${loomId} ${stepId} ${itemId}`;
  const placed = new Set(series.flatMap(({ places, elsewhere }) => [...places, ...elsewhere].map(toKey)));
  const { sampleFirst, sampleEvery, sampleWarnShare, crimpHeightMm, sessionMin, reterminations, reterminationMm } = standard;
  return {
    series,
    elsewhere: Object.fromEntries(series.flatMap(({ elsewhere }) => elsewhere.map((place) => [toPlaceKey(place), toName(place)]))),
    sampling: { sampleFirst, sampleEvery, sampleWarnShare, crimpHeightMm, sessionMin },
    kept: { reterminations, reterminationMm },
    tools: await listBenchTools(series, standard),
    // what other looms have of no series here is none of its business
    earlier: past.filter((deed) => deed.stepId === CRIMP_STEP || placed.has(toKey(deed))),
  };
}
