import { readFileSync } from 'node:fs';
import { expect, test } from '@playwright/test';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob, pick, readJob, saved, sendRelease } from './helpers';

test.use({ viewport: { width: 1280, height: 800 } });

test('a hole that is too small leaves an end over: it is closed in the vehicle, and the floor works in that order', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/dress?loom=inlet&at=hole:hole`);
  const view = page.getByRole('region', { name: 'plenum bracket hole', exact: true });
  await expect(view.getByRole('img', { name: /parts in the order in which they are led through$/ })).toBeVisible();
  await view.getByLabel('Bore of plenum bracket hole').fill('28');
  await page.keyboard.press('Enter');
  const fix = view.getByRole('button', { name: /^Close throttle.* in the vehicle$/ });
  await fix.click();
  await expect(fix).toHaveCount(0);
  await expect(view.getByText(/closed in the vehicle: bunched and rung on the bench/)).toBeVisible();
  await saved(page);
  expect((await readJob(request, id)).document.looms.inlet!.ends.thr!.pinAt).toBe('vehicle');

  // a tail is potted: what is mixed is told when its cavity is measured
  await page.goto(`/jobs/${id}/ends?loom=inlet&end=chg`);
  await pick(page, 'Potted with', 'flexible potting resin');
  for (const [label, value] of [
    ['Cavity length', '18'],
    ['Cavity width', '12'],
    ['Cavity depth', '9'],
    ['Volume of contacts', '36'],
  ] as const) {
    await page.getByLabel(label).fill(value);
    await page.keyboard.press('Enter');
  }
  await expect(page.getByTestId('potting')).toContainText(/ml, .* g = .* Cures in 23 h at 18 °C/);
  await saved(page);

  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto(`/jobs/${id}/sheets?loom=inlet`);
  await expect(
    page.getByRole('img', { name: /^Through holes, page \d+$/ }).filter({ hasText: 'Closed in the vehicle: throttle' }),
  ).toBeVisible();
  await page.getByRole('button', { name: 'Export' }).click();
  const coming = page.waitForEvent('download');
  await page.getByRole('menuitem', { name: 'Through holes' }).click();
  const drawn = readFileSync(await (await coming).path(), 'utf8');
  expect((await coming).suggestedFilename()).toMatch(/through-holes.*\.dxf$/);
  expect(drawn).toContain('CIRCLE');

  await page.goto(`/jobs/${id}/floor?loom=inlet`);
  const title = page.getByRole('heading', { level: 1 });
  const seen: string[] = [];
  for (;;) {
    seen.push((await title.textContent())!);
    const next = page.getByRole('button', { name: /^(Skip for now|Next step)$/ });
    if (await next.isDisabled()) break;
    await next.click();
  }
  const order = [
    'Bunch the contacts of throttle and tape them',
    'Ring out every pair against the continuity table',
    'Lead the loom into the vehicle',
    'Seat the contacts of throttle',
    'Ring out throttle once more',
    'Second person looks the loom over and signs',
    'Clip the loom in the vehicle',
  ].map((words) => seen.indexOf(words));
  expect(order).not.toContain(-1);
  // the bunch and the test wait for nothing of one another
  expect(order.slice(1)).toEqual([...order.slice(1)].sort((a, b) => a - b));
  expect(order[0]).toBeLessThan(order[2]!);
  // the cure counts from the pouring
  const cure = seen.indexOf('Let charge pressure cure');
  for (let at = seen.length - 1; at > cure - 1; at -= 1) await page.getByRole('button', { name: 'Back', exact: true }).click();
  await expect(title).toHaveText('Pot charge pressure');
  await page.getByRole('button', { name: /ml poured from one corner/ }).click();
  await page.getByRole('button', { name: /^(Skip for now|Next step)$/ }).click();
  await expect(page.getByRole('timer')).toContainText(/^Poured .* Ready .*: 22 h \d+ min to go/);
});

test('tails are gathered at a connector, as a loom of their own, and undo brings them back', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanSkerry());
  await page.goto(`/jobs/${id}/circuits?loom=inlet`);
  await page.getByRole('tab', { name: 'Breaks' }).click();
  await page.getByRole('button', { name: 'Gather tails at a connector …' }).click();
  const dialog = page.getByRole('dialog', { name: 'Gather tails at a connector' });
  await dialog.getByRole('combobox', { name: 'Loom' }).click();
  await page.getByRole('option', { name: 'inlet', exact: true }).click();
  await expect(dialog.getByTestId('contacts')).toContainText(/contacts if every wire came through by itself; shared .* to spare/);
  await dialog.getByLabel('Name of the connector').fill('rail junction');
  await dialog.getByRole('button', { name: 'Gather them' }).click();
  await expect(dialog).toHaveCount(0);
  await saved(page);
  const looms = async () => Object.values((await readJob(request, id)).document.looms).map(({ name }) => name);
  expect(await looms()).toContain('rail junction tails');
  await page.keyboard.press('u');
  await saved(page);
  await expect.poll(looms).not.toContain('rail junction tails');
});
