import { today } from '../client/today';
import {
  addCodes,
  comparePages,
  createBuild,
  createPlanner,
  createSheets,
  ENGINE,
  listFindings,
  PAPERS,
  keepEqual,
  POSTS_ASKED,
  type Finding,
  type Job,
  type JobPlan,
  type LoomBuild,
  type LoomPlan,
  type OldPage,
  type Paper,
  type Planner,
  type SheetPage,
} from 'wattograph-core';
import { readJob, readJobVersion } from './documents';
import { readFrozen, readFrozenPages } from './frozen';
import { listHosts } from './guard';
import { Refusal } from './refusal';
import { readRelease } from './releases';
import { toReleaseNumber } from './requests';
import { readShopOf, type PresentShop } from './shop';

/** of an address, letters: what a code of 14.5 mm still carries */
const MOST_ADDRESS = 100;

/** A document to print: the draft as it stands, or a released revision. */
export interface Source {
  jobId: string;
  job: Job;
  /** null: the draft */
  number: number | null;
  revision: string;
  at: Date;
}

export async function readSource(jobId: string, release: string | null): Promise<Source> {
  if (release === null) {
    const { document, version } = await readJob(jobId, '');
    return { jobId, job: document, number: null, revision: `draft, version ${version}`, at: new Date() };
  }
  const { document, number, at } = await readRelease(jobId, toReleaseNumber(release));
  return { jobId, job: document, number, revision: `revision ${number}`, at };
}

/** What a sheet, a list or a file is asked for. */
export interface Wanted {
  jobId: string;
  /** null: the draft */
  release: string | null;
  loom: string | null;
  paper: string | null;
  what: string | null;
  /** revision whose print hangs: only pages that say something else; null: all */
  since: string | null;
  /** pages of one post, or of all of the crew; null: all */
  post: string | null;
  /** where the codes on the pages of a revision lead, as whoever prints them opened this installation; null: no codes */
  address: string | null;
}

/** What the address asks for, and all that the answer depends on: a draft is another one with each edit and on another day. */
export async function readWanted(jobId: string, query: URLSearchParams): Promise<{ key: unknown; wanted: Wanted }> {
  const release = query.get('release') || null;
  const [paper, format] = [query.get('paper'), query.get('format')];
  if (paper !== null && !Object.hasOwn(PAPERS, paper))
    throw Refusal.at(400, 'paper', `expected one of ${Object.keys(PAPERS).join(', ')}, got ${JSON.stringify(paper.slice(0, 40))}`);
  if (format !== null && format !== 'pdf' && format !== 'dxf')
    throw Refusal.at(400, 'format', `expected pdf, dxf or nothing, got ${JSON.stringify(format.slice(0, 40))}`);
  const wanted: Wanted = {
    jobId,
    release,
    loom: query.get('loom'),
    paper,
    since: query.get('since') || null,
    post: toPost(query.get('post')),
    address: toAddress(query.get('address')),
    what: query.get('what') ?? query.get('sheet')?.slice(0, 80) ?? null,
  };
  const version = release === null ? [await readJobVersion(jobId), today()] : [toReleaseNumber(release)];
  return { key: [ENGINE, wanted, version], wanted };
}

function toPost(asked: string | null): string | null {
  if (asked === null || asked === '') return null;
  if (!POSTS_ASKED.includes(asked))
    throw Refusal.at(400, 'post', `expected ${POSTS_ASKED.join(', ')}, got ${JSON.stringify(asked.slice(0, 40))}`);
  return asked;
}

/** Where codes lead: nowhere but to this installation. */
export function toAddress(asked: string | null): string | null {
  if (asked === null || asked === '') return null;
  const url = asked.length <= MOST_ADDRESS && URL.canParse(asked) ? new URL(asked) : null;
  const isOurs = url !== null && /^https?:$/.test(url.protocol) && listHosts(process.env.WATTOGRAPH_HOSTS).has(url.hostname);
  if (!isOurs || url.search !== '' || url.hash !== '' || url.username !== '' || url.password !== '')
    throw Refusal.at(400, 'address', `expected the address of this installation, got ${JSON.stringify(asked.slice(0, 80))}`);
  return url.href.replace(/\/$/, '');
}

/** Pages of a revision with the codes that open their cards on the floor. */
export const withCodes = (pages: readonly SheetPage[], { jobId, number }: Source, { loom, address }: Wanted): SheetPage[] =>
  number === null || address === null
    ? [...pages]
    : addCodes(
        pages,
        (card) =>
          `${address}/jobs/${jobId}/floor?release=${number}${loom === null ? '' : `&loom=${encodeURIComponent(loom)}`}&card=${encodeURIComponent(card)}`,
      );

/** A loom of the draft as it is planned now, or of a revision as it was then. */
export async function readLoom(source: Source, loomId: string | null): Promise<{ plan: LoomPlan; build: LoomBuild; findings: Finding[] }> {
  const { jobId, job, number } = source;
  // what stood in the way of a revision is in its pack, and is not kept apart
  if (number !== null) return { ...(await readFrozen(jobId, number, loomId)), findings: [] };
  const { loom, build, findings } = planDraft(source, await readShopOf(job), loomId);
  return { plan: loom, build, findings };
}

/** The draft that was planned last here: whoever looks at its sheets prints them next, or edits it and looks again. */
let lastDraft: { key: string; shopKey: string; planner: Planner; job: Job; whole: JobPlan; findings: Finding[] } | null = null;

function planDraft(
  { jobId, job: read, revision }: Source,
  { shop, digest }: PresentShop,
  loomId: string | null,
): { job: Job; whole: JobPlan; loom: LoomPlan; build: LoomBuild; findings: Finding[] } {
  const day = today();
  const key = JSON.stringify([jobId, revision, digest, day]);
  if (lastDraft?.key !== key) {
    // of the same job with the same parts only what was edited is planned anew
    const shopKey = JSON.stringify([jobId, digest]);
    const before = lastDraft?.shopKey === shopKey ? lastDraft : null;
    const planner = before?.planner ?? createPlanner(shop);
    const job = keepEqual(before?.job, read);
    const whole = planner(job);
    lastDraft = { key, shopKey, planner, job, whole, findings: listFindings(job, whole, shop, day) };
  }
  const { job: planned, whole, findings } = lastDraft;
  const loom = findLoomPlan(whole, loomId);
  return { job: planned, whole, loom, build: createBuild(planned, loom, shop), findings };
}

/** The loom that is asked for, the first where none is. */
export function findLoomPlan({ looms }: JobPlan, loomId: string | null): LoomPlan {
  const loom = looms.find((one) => one.loomId === loomId) ?? (loomId === null ? looms[0] : undefined);
  if (!loom) throw Refusal.at(404, 'loom', `expected one of ${looms.map((one) => one.loomId).join(', ')}, got ${JSON.stringify(loomId)}`);
  return loom;
}

/** Sheets of a loom, and what was built for them: of a revision as they were drawn then. */
export async function readPages(
  source: Source,
  loomId: string | null,
  asked: string | null,
): Promise<{ pages: SheetPage[]; build: LoomBuild }> {
  const paper = asked ?? 'A4';
  if (!Object.hasOwn(PAPERS, paper))
    throw Refusal.at(400, 'paper', `expected ${Object.keys(PAPERS).join(' or ')}, got ${JSON.stringify(asked)}`);
  if (source.number !== null) {
    const pages = await readFrozenPages(source.jobId, source.number, loomId, paper as Paper);
    return { pages, build: (await readFrozen(source.jobId, source.number, loomId)).build };
  }
  const present = await readShopOf(source.job);
  const { job, whole, loom, build, findings } = planDraft(source, present, loomId);
  const pages = createSheets(
    { job, whole, plan: loom, build, findings, catalogue: present.shop },
    {
      paper: paper as Paper,
      job: job.name,
      loom: job.looms[loom.loomId]!.name,
      revision: source.revision,
      date: source.at.toISOString().slice(0, 10),
    },
  );
  return { pages, build };
}

/** Which of these pages are to be printed where those of an earlier revision hang, and which of those go; null: nothing is compared. */
export async function readChanges(
  { jobId, since, loom, paper }: Wanted,
  pages: readonly SheetPage[],
): Promise<{ print: number[]; destroy: OldPage[] } | null> {
  if (since === null) return null;
  return comparePages(await readFrozenPages(jobId, toReleaseNumber(since), loom, (paper ?? 'A4') as Paper), pages);
}

/** A name for a file that any system takes. */
export function toFileName(...parts: string[]): string {
  return parts
    .join(' ')
    .normalize('NFKD')
    .replace(/[^A-Za-z0-9. -]+/g, '')
    .trim()
    .replace(/ +/g, '-')
    .toLowerCase();
}
