import { expect, test, type Page } from '@playwright/test';
import { createTestJob, readJob, saved } from './helpers';

const runs = (page: Page) => page.getByRole('table', { name: 'Runs of the loom' });
const lengths = async (page: Page) =>
  runs(page)
    .getByLabel(/^Length of /)
    .evaluateAll((fields) => fields.map((field) => Number((field as HTMLInputElement).value)));

test('a table is sorted, filtered, rid of a column for good, and copied as a spreadsheet takes it', async ({ page, request, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/bundle?tab=lengths`);
  await expect(runs(page)).toBeVisible();
  await runs(page).getByRole('button', { name: 'length mm' }).click();
  const sorted = await lengths(page);
  expect(sorted.length).toBeGreaterThan(10);
  expect(sorted).toEqual([...sorted].sort((a, b) => a - b));
  await page.getByLabel('Filter the table').fill('injector rail');
  const found = (await lengths(page)).length;
  expect(found).toBe(6);
  await page.getByRole('button', { name: 'Choose columns' }).click();
  await page.getByRole('menuitemcheckbox', { name: 'second reading' }).click();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Copy the table' }).click();
  await expect(page.getByText('6 rows copied')).toBeVisible();
  const lines = (await page.evaluate(() => navigator.clipboard.readText())).split('\n').map((line) => line.split('\t'));
  expect(lines[0]).toEqual([
    'run',
    'from datum',
    'length mm',
    'fitted',
    'method',
    'status',
    '±',
    'zone',
    'wires lie',
    'leaves at',
    'bundle mm',
  ]);
  expect(lines).toHaveLength(found + 1);
  expect(lines.slice(1).map(([, , mm]) => Number(mm))).toEqual(await lengths(page));
  await page.reload();
  await expect(runs(page)).toBeVisible();
  await expect(runs(page).getByRole('columnheader', { name: 'second reading' })).toHaveCount(0);
});

test('a column of lengths comes from the clipboard in one step, which is taken back in one; what is no length takes nothing', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/bundle?tab=lengths`);
  await page.getByLabel('Filter the table').fill('injector rail');
  const before = await lengths(page);
  const paste = (text: string) =>
    runs(page)
      .getByLabel(/^Length of /)
      .first()
      .evaluate((field, typed) => {
        field.focus();
        const data = new DataTransfer();
        data.setData('text/plain', typed);
        field.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));
      }, text);
  await paste('101\n10.2 cm\nfar');
  await expect(page.getByRole('alert').filter({ hasText: 'Line 3, length mm: expected' })).toBeVisible();
  expect(await lengths(page)).toEqual(before);
  await paste('101\n10.2 cm\n4 in');
  await expect.poll(() => lengths(page)).toEqual([101, 102, 101.6, ...before.slice(3)]);
  await saved(page);
  expect((await readJob(request, id)).version).toBe(1);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(() => lengths(page)).toEqual(before);
});

test('arrows walk down a column of fields, and a list opens with an arrow and closes where it was', async ({ page, request }) => {
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/bundle?tab=lengths`);
  await runs(page)
    .getByLabel(/^Length of /)
    .first()
    .focus();
  await page.keyboard.press('ArrowDown');
  await expect(
    runs(page)
      .getByLabel(/^Length of /)
      .nth(1),
  ).toBeFocused();
  const status = runs(page)
    .getByRole('combobox', { name: /^Status of / })
    .first();
  await status.focus();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByRole('option').first()).toBeVisible();
  await page.keyboard.press('Escape');
  await expect(page.getByRole('option')).toHaveCount(0);
  await expect(status).toBeFocused();
});

test('a page that is served without TLS has no clipboard for scripts: the table is copied all the same', async ({
  page,
  request,
  context,
}) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write']);
  await page.addInitScript(() => {
    const { clipboard } = navigator;
    Object.assign(window, { readClipboard: () => clipboard.readText() });
    Object.defineProperty(navigator, 'clipboard', { value: undefined });
  });
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/bundle?tab=findings`);
  await page.getByRole('button', { name: 'Copy the table' }).click();
  const text = await page.evaluate(() => (window as unknown as { readClipboard: () => Promise<string> }).readClipboard());
  expect(text.split('\n')[0]).toBe('grade\tfinding');
  expect(text.split('\n').length).toBeGreaterThan(3);
});
