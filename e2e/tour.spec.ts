import { expect, test, type Page } from '@playwright/test';
import { createSkerry } from 'wattograph-core/demo';
import { TOUR, TOUR_JOB } from '../web/ui/tour/steps';

const card = (page: Page) => page.getByRole('region', { name: 'Tour' });

test.beforeAll(async ({ request }) => {
  // the demo is there, or comes now
  const answer = await request.post('/api/jobs', { data: { id: TOUR_JOB, author: 'x', document: createSkerry() } });
  expect([200, 201, 409]).toContain(answer.status());
});

test('the tour goes through the stations, survives a reload, and frames what it speaks of', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Show me round' }).click();
  for (const [nth, { title, at, frame }] of TOUR.entries()) {
    await expect(card(page).getByRole('heading', { name: title })).toBeFocused();
    await expect(card(page)).toContainText(`${nth + 1} of ${TOUR.length}`);
    await expect(page).toHaveURL(at === null ? /\/$/ : new RegExp(`/jobs/${TOUR_JOB}/${at.replace('?', '\\?')}$`));
    if (frame) await expect(page.locator(frame).first()).toBeVisible();
    if (nth === 4) await page.reload();
    if (nth < TOUR.length - 1) await card(page).getByRole('button', { name: 'Next' }).click();
  }
  await card(page).getByRole('button', { name: 'Done' }).click();
  await expect(card(page)).toHaveCount(0);
  await expect(page.getByRole('button', { name: 'Show me round' })).toHaveCount(0);
});

test('it can be left at any step, is not offered again by itself, and begins again when asked for', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'Show me round' }).click();
  await card(page).getByRole('button', { name: 'Next' }).click();
  await expect(card(page)).toContainText('2 of');
  await page.keyboard.press('Escape');
  await expect(card(page)).toHaveCount(0);
  await page.goto('/');
  await expect(page.getByRole('button', { name: 'New job' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Show me round' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Five-minute tour' }).click();
  await expect(card(page)).toContainText('1 of');
});

test('the first page is light: at most 350 kB of script, as it is sent', async ({ page }) => {
  await page.goto('/');
  await page.waitForLoadState('networkidle');
  const sent = await page.evaluate(() =>
    performance
      .getEntriesByType('resource')
      .filter(({ name }) => name.endsWith('.js'))
      .reduce((sum, entry) => sum + (entry as PerformanceResourceTiming).encodedBodySize, 0),
  );
  expect(sent).toBeGreaterThan(50 * 1024);
  expect(sent).toBeLessThanOrEqual(350 * 1024);
});
