import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { CATALOGUE, createBuild, MILESTONE_STEP, plan, type Job } from 'wattograph-core';
import { CHROMIUM } from './chromium';
import { cookieOf, storageOf } from '../scripts/lib/testPeople.cjs';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createCleanInlet, pick } from './helpers';

const address = process.env.BENCH_ADDRESS!;
const [folder, ...wanted] = process.argv.slice(2) as [string, ...string[]];
const SKERRY = '/jobs/5ee12000-0000-4000-8000-000000000012';

const post = async (path: string, data: unknown, who: 'imke' | 'tobin' = 'imke') => {
  const response = await fetch(`${address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json', prefer: 'wait=60', cookie: cookieOf(who) },
    body: JSON.stringify(data),
  });
  if (!response.ok) throw new Error(await response.text());
};

async function main(): Promise<void> {
  const browser = await chromium.launch(CHROMIUM);
  const open = async (path: string, width = 1280, height = 800): Promise<Page> => {
    const page = await browser.newPage({ storageState: storageOf('imke'), viewport: { width, height } });
    await page.goto(`${address}${path}`);
    await page.waitForTimeout(1500);
    // the first plan of four looms takes a moment on a slow machine
    await page.waitForFunction(() => !/Computing the plan|Opening the job|Laying the sheets/.test(document.body.innerText), null, {
      timeout: 30_000,
    });
    return page;
  };
  const keep = async (page: Page, name: string) => {
    if (wanted.length > 0 && !wanted.includes(name)) return;
    await page.waitForTimeout(500);
    await page.screenshot({ path: join(folder, `${name}.png`) });
  };
  const jobs = await open('/');
  await jobs.getByText('Being counted').first().waitFor({ state: 'detached' });
  await keep(jobs, 'jobs');
  const shop = await open('/shop');
  await shop.getByRole('button', { name: /^Housings/ }).click();
  await shop.getByRole('button', { name: /^Quill 34/ }).click();
  await keep(shop, 'shop');
  await keep(await open(`${SKERRY}/customer`), 'customer');
  const survey = await open(`${SKERRY}/survey?loom=engine`, 390, 844);
  await survey.getByRole('group', { name: 'Read from' }).getByRole('button', { name: 'cam cover' }).click();
  await survey.keyboard.type('240');
  // the strip comes with the plan
  await survey.getByLabel(/^Strip of/).waitFor();
  await keep(survey, 'survey-phone');
  await keep(await open(`${SKERRY}/dress?loom=engine&at=breakout:m-cam-cover`), 'dress');
  const circuits = await open(`${SKERRY}/circuits?loom=inlet`);
  await circuits.getByRole('button', { name: /^charge pressure pin 2/ }).click();
  await keep(circuits, 'circuits');
  const power = await open(`${SKERRY}/power?loom=chassis`);
  await power.getByRole('button', { name: 'Sluice 24 feed' }).click();
  await keep(power, 'power');
  const board = await open(`${SKERRY}/board?loom=chassis`);
  await board.getByRole('button', { name: 'Search the layout' }).click();
  await board.getByText('laid out', { exact: true }).waitFor();
  await board.getByRole('button', { name: 'This print hangs' }).click();
  await board.getByText(/^Hung on/).waitFor();
  await keep(board, 'board');
  await keep(await open(`${SKERRY}/bundle?loom=inlet&tab=findings`), 'findings');
  const ends = await open(`${SKERRY}/ends?loom=engine&end=m-crank-sensor`);
  await keep(ends, 'ends');
  // a length typed on the strip, so that what it changed shows
  const bundle = await open(`${SKERRY}/bundle?loom=inlet`);
  await bundle.getByRole('application').focus();
  for (let step = 0; step < 7; step += 1) await bundle.keyboard.press('Shift+ArrowRight');
  await bundle.keyboard.press('Enter');
  await bundle.getByLabel('primary rail to throttle body').fill('225');
  await bundle.keyboard.press('Enter');
  await bundle
    .getByText(/cut lengths/)
    .first()
    .waitFor();
  await keep(bundle, 'bundle');
  // twisted in layers and searched, by night
  const layup = await open(`${SKERRY}/bundle?loom=engine&tab=layup`);
  await pick(layup, 'How the bundles of this loom lie', 'twisted in layers');
  await layup.getByRole('button', { name: 'Search the lay-up' }).click();
  await layup.getByText('searched', { exact: true }).waitFor({ timeout: 60_000 });
  await layup.getByRole('button', { name: 'Light or dark' }).click();
  await keep(layup, 'bundle-dark');
  await layup.getByRole('button', { name: 'Light or dark' }).click();
  await layup.waitForTimeout(1500);
  const twist = await open(`${SKERRY}/sheets?loom=engine`);
  // the heads of six of its pages, as paper
  await twist.getByRole('img', { name: /^Poster, page/ }).waitFor();
  await twist.evaluate(() => {
    const frames = ['Cut list', 'Ends', 'Twist', 'Dress', 'Labels', 'Poster'].map((name) => {
      const found = document.querySelectorAll(`[aria-label^="${name}, page"] svg`);
      // the first page of the ends has the smallest of them
      const page = found[name === 'Ends' ? Math.min(2, found.length - 1) : 0]!;
      page.setAttribute('style', 'width: 100%; height: auto; display: block');
      const frame = document.createElement('div');
      frame.setAttribute('style', 'overflow: hidden; background: #fff; border: 1px solid #b9c4c2');
      frame.append(page);
      return frame;
    });
    document.body.replaceChildren(...frames);
    document.body.setAttribute(
      'style',
      'display: grid; grid-template: repeat(2, 379px) / repeat(3, 1fr); gap: 14px; padding: 14px; background: #e6e9e6; height: 800px',
    );
  });
  await keep(twist, 'sheets');
  const id = randomUUID();
  const job = createCleanInlet();
  await post('/api/jobs', { id, author: 'Imke Dorsey', document: job });
  const release = (base: number) => post(`/api/jobs/${id}/releases`, { id: randomUUID(), base, author: 'Imke Dorsey', note: '' });
  await release(0);
  // cut, then one leg comes out longer: a second revision with work of the first
  const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
  const cut = steps
    .filter(({ operation }) => operation === 'cut')
    .flatMap((step) => step.items.map((item) => ({ stepId: step.id, itemId: item.id })));
  const signed = { loomId: 'inlet', kind: 'tick', words: '', author: 'Tobin Ashgrove', happenedAt: '2026-11-24T08:00:00.000Z' };
  await post(`/api/jobs/${id}/releases/1/events`, { events: cut.map((one) => ({ ...one, ...signed, id: randomUUID() })) });
  const leg = '/looms/inlet/segments/s-inj1';
  const patch = [
    { op: 'replace', path: `${leg}/status`, value: 'fitted' },
    { op: 'replace', path: `${leg}/fittedMm`, value: job.looms.inlet!.segments['s-inj1']!.lengthMm! + 6 },
  ];
  await post(`/api/jobs/${id}/edits`, { id: randomUUID(), base: 0, author: 'Imke Dorsey', label: 'trial fit', patch });
  await release(1);
  const prove = await open(`/jobs/${id}/prove`);
  await prove.getByRole('button', { name: 'Stand-in tester' }).click();
  await prove.getByRole('button', { name: 'Measure what is left' }).click();
  await prove.getByRole('heading', { name: /are exchanged\.$/ }).waitFor();
  await prove.getByText('failed', { exact: true }).click();
  await keep(prove, 'prove');
  const take = { ...signed, id: randomUUID(), stepId: '', itemId: 'end B1', kind: 'take', happenedAt: new Date().toISOString() };
  await post(`/api/jobs/${id}/releases/2/events`, { events: [take] }, 'tobin');
  const list = await open(`/jobs/${id}/floor`, 1024, 768);
  await list.getByRole('button', { name: 'Steps', exact: true }).click();
  await list.getByRole('button', { name: /^Waiting / }).click();
  await keep(list, 'floor-steps');
  const floor = await open(`/jobs/${id}/floor`, 1024, 768);
  await floor.getByRole('button', { name: 'Steps', exact: true }).click();
  await floor.getByLabel('Find an end, a wire or a step').fill('Crimp throttle');
  await floor.keyboard.press('Enter');
  await floor.getByRole('region', { name: 'How the crimps are proved' }).getByRole('button', { name: '3 samples' }).click();
  const samples = floor.getByRole('dialog');
  const figures = samples.getByRole('textbox', { name: /, at least/ });
  await samples.getByLabel('pulled with').fill('pull tester 2');
  if (await samples.getByLabel('height with').isVisible()) await samples.getByLabel('height with').fill('micrometer 1');
  for (const [at, look] of (await samples.getByRole('button', { name: 'Looks right' }).all()).entries()) {
    await look.click();
    await figures.nth(at).fill(String([72, 78, 66][at]));
    const height = samples.getByRole('textbox', { name: /^height, / }).nth(at);
    if (await height.isVisible())
      await height.fill(
        /height, ([\d.]+)/.exec(
          (await samples
            .getByText(/^height, /)
            .nth(at)
            .textContent())!,
        )![1]!,
      );
  }
  await keep(floor, 'first-off');
  await samples.getByRole('button', { name: /^Keep/ }).click();
  await floor.getByRole('button', { name: 'One at a time' }).click();
  await floor.getByRole('button', { name: 'Take it' }).click();
  await floor.getByRole('button', { name: 'Crimped' }).click();
  await floor.getByRole('button', { name: 'Take it' }).click();
  await floor.evaluate(() => window.scrollTo(0, 0));
  await keep(floor, 'floor');
  const whole = randomUUID();
  await post('/api/jobs', { id: whole, author: 'Imke Dorsey', document: createCleanSkerry() });
  await post(`/api/jobs/${whole}/releases`, { id: randomUUID(), base: 0, author: 'Imke Dorsey', note: '' });
  const firstPower = await open(`/jobs/${whole}/prove/power`);
  await firstPower.getByRole('button', { name: 'Stand-in vehicle' }).click();
  await firstPower.getByRole('button', { name: 'Read until a surprise' }).click();
  await firstPower.getByText(/^Two nets are joined behind/).waitFor();
  await keep(firstPower, 'first-power');
  await post(`/api/jobs/${whole}/releases/1/events`, { events: listMorning(createCleanSkerry()) });
  const milestones = await open(`/jobs/${whole}/prove/milestones`);
  await milestones.getByRole('region', { name: 'Times' }).waitFor();
  await keep(milestones, 'milestones');
  await browser.close();
}

/** What was done of the inlet loom in a morning: all wires cut, two checks ticked. */
function listMorning(job: Job) {
  const inlet = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
  const cuts = createBuild(job, inlet, CATALOGUE).steps.filter(({ operation }) => operation === 'cut');
  const ticks = [
    ...cuts.flatMap(({ id, items }) => items.map((item) => ({ loomId: 'inlet', stepId: id, itemId: item.id }))),
    ...['exhaust on', 'extinguisher at hand'].map((itemId) => ({ loomId: '', stepId: MILESTONE_STEP, itemId })),
  ];
  const startMs = Date.UTC(2026, 10, 28, 8);
  return ticks.map((tick, at) => ({
    ...{ ...tick, id: randomUUID(), kind: 'tick', words: '', author: 'Imke Dorsey' },
    happenedAt: new Date(startMs + at * 65_000).toISOString(),
  }));
}

void main();
