import { today } from '../client/today';
import {
  CATALOGUE,
  createBuild,
  createSheets,
  listFindings,
  PAPERS,
  plan,
  type Job,
  type JobPlan,
  type LoomBuild,
  type LoomPlan,
  type Paper,
  type SheetPage,
} from 'wattograph-core';
import { readJob } from './documents';
import { Refusal } from './refusal';
import { readRelease } from './releases';

/** A document to print: the draft as it stands, or a released revision. */
export interface Source {
  job: Job;
  revision: string;
  date: string;
}

export async function readSource(jobId: string, release: string | null): Promise<Source> {
  if (release === null || release === '') {
    const { document, version } = await readJob(jobId, '');
    return { job: document, revision: `draft, version ${version}`, date: new Date().toISOString().slice(0, 10) };
  }
  const row = await readRelease(jobId, Number(release));
  return { job: row.document, revision: `revision ${row.number}`, date: row.at.toISOString().slice(0, 10) };
}

export function planOf(job: Job, loomId: string | null): { whole: JobPlan; plan: LoomPlan; build: LoomBuild } {
  const whole = plan(job, CATALOGUE);
  const { looms } = whole;
  const found = looms.find((one) => one.loomId === loomId) ?? (loomId === null ? looms[0] : undefined);
  if (!found) throw Refusal.at(404, 'loom', `expected one of ${looms.map((one) => one.loomId).join(', ')}, got ${JSON.stringify(loomId)}`);
  return { whole, plan: found, build: createBuild(job, found, CATALOGUE) };
}

export function createPack(source: Source, loomId: string | null, paper: string | null): SheetPage[] {
  const size = paper ?? 'A4';
  if (!Object.hasOwn(PAPERS, size))
    throw Refusal.at(400, 'paper', `expected ${Object.keys(PAPERS).join(' or ')}, got ${JSON.stringify(paper)}`);
  const { whole, plan: loomPlan, build } = planOf(source.job, loomId);
  const findings = listFindings(source.job, whole, CATALOGUE, today());
  return createSheets(source.job, whole, loomPlan, build, findings, CATALOGUE, {
    paper: size as Paper,
    job: source.job.name,
    loom: source.job.looms[loomPlan.loomId]!.name,
    revision: source.revision,
    date: source.date,
  });
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
