import { expect, test } from '@playwright/test';
import { createCleanInlet, createTestJob, pick, saved, sendRelease } from './helpers';

/** What a loom waits for beside the work on it (craft D5, I7), the camera that opens a card (D1), and photos before anything is covered. */
test('a bracket to be made is noted, printed, scanned off its sheet and made; the loom is photographed before it is covered', async ({
  page,
  request,
}) => {
  const job = createCleanInlet();
  job.brief.departures = { photo: { side: 1, reason: 'sealed after this' }, ties: { side: 1, reason: 'two of us' } };
  const id = await createTestJob(request, job);
  await page.goto(`/jobs/${id}/brief?loom=inlet&tab=tasks`);
  await page.getByLabel('Task', { exact: true }).fill('Bracket for the firewall plug');
  await page.getByLabel('Minutes that it takes').fill('40');
  await page.getByRole('button', { name: 'Note it' }).click();
  await pick(page, 'Waits for Bracket for the firewall plug', 'all of inlet');
  await pick(page, 'Before which work: Bracket for the firewall plug', 'covering');
  await pick(page, 'Can hurt at Bracket for the firewall plug', 'welding');
  await saved(page);
  expect((await sendRelease(request, id)).status()).toBe(201);

  // the code on the sheet, as a camera sees it
  await page.goto(`/jobs/${id}/sheets?loom=inlet`);
  await page
    .getByRole('combobox', { name: 'Revision' })
    .or(page.getByRole('textbox', { name: 'Revision' }))
    .first()
    .click();
  await page.getByRole('option', { name: /^revision 1,/ }).click();
  await page.getByText('Made and agreed').first().click();
  const sheet = page.getByRole('img', { name: /Made and agreed/ });
  // held near: the head of the page, with its code
  const paper = await page.context().newPage();
  await paper.setViewportSize({ width: 1400, height: 500 });
  await paper.setContent(
    `<style>body { margin: 0 } svg { width: 2400px; height: auto; margin-left: -800px }</style>${await sheet.innerHTML()}`,
  );
  const picture = { name: 'code.png', mimeType: 'image/png', buffer: await paper.screenshot() };
  await paper.close();

  await page.goto(`/jobs/${id}/floor?loom=inlet`);
  await page.getByRole('button', { name: 'Steps' }).click();
  const scan = page.getByLabel('Scan a code');
  await scan.setInputFiles({ name: 'x.txt', mimeType: 'text/plain', buffer: Buffer.from('no picture') });
  await expect(page.getByRole('status').filter({ hasText: 'That was no picture' })).toBeVisible();
  await scan.setInputFiles(picture);
  await expect(page.getByRole('heading', { name: 'Make: Bracket for the firewall plug' })).toBeVisible();
  await expect(page.getByText(/every controller unplugged first/)).toBeVisible();

  // nothing is covered before it is there, nor before the loom is photographed
  const find = async (words: string) => {
    await page.getByRole('button', { name: 'Steps' }).click();
    await page.getByLabel('Find an end, a wire or a step').fill(words);
    await page.getByLabel('Find an end, a wire or a step').press('Enter');
  };
  await find('Shrink the sleeve');
  await expect(page.getByText(/^First: /)).toContainText(/more$|Bracket/);
  await find('Bracket for the firewall plug');
  await page.getByRole('button', { name: /made, in its place/ }).click();
  await expect(page.getByRole('button', { name: /made, in its place/ })).toHaveAttribute('aria-pressed', 'true');

  await find('Photograph the loom');
  await page.getByLabel(/^Photo: the whole loom/).setInputFiles(picture);
  const taken = page.getByRole('img', { name: /^photo of the whole loom/ });
  await expect(taken).toHaveAttribute('src', /\/api\/photos\//);
  await page.reload();
  await find('Photograph the loom');
  await expect(taken).toHaveAttribute('src', /\/api\/photos\//);
  await expect(page.getByLabel(/^Another photo: the whole loom/)).toBeAttached();
  await page.getByRole('button', { name: 'Not done' }).click();
  await expect(page.getByLabel(/^Photo: the whole loom/)).toBeAttached();
});
