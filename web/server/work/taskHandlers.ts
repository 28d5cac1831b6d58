import { join } from 'node:path';
import {
  toCostWords,
  listMarks,
  listTables,
  isOfPost,
  POST_WORDS,
  toBuildJson,
  toCutListCsv,
  toLabelsCsv,
  toPartsCsv,
  toSvg,
  toWireListCsv,
  type Post,
} from 'wattograph-core';
import { toDxf } from 'wattograph-core/dxf';
import { toPdf } from 'wattograph-core/pdf';
import { writeWorkbook } from 'wattograph-core/xlsx';
import { makeBoard, type WantedBoard } from '../boards';
import { createStoredJob, readJob } from '../documents';
import { freezeLate } from '../frozen';
import { readChanges, readLoom, readPages, readSource, toFileName, withCodes, type Wanted } from '../buildPacks';
import { Refusal } from '../refusal';
import { createRelease } from '../releases';
import { previewBringUp, previewShop, readShopOf } from '../shop';
import { toJsonAnswer, type Answer, type TaskContext, type TaskKind } from './taskKinds';

interface Inputs {
  release: { jobId: string; id: string; base: number; author: string; note: string; inPart: boolean };
  freeze: { jobId: string; number: number };
  pages: Wanted;
  board: WantedBoard;
  pdf: Wanted;
  dxf: Wanted;
  list: Wanted;
  shopPreview: { document: unknown };
  bringUp: { jobId: string };
  import: { id: string; document: unknown };
}

type Handlers = { [Kind in TaskKind]: (input: Inputs[Kind], context: TaskContext) => Promise<Answer> };

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
const fontFolder = () => process.env.WATTOGRAPH_FONTS ?? join(process.cwd(), 'core/assets/fonts');

const HANDLERS: Handlers = {
  release: async ({ jobId, ...request }, context) => toJsonAnswer(await createRelease(jobId, request, context), 201),
  freeze: async ({ jobId, number }) => {
    await freezeLate(jobId, number);
    return toJsonAnswer({});
  },
  pages: async (wanted) => {
    const source = await readSource(wanted.jobId, wanted.release);
    const { pages: plain, build } = await readPages(source, wanted.loom, wanted.paper);
    const changes = await readChanges(wanted, plain);
    const pages = withCodes(plain, source, wanted);
    const { currency } = (await readShopOf(source.job)).shop;
    return toJsonAnswer({
      revision: source.revision,
      cost: toCostWords(build.parts, currency),
      changes,
      pages: pages.map((page, index) => ({
        sheet: page.sheet,
        post: page.post ?? 'office',
        number: index + 1,
        widthMm: page.widthMm,
        heightMm: page.heightMm,
        svg: toSvg(page),
      })),
    });
  },
  board: (wanted) => makeBoard(wanted, fontFolder()),
  pdf: async (wanted) => {
    const source = await readSource(wanted.jobId, wanted.release);
    const { pages: all } = await readPages(source, wanted.loom, wanted.paper);
    const changes = await readChanges(wanted, all);
    const changed = changes ? all.filter((_, index) => changes.print.includes(index + 1)) : all;
    const pages = withCodes(
      changed.filter((page) => isOfPost(page, wanted.post)),
      source,
      wanted,
    );
    if (pages.length === 0 && changed.length > 0)
      throw Refusal.at(409, 'post', `expected pages of this post, there are none (${POST_WORDS[wanted.post as Post] ?? wanted.post})`);
    if (pages.length === 0)
      throw Refusal.at(409, 'since', `expected pages that say something else than revision ${wanted.since}, got none`);
    const body = await toPdf(pages, `${source.job.name}, ${source.revision}`, source.at, fontFolder());
    const name = `${toFileName(source.job.name, wanted.loom ?? '', source.revision)}.pdf`;
    return { status: 200, type: 'application/pdf', name, body: Buffer.from(body) };
  },
  dxf: async (wanted) => {
    const source = await readSource(wanted.jobId, wanted.release);
    const { pages } = await readPages(source, wanted.loom, wanted.paper);
    const chosen = wanted.what === null ? pages : pages.filter(({ sheet }) => sheet === wanted.what);
    if (chosen.length === 0)
      throw Refusal.at(
        400,
        'sheet',
        `expected one of ${[...new Set(pages.map(({ sheet }) => sheet))].join(', ')}, got ${JSON.stringify(wanted.what)}`,
      );
    const name = `${toFileName(source.job.name, wanted.loom ?? '', wanted.what ?? '', source.revision)}.dxf`;
    return { status: 200, type: 'image/vnd.dxf', name, body: Buffer.from(toDxf(chosen)) };
  },
  list: async (wanted) => {
    const source = await readSource(wanted.jobId, wanted.release);
    const { plan, build, findings } = await readLoom(source, wanted.loom);
    const { shop } = await readShopOf(source.job);
    const name = toFileName(source.job.name, plan.loomId, wanted.what ?? '', source.revision);
    const lists = { job: source.job, plan, build, findings, catalogue: shop };
    if (wanted.what === 'lists') {
      const body = Buffer.from(await writeWorkbook(listTables(lists), `${source.job.name}, ${plan.loomId}, ${source.revision}`));
      return { status: 200, type: XLSX, name: `${name}.xlsx`, body };
    }
    if (wanted.what === 'build') {
      const body = Buffer.from(`${JSON.stringify(toBuildJson(lists, source.revision), null, 2)}\n`);
      return { status: 200, type: 'application/json; charset=utf-8', name: `${name}.json`, body };
    }
    const writers = {
      wires: () => toWireListCsv(source.job, plan),
      cuts: () => toCutListCsv(build),
      labels: () => toLabelsCsv(source.job, plan.loomId, listMarks(source.job, plan, shop)),
      parts: () => toPartsCsv(build, shop.currency),
    };
    const text = writers[wanted.what as keyof typeof writers]();
    return { status: 200, type: 'text/csv; charset=utf-8', name: `${name}.csv`, body: Buffer.from(text) };
  },
  shopPreview: async ({ document }, context) => toJsonAnswer(await previewShop(document, context)),
  import: async ({ id, document }) => toJsonAnswer(await createStoredJob(id, document), 201),
  bringUp: async ({ jobId }) => toJsonAnswer(await previewBringUp(jobId, (await readJob(jobId, '')).document)),
};

/** Do a task. Throws what its handler throws. */
export async function doTask(kind: TaskKind, input: unknown, context: TaskContext): Promise<Answer> {
  // the input was written by the route of the same kind
  return (HANDLERS[kind] as (input: unknown, context: TaskContext) => Promise<Answer>)(input, context);
}
