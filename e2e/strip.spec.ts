import { expect, test, type Page } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob } from './helpers';

test.use({ viewport: { width: 1280, height: 800 } });

const strip = (page: Page) => page.getByRole('application', { name: /^Loom along its tape/ });
const minimap = (page: Page) => page.getByTestId('minimap');

async function openChassis(page: Page, id: string): Promise<void> {
  await page.goto(`/jobs/${id}/bundle?loom=chassis`);
  await expect(page.getByText(/^189 wires/)).toBeVisible();
  await expect(strip(page).getByText('logger')).toBeVisible();
}

/** Where words stand on the screen: of ends, and of splices. */
const listWords = (page: Page) =>
  strip(page)
    .locator('svg text[class*="name"], button[class*="tag"] span')
    .evaluateAll((all) => all.map((one) => ({ words: one.textContent, box: one.getBoundingClientRect().toJSON() as DOMRect })));

test('the chassis loom at 1280 by 800: every leg has its name in view, no words lie on others, splices open from their count', async ({
  page,
  request,
}) => {
  const job = createCleanSkerry();
  await openChassis(page, await createTestJob(request, job));
  const words = await listWords(page);
  const pane = (await strip(page).boundingBox())!;
  const legs = Object.values(job.looms.chassis!.ends).map(({ name }) => name);
  for (const name of legs.filter((one) => one !== 'firewall F1')) {
    const [found, ...more] = words.filter((one) => one.words!.startsWith(`${name} +`));
    expect({ name, more: more.length }).toEqual({ name, more: 0 });
    expect(found!.box.right).toBeLessThanOrEqual(pane.x + pane.width);
    expect(found!.box.bottom).toBeLessThanOrEqual(pane.y + pane.height);
    expect(found!.box.top).toBeGreaterThanOrEqual(pane.y);
  }
  // what is drawn is as wide as the layout measured it: a line of words is higher than its letters, so a little is let go at its edges
  for (const [index, one] of words.entries())
    for (const other of words.slice(index + 1)) {
      const across = Math.min(one.box.right, other.box.right) - Math.max(one.box.left, other.box.left);
      const down = Math.min(one.box.bottom, other.box.bottom) - Math.max(one.box.top, other.box.top);
      expect(across > 1 && down > 6 ? `${one.words} on ${other.words}` : null).toBeNull();
    }
  await expect(minimap(page)).toHaveCount(0);
  await strip(page)
    .getByRole('button', { name: /splices$/ })
    .first()
    .click();
  await page.getByRole('button', { name: /^S5 .* mm/ }).click();
  await expect(page.getByTestId('cursor')).toContainText(/^\d+$/);
  await expect(page.getByRole('button', { name: /^S5 .* mm/ })).toHaveCount(0);
});

test('a wire is found by typing its number, shown from end to end and in the table, and let go again', async ({ page, request }) => {
  await openChassis(page, await createTestJob(request, createCleanSkerry()));
  await page.keyboard.press('/');
  await page.getByLabel('Find or do').fill('C-158');
  await expect(page.getByRole('button', { name: /C-158/ }).first()).toBeVisible();
  await page.keyboard.press('Enter');
  await expect(page.getByRole('status').filter({ hasText: 'C-158' })).toContainText('cut 755 mm');
  const lit = (await page.getByTestId('lit-wire').boundingBox())!;
  const from = (await strip(page).getByText('firewall F1').boundingBox())!;
  const to = (await strip(page)
    .getByText(/^controller plug A \+/)
    .boundingBox())!;
  // from the block at the datum to the leg of its other end
  expect(Math.abs(lit.x - (from.x + from.width))).toBeLessThan(24);
  expect(lit.y + lit.height).toBeGreaterThan(to.y);
  await expect(page.getByRole('button', { name: 'C-158', exact: true })).toHaveAttribute('aria-pressed', 'true');
  await page.getByRole('button', { name: 'Stop showing C-158' }).click();
  await expect(page.getByTestId('lit-wire')).toHaveCount(0);
  // a number in the table lights its wire as well
  const first = page.getByRole('button', { name: /^C-\d+\w?$/ }).first();
  const number = (await first.textContent())!;
  await first.click();
  await expect(page.getByRole('status').filter({ hasText: number })).toBeVisible();
  await strip(page).press('Escape');
  await expect(page.getByTestId('lit-wire')).toHaveCount(0);
});

test('zoom keeps the place under the pointer; the small map moves the view; the strip takes the screen; the bar stays where it was put', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanSkerry());
  await openChassis(page, id);
  const pane = (await strip(page).boundingBox())!;
  const at = { x: pane.x + 430, y: pane.y + 205 };
  await page.mouse.move(at.x, at.y);
  const flag = page.getByTestId('cursor');
  const mm = async () => Number(await flag.textContent());
  const before = await mm();
  await page.keyboard.down('Control');
  for (let turn = 0; turn < 4; turn += 1) await page.mouse.wheel(0, -120);
  await page.keyboard.up('Control');
  await expect(minimap(page)).toBeVisible();
  await page.mouse.move(at.x + 1, at.y);
  await page.mouse.move(at.x, at.y);
  await expect.poll(async () => Math.abs((await mm()) - before)).toBeLessThanOrEqual(4);
  // the map: pressing its left edge shows the datum
  const left = () => strip(page).evaluate((one) => one.scrollLeft);
  expect(await left()).toBeGreaterThan(100);
  await minimap(page).click({ position: { x: 2, y: 40 } });
  expect(await left()).toBe(0);
  // what moves the cursor from elsewhere is shown
  await page.keyboard.press('/');
  await page.getByLabel('Find or do').fill('wheel speed front right');
  await page.getByRole('button', { name: /to wheel speed front right/ }).click();
  await expect.poll(left).toBeGreaterThan(100);
  await page.getByRole('button', { name: 'Fit the strip' }).click();
  await expect(minimap(page)).toHaveCount(0);
  // full screen
  await strip(page).focus();
  await page.keyboard.press('w');
  await expect.poll(async () => (await strip(page).boundingBox())!.width).toBeGreaterThan(1270);
  await page.keyboard.press('Escape');
  await expect.poll(async () => (await strip(page).boundingBox())!.width).toBeCloseTo(pane.width, 0);
  // the bar between strip and table
  const bar = page.getByRole('separator').last();
  await bar.focus();
  for (let step = 0; step < 6; step += 1) await page.keyboard.press('ArrowUp');
  const height = (await strip(page).boundingBox())!.height;
  expect(height).toBeLessThan(pane.height - 40);
  await page.reload();
  await expect.poll(async () => (await strip(page).boundingBox())?.height).toBeCloseTo(height, 0);
});
