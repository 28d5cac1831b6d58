import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob, pick, readJob, sendRelease, turnTo } from './helpers';

test.use({ viewport: { width: 1280, height: 800 } });

const list = (page: Page) => page.getByRole('navigation', { name: 'Runs, holes, breakouts and ends' });
const reason = async (page: Page, words: string) => {
  await page.getByLabel('Reason').fill(words);
  await page.getByRole('button', { name: 'Keep' }).click();
};

test('a loom is dressed: coverings compared and chosen, boots and transitions, room to stand back; sheet and floor have it', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/bundle?loom=inlet`);
  await turnTo(page, '6', /\/dress\?loom=inlet/);
  const sums = page.getByTestId('dress-sums');
  await expect(sums).toContainText('0 moulded parts, 0 pieces of sleeve over joints');

  // a run: what else it could have; another is taken, and its mass counts at once
  await list(page)
    .getByRole('button', { name: /^run primary rail to injector 3\b/ })
    .click();
  const options = page.getByRole('table', { name: /^Coverings that primary rail to injector 3 could have/ });
  await expect(options.getByRole('row').filter({ hasText: 'taken' })).toContainText('elastomer shrink');
  const before = await sums.textContent();
  await options.getByRole('button', { name: 'Take split braid' }).click();
  await reason(page, 'opened at every service');
  await expect(options.getByRole('row').filter({ hasText: 'taken' })).toContainText('split braid');
  expect(await sums.textContent()).not.toBe(before);
  await expect(page.getByRole('button', { name: 'Let it be computed' })).toBeVisible();

  // ends and breakouts get something over them
  await pick(page, 'How ends and breakouts of this loom are finished', 'boots on ends, transitions on breakouts');
  await expect(sums).not.toContainText('0 pieces of sleeve');
  await list(page)
    .getByRole('button', { name: /^breakout primary rail\b/ })
    .click();
  const rail = page.getByRole('region', { name: 'primary rail', exact: true });
  await expect(rail.getByRole('img', { name: /^primary rail cut lengthwise/ })).toBeVisible();
  const pieces = await rail.getByRole('table').getByRole('row').count();
  expect(pieces).toBeGreaterThan(1);
  await expect(rail.getByRole('figure', { name: 'Room to stand back' })).toContainText('of the run before');

  // left out by hand, taken back by undo, and by the keys to the part before
  await pick(page, 'What goes over primary rail', 'nothing');
  await reason(page, 'taped, it is opened often');
  await expect(rail.getByRole('table')).toHaveCount(0);
  await page.keyboard.press('u');
  await expect(rail.getByRole('table').getByRole('row')).toHaveCount(pieces);
  await list(page).locator('[aria-current="true"]').press('ArrowUp');
  await expect(page.getByRole('heading', { level: 2, name: /to primary rail$/ })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
  expect((await readJob(request, id)).document.looms.inlet).toMatchObject({ dressing: 'boots' });
  // words that only a reader of the screen hears do not make the page longer than the window
  expect(await page.evaluate(() => document.documentElement.scrollHeight)).toBe(800);

  // labels as a printer would give them out; the list that it is fed with is the one that the server hands out
  await page.getByRole('tab', { name: 'Labels' }).click();
  await page.getByRole('button', { name: 'Print labels …' }).click();
  const dialog = page.getByRole('dialog', { name: /^Labels of inlet/ });
  await expect(dialog.getByRole('heading', { name: /^marker sleeve 1\.6, \d+ pieces, 1 pack opened/ })).toBeVisible();
  const coming = page.waitForEvent('download');
  await dialog.getByRole('button', { name: 'Save the printer’s list (CSV)' }).click();
  const saved = readFileSync(await (await coming).path(), 'utf8');
  const served = await request.get(`/api/jobs/${id}/export?what=labels&loom=inlet`, { headers: { prefer: 'wait=60' } });
  expect(served.status()).toBe(200);
  expect(saved).toBe(await served.text());
  await dialog.getByRole('button', { name: 'Close' }).last().click();
  await page.getByRole('tab', { name: 'Coverings of the runs' }).click();

  // what holds it in the vehicle goes by the pitch of its zone
  await list(page)
    .getByRole('button', { name: /^run plenum bracket hole to primary rail\b/ })
    .click();
  await expect(page.getByText(/^Held by 1 × lined clip 7 to 12 \(at most 200 mm apart, by Larkhollow house style\)\.$/)).toBeVisible();
  await expect(page.getByLabel('Clips, mm from plenum bracket hole')).toHaveValue('76');

  // the sheet has the stacks; the floor shows them at their step
  await page.goto(`/jobs/${id}/sheets?loom=inlet`);
  const sheets = page.getByRole('navigation', { name: 'Sheets' });
  for (const name of ['Dress', 'Labels', 'Clips']) await expect(sheets.getByRole('link', { name }).first()).toBeVisible();
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await page.goto(`/jobs/${id}/floor?loom=inlet`);
  const heading = page.getByRole('heading', { level: 1 });
  for (let step = 0; step < 200 && !(await heading.textContent())!.startsWith('Slide on what goes over primary rail'); step += 1)
    await page.getByRole('button', { name: /^(Skip for now|Next step)$/ }).click();
  await expect(page.getByRole('img', { name: /^Slide on what goes over primary rail, cut lengthwise/ })).toBeVisible();
});
