import { expect, test, type Page } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob, pick } from './helpers';

test.use({ viewport: { width: 1280, height: 800 } });

const sums = (page: Page) => page.getByTestId('layup-sums');
const section = (page: Page) => page.getByRole('img', { name: /^Bundle of \d+ element/ });

test('the engine loom is twisted in layers, searched, looked through, pinned, taken back, and prints its twist sheet', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/bundle?loom=engine&tab=layup`);
  await expect(page.getByText(/^Nothing of this loom is twisted in layers/)).toBeVisible();
  await pick(page, 'How the bundles of this loom lie', 'twisted in layers');
  await expect(page.getByText(/^Not searched yet/)).toBeVisible();
  const quick = await sums(page).textContent();
  await page.getByRole('button', { name: 'Search the lay-up' }).click();
  await expect(page.getByText('searched', { exact: true })).toBeVisible();
  await expect(sums(page)).toContainText('0 crossed breakouts (least 0)');
  expect(await sums(page).textContent()).not.toBe(quick);

  // the cursor goes along: layers turn, and end where branches leave
  const count = async () => Number(/in (\d+) layer/.exec((await section(page).getAttribute('aria-label'))!)![1]);
  const strip = page.getByRole('application', { name: /^Loom along its tape/ });
  const layers = page.getByRole('table', { name: 'Breakouts of the lay-up' });
  const first = await count();
  const turn = () => section(page).locator('[data-layer="1"]').getAttribute('transform');
  const before = await turn();
  await strip.focus();
  await page.keyboard.press('ArrowRight');
  await expect.poll(turn).not.toBe(before);
  await layers.getByRole('row').last().getByRole('button').first().click();
  await expect.poll(count).toBeLessThan(first);

  // a wire pinned to the core: not fit any more, searched again, and what that costs
  const group = page.getByRole('group', { name: 'Layers at the cursor' });
  const second = layers.getByRole('row').nth(1);
  await second.getByRole('button').first().click();
  await expect(group).toContainText(`From ${await second.getByRole('cell').first().textContent()} mm`);
  const wire = group.getByRole('region').last().getByRole('button').first();
  const name = (await wire.textContent())!;
  await wire.click();
  await pick(page, `Layer of ${name}`, 'pinned to core');
  await page.getByLabel('Reason').fill('tried');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(/^What was found does not fit any more/)).toBeVisible();
  await page.getByRole('button', { name: 'Search the lay-up' }).click();
  await expect(page.getByRole('status', { name: 'What the pin costs' })).toContainText('crossed');
  await expect(page.getByText('searched', { exact: true })).toBeVisible();

  // taken back step by step: search, pin; and all of it is on the server
  for (const words of [/^What was found does not fit any more/, /^searched$/]) {
    await page.keyboard.press('Escape');
    await page.getByRole('button', { name: 'Undo' }).click();
    await expect(page.getByText(words)).toBeVisible();
  }
  await expect(page.getByRole('status').filter({ hasText: /^saved/ })).toBeVisible();
  await page.reload();
  await expect(page.getByText('searched', { exact: true })).toBeVisible();
  const { document } = (await (await request.get(`/api/jobs/${id}`)).json()) as { document: ReturnType<typeof createCleanSkerry> };
  const { bundling, laidUp, layerPins } = document.looms.engine!;
  expect([bundling, Object.keys(laidUp).length > 0, layerPins]).toEqual(['concentric', true, {}]);

  await page.goto(`/jobs/${id}/sheets?loom=engine`);
  await expect(page.getByText(/Right-hand: clockwise as it goes away from you/).first()).toBeVisible();
});
