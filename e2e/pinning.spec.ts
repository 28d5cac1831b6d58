import { expect, test } from '@playwright/test';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { storageOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, sendRelease } from './helpers';

const job = createCleanInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const seat = steps.find(({ id }) => id === 'seat.B1')!;
const DONE = 18;

test('a power cut with the nineteenth contact in hand: somebody else signs in on the tablet, is shown that one as doubtful and eighteen confirmed', async ({
  browser,
  request,
}) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const events = seat.items.slice(0, DONE).map((item) => ({
    ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId: seat.id, itemId: item.id, kind: 'tick', words: '' },
    ...{ author: 'Tobin Ashgrove', happenedAt: new Date().toISOString() },
  }));
  expect((await request.post(`/api/jobs/${id}/releases/1/events`, { data: { events } })).ok()).toBe(true);
  const context = await browser.newContext({ storageState: storageOf('tobin'), viewport: { width: 1024, height: 768 } });
  const card = `${process.env.E2E_ADDRESS}/jobs/${id}/floor?loom=inlet&card=${encodeURIComponent(`step ${seat.id}`)}`;
  const page = await context.newPage();
  await page.goto(card);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(seat.title);
  await page.getByRole('button', { name: 'One at a time' }).click();
  const one = page.getByRole('region', { name: 'One cavity' });
  const nineteenth = seat.items[DONE]!.cavity!;
  await expect(one.locator('strong')).toHaveText(nineteenth);
  // the radio is away as well: what is in hand is known to the tablet alone
  await context.setOffline(true);
  await one.getByRole('button', { name: 'Take it' }).click();
  await expect(one.getByRole('button', { name: 'Seated: clicked, tugged' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: '1 kept here' })).toBeVisible();
  await page.close();
  await context.setOffline(false);

  // Tobin's own reload first: it was interrupted for him too; then it is sent
  const again = await context.newPage();
  await again.goto(card);
  await expect(again.getByRole('alert').filter({ hasText: 'Tobin Ashgrove had it in hand when work stopped' })).toBeVisible();
  await expect(again.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  await again.close();

  // the tablet is handed to Saoirse
  await context.clearCookies();
  await context.addCookies(storageOf('saoirse').cookies);
  const next = await context.newPage();
  // wherever she opens the loom, what is doubtful comes first
  await next.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/floor?loom=inlet`);
  const shown = next.getByRole('region', { name: 'One cavity' });
  await expect(next.getByRole('heading', { level: 1 })).toHaveText(seat.title);
  await expect(shown.locator('strong')).toHaveText(nineteenth);
  await expect(shown.getByText(`${DONE} of ${seat.items.length} confirmed · 1 doubtful`)).toBeVisible();
  await expect(next.getByRole('button', { name: 'Skip for now' })).toBeDisabled();
  await shown.getByRole('button', { name: 'It is good' }).click();
  await expect(shown.getByText(`${DONE + 1} of ${seat.items.length} confirmed`)).toBeVisible();
  await expect(next.getByRole('button', { name: 'Skip for now' })).toBeEnabled();
  await expect(next.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  const told = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as {
    kind: string;
    author: string;
    itemId: string;
  }[];
  expect(told.slice(DONE).map(({ kind, author, itemId }) => [kind, author, itemId])).toEqual([
    ['hand', 'Tobin Ashgrove', seat.items[DONE]!.id],
    ['tick', 'Saoirse Vell', seat.items[DONE]!.id],
  ]);
});
