import { and, asc, eq, inArray, like, lt, or } from 'drizzle-orm';
import {
  CRIMP_STEP,
  dropOvertaken,
  findDueDay,
  findStandard,
  findTool,
  listCrimpSeries,
  type BenchTool,
  type CrimpDeed,
  type CrimpSeries,
  type ShopStandard,
} from 'wattograph-core';
import type { BenchPack, Crimping } from '../../client/floor/useFloorStore';
import { today } from '../../client/today';
import { database } from '../database';
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

/** What earlier revisions of a job know of the crimps of a loom, in order: crimps of a revision stand in the next. */
async function listEarlierCrimps(jobId: string, release: number, loomId: string): Promise<CrimpDeed[]> {
  const rows = await database()
    .select({
      ...{ release: floorEvents.release, stepId: floorEvents.stepId, itemId: floorEvents.itemId, kind: floorEvents.kind },
      ...{ words: floorEvents.words, author: floorEvents.author, samples: floorEvents.samples, happenedAt: floorEvents.happenedAt },
      ...{ serial: floorEvents.serial, device: floorEvents.device, after: floorEvents.after },
    })
    .from(floorEvents)
    .where(
      and(
        ...[eq(floorEvents.jobId, jobId), lt(floorEvents.release, release)],
        or(and(eq(floorEvents.loomId, loomId), like(floorEvents.stepId, 'crimp.%')), eq(floorEvents.stepId, CRIMP_STEP)),
        inArray(floorEvents.kind, ['tick', 'untick', 'gauge', 'sample', 'changeover']),
      ),
    )
    .orderBy(asc(floorEvents.release), asc(floorEvents.serial));
  const releases = [...new Set(rows.map((row) => row.release))];
  return releases
    .flatMap((number) => dropOvertaken(rows.filter((row) => row.release === number)))
    .map(({ kind, stepId, itemId, words, author, samples, happenedAt }) => ({
      ...{ kind, stepId, itemId, words, author, samples, atMs: happenedAt.getTime() },
    }));
}

/** How the crimps of a loom of a revision are proved, as the floor asks for it. */
export async function openCrimping(
  jobId: string,
  { release, job, plan, steps }: Pick<BenchPack, 'release' | 'job' | 'plan' | 'steps'>,
): Promise<Crimping> {
  const { shop } = await readShopOf(job);
  const standard = findStandard(job, shop);
  const series = listCrimpSeries(plan, steps, shop.contacts);
  const { sampleFirst, sampleEvery, sampleWarnShare, crimpHeightMm, sessionMin, reterminations, reterminationMm } = standard;
  return {
    series,
    sampling: { sampleFirst, sampleEvery, sampleWarnShare, crimpHeightMm, sessionMin },
    kept: { reterminations, reterminationMm },
    tools: await listBenchTools(series, standard),
    earlier: await listEarlierCrimps(jobId, release, plan.loomId),
  };
}
