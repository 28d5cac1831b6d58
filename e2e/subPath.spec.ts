import { spawn, type ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { findPort, killStarted } from './rig';

const root = join(__dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'wattograph-path-'));
let supervisor: ChildProcess | undefined;
/** it takes a build of its own: in the soak only */
const IS_SOAK = process.env.WATTOGRAPH_SOAK === '1';

test.afterAll(() => {
  supervisor?.kill('SIGKILL');
  killStarted(folder);
  rmSync(folder, { recursive: true, force: true });
});

test('under a path of a name: sign in, plan, look at sheets, work on the floor and at the car with no network; nothing is asked for beside the path', async ({
  browser,
}) => {
  test.skip(!IS_SOAK, 'it takes a build of its own: npm run soak');
  const port = await findPort();
  const { DATABASE_URL: _, ...env } = process.env;
  supervisor = spawn('node', ['scripts/demo.mjs'], {
    cwd: root,
    stdio: 'ignore',
    env: { ...env, WATTOGRAPH_PATH: '/loom', WATTOGRAPH_DATA: folder, PORT: String(port) },
  });
  const base = `http://127.0.0.1:${port}`;
  await expect
    .poll(
      () =>
        fetch(`${base}/loom/api/health`).then(
          ({ status }) => status,
          () => 0,
        ),
      { timeout: 240_000 },
    )
    .toBe(200);
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] }, viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  const beside: string[] = [];
  page.on('request', (request) => {
    const { pathname, protocol } = new URL(request.url());
    if (protocol === 'http:' && !pathname.startsWith('/loom')) beside.push(pathname);
  });
  const failed: string[] = [];
  page.on('response', (response) => {
    if (response.status() >= 400) failed.push(`${response.status()} ${response.url()}`);
  });
  await page.goto(`${base}/loom`);
  await expect(page).toHaveURL(`${base}/loom/sign-in?next=%2F`);
  await page.getByRole('button', { name: /^Imke Dorsey/ }).click();
  const pad = page.getByRole('group', { name: 'Digits of Imke Dorsey' });
  for (const digit of '1111') await pad.getByRole('button', { name: digit, exact: true }).click();
  await pad.getByRole('button', { name: 'Open' }).click();
  await page.getByRole('link', { name: 'Fen Ranger' }).click();
  await expect(page).toHaveURL(/\/loom\/jobs\/.*\/(bundle|brief)/);
  const job = page.url().replace(/\/(bundle|brief).*/, '');
  await page.goto(`${job}/bundle`);
  await page.getByRole('slider').first().focus();
  await page.keyboard.press('ArrowRight');
  await expect(page.getByRole('status').filter({ hasText: 'saved · v1' })).toBeVisible();
  await page.goto(`${job}/sheets`);
  await expect(page.getByRole('img').first()).toBeVisible();
  await page.goto(`${job}/survey`);
  await expect(page.getByRole('group', { name: 'Read from' })).toBeVisible();
  await page.evaluate(async () => void (await navigator.serviceWorker.ready));
  await page.reload();
  await expect(page.getByRole('group', { name: 'Read from' })).toBeVisible();
  await page.reload();
  await context.setOffline(true);
  await page.reload();
  await expect(page.getByRole('group', { name: 'Read from' })).toBeVisible();
  await context.setOffline(false);
  await page.goto(`${base}/loom/people`);
  await expect(page.getByRole('row', { name: /Tobin Ashgrove/ })).toBeVisible();
  expect(beside).toEqual([]);
  expect(failed).toEqual([]);
});
