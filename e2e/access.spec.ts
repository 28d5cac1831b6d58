import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob, sendRelease } from './helpers';

const RULES = ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'];

/** What a check by machine finds against WCAG 2.2 AA, as words that name the place. In the dark only colours are others. */
async function listBarriers(page: Page, theme: 'light' | 'dark'): Promise<string[]> {
  // what passes is not told, and what is found is gathered in this page: both together take twice as long as the rules themselves
  const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] }).setLegacyMode();
  const { violations } = await (theme === 'light' ? axe.withTags(RULES) : axe.withRules(['color-contrast'])).analyze();
  return violations
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .flatMap(({ id, nodes }) => nodes.map(({ html }) => `${id}: ${html.slice(0, 160)}`));
}

/** A screen with what shows that it is there. */
const SCREENS: [name: string, path: (id: string) => string, ready: (page: Page) => Promise<unknown>][] = [
  [
    'Jobs',
    () => '/',
    (page) =>
      page
        .getByRole('link', { name: /Skerry/ })
        .first()
        .waitFor(),
  ],
  ['Shop', () => '/shop', (page) => page.getByRole('button', { name: /^Housings/ }).click()],
  ['People, letting somebody in', () => '/people', (page) => page.getByRole('button', { name: 'Let somebody in' }).click()],
  ['the way in', () => '/sign-in', (page) => page.getByRole('textbox', { name: 'Sign-in name' }).waitFor()],
  ['a code', () => '/welcome', (page) => page.getByRole('textbox', { name: 'Code' }).waitFor()],
  ...(['brief', 'survey', 'circuits', 'power', 'bundle', 'dress', 'ends', 'board', 'sheets', 'floor', 'prove', 'customer'] as const).map(
    (slug): (typeof SCREENS)[number] => [
      slug,
      (id) => `/jobs/${id}/${slug}?loom=engine`,
      (page) => page.locator('main, h1').first().waitFor(),
    ],
  ),
  ['first power', (id) => `/jobs/${id}/prove/power`, (page) => page.locator('main, h1').first().waitFor()],
  ['milestones', (id) => `/jobs/${id}/prove/milestones`, (page) => page.locator('main, h1').first().waitFor()],
  ['power, switches', (id) => `/jobs/${id}/power?loom=chassis`, (page) => page.getByRole('tab', { name: 'Switches' }).click()],
  ...(['lengths', 'circuits', 'findings'] as const).map((tab): (typeof SCREENS)[number] => [
    `bundle, ${tab}`,
    (id) => `/jobs/${id}/bundle?loom=chassis&tab=${tab}`,
    (page) => page.getByRole('tabpanel').first().waitFor(),
  ]),
];

for (const theme of ['light', 'dark'] as const)
  test(`no screen has a serious barrier, ${theme}`, async ({ page, request }) => {
    const id = await createTestJob(request, createCleanSkerry());
    // something to work on at the bench
    expect((await sendRelease(request, id)).ok()).toBe(true);
    await expect.poll(async () => (await request.get(`/api/jobs/${id}/export?what=job&release=1`)).status()).toBe(200);
    await page.addInitScript((value) => localStorage.setItem('mantine-color-scheme-value', value), theme);
    for (const [name, path, ready] of SCREENS) {
      await page.goto(path(id));
      await ready(page);
      await expect(page.getByText(/Opening the job|Computing the plan/)).toHaveCount(0);
      expect({ name, barriers: await listBarriers(page, theme) }).toEqual({ name, barriers: [] });
    }
    // a dialog, with what lies behind it
    await page.goto(`/jobs/${id}/bundle?loom=chassis`);
    await page.getByRole('button', { name: 'Add end' }).click();
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await listBarriers(page, theme)).toEqual([]);
    await page.keyboard.press('Escape');
    await page.keyboard.press('?');
    await expect(page.getByRole('dialog')).toBeVisible();
    expect(await listBarriers(page, theme)).toEqual([]);
  });
