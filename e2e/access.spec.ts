import { AxeBuilder } from '@axe-core/playwright';
import { expect, test, type Page } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { STATIONS } from '../web/ui/stations';
import { createTestJob, sendRelease, turnTo } from './helpers';

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

/** In the light by all rules, then in the dark, into which the page is turned as another tab of the same person would. */
async function expectNone(page: Page, name: string): Promise<void> {
  await expect(page.getByText(/Opening the job|Computing the plan/)).toHaveCount(0);
  const turn = async (theme: 'light' | 'dark') => {
    await page.evaluate((newValue) => {
      const key = 'mantine-color-scheme-value';
      window.dispatchEvent(new StorageEvent('storage', { storageArea: localStorage, key, newValue }));
    }, theme);
    await expect(page.locator('html')).toHaveAttribute('data-mantine-color-scheme', theme);
  };
  // a row that is half under the head of its list is no place to press: it is scrolled to
  await page.evaluate(() => document.querySelectorAll('main *').forEach((part) => part.scrollTo({ top: 0 })));
  for (const theme of ['light', 'dark'] as const) {
    await turn(theme);
    expect({ name, theme, barriers: await listBarriers(page, theme) }).toEqual({ name, theme, barriers: [] });
  }
}

const showsHead = (page: Page) => page.locator('main, h1').first().waitFor();

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
  ...(['survey', 'floor', 'prove', 'customer'] as const).map((slug): (typeof SCREENS)[number] => [
    slug,
    (id) => `/jobs/${id}/${slug}?loom=engine`,
    showsHead,
  ]),
  ['first power', (id) => `/jobs/${id}/prove/power`, showsHead],
  ['milestones', (id) => `/jobs/${id}/prove/milestones`, showsHead],
];

test('no screen beside the desk has a serious barrier, light or dark', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  // something to work on at the bench
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await expect.poll(async () => (await request.get(`/api/jobs/${id}/export?what=job&release=1`)).status()).toBe(200);
  for (const [name, path, ready] of SCREENS) {
    await page.goto(path(id));
    await ready(page);
    await expectNone(page, name);
  }
});

test('no station of the desk and no dialog has a serious barrier, light or dark', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/brief?loom=engine`);
  for (const { key, slug } of STATIONS.filter(({ slug }) => slug !== 'survey')) {
    await turnTo(page, key, new RegExp(`/${slug}\\?`));
    await showsHead(page);
    await expectNone(page, slug);
  }
  await page.goto(`/jobs/${id}/power?loom=chassis`);
  await page.getByRole('tab', { name: 'Switches' }).click();
  await expectNone(page, 'power, switches');
  await turnTo(page, '5', /\/bundle\?/);
  for (const tab of ['Lengths', 'Circuits', 'Findings']) {
    await page.getByRole('tab', { name: tab }).click();
    await page.getByRole('tabpanel').first().waitFor();
    await expectNone(page, `bundle, ${tab}`);
  }
  // dialogs, with what lies behind them
  await page.getByRole('button', { name: 'Add end' }).click();
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectNone(page, 'Add end');
  await page.keyboard.press('Escape');
  await expect(page.getByRole('dialog')).toBeHidden();
  await page.keyboard.press('?');
  await expect(page.getByRole('dialog')).toBeVisible();
  await expectNone(page, 'keys');
});
