import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import type { Catalogue } from '../catalogue';
import { createSheets, isOfPost, PAPERS, POSTS_ASKED, type Paper } from '../draw';
import { toDxf } from '../draw/toDxf';
import { toPdf } from '../draw/toPdf';
import { createBuild, listFindings } from '../make';
import type { Job } from '../model';
import { plan } from '../plan';
import { toCount } from '../units';
import { BadInput, findLoom, type Output } from './cliTypes';

/** What `sheets` is asked for. */
export interface AskedSheets {
  loom?: string;
  paper?: string;
  pdf?: string;
  dxf?: string;
  sheet?: string;
  post?: string;
}

/** The build pack of a loom, or one sheet or the cards of one post of it, into a PDF or DXF. */
export async function writeSheets(
  job: Job,
  shop: Catalogue,
  { loom: loomId, paper = 'A4', pdf, dxf, sheet, post }: AskedSheets,
  output: Output,
): Promise<void> {
  const file = pdf ?? dxf;
  if (file === undefined) throw new BadInput([{ path: '--pdf', message: 'expected the name of the file to write, or --dxf with one' }]);
  if (!Object.hasOwn(PAPERS, paper))
    throw new BadInput([{ path: '--paper', message: `expected ${Object.keys(PAPERS).join(', ')}, got "${paper}"` }]);
  if (post !== undefined && !POSTS_ASKED.includes(post))
    throw new BadInput([{ path: '--post', message: `expected ${POSTS_ASKED.join(', ')}, got "${post}"` }]);
  const whole = plan(job, shop);
  const loomPlan = findLoom(whole, loomId);
  const now = new Date();
  const date = now.toISOString().slice(0, 10);
  const [build, findings] = [createBuild(job, loomPlan, shop), listFindings(job, whole, shop, date)];
  const pages = createSheets(
    { job, whole, plan: loomPlan, build, findings, catalogue: shop },
    { paper: paper as Paper, job: job.name, loom: job.looms[loomPlan.loomId]!.name, revision: 'from file', date },
  );
  const ofPost = pages.filter((page) => isOfPost(page, post ?? null));
  if (ofPost.length === 0)
    throw new BadInput([{ path: '--post', message: `expected a post at which there is work on this loom, got "${post}"` }]);
  const chosen = sheet === undefined ? ofPost : ofPost.filter((page) => page.sheet === sheet);
  if (chosen.length === 0)
    throw new BadInput([
      { path: '--sheet', message: `expected one of ${[...new Set(ofPost.map((page) => page.sheet))].join(', ')}, got "${sheet}"` },
    ]);
  const fonts = fileURLToPath(new URL('../../assets/fonts/', import.meta.url));
  writeFileSync(file, pdf === undefined ? toDxf(chosen) : await toPdf(chosen, job.name, now, fonts));
  output.out(`${file}: ${toCount(chosen.length, 'page')}\n`);
}
