import { expect, test, type Browser, type Page } from '@playwright/test';
import { CATALOGUE, createBuild, plan, type Step } from 'wattograph-core';
import { storageOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, passFirstOffs, readJob, sendRelease } from './helpers';

const job = createCleanInlet();
const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
const toEvents = (some: readonly Step[]) =>
  some.flatMap((step) =>
    step.items.map((item) => ({
      ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId: step.id, itemId: item.id, kind: 'tick', words: '' },
      happenedAt: '2026-11-24T08:00:00.000Z',
    })),
  );

/** Everything that has to be done before these steps, and what that needs. */
function listBefore(wanted: readonly Step[]): Step[] {
  const byId = new Map(steps.map((step) => [step.id, step]));
  const before = new Set<Step>();
  const add = (step: Step): void => {
    for (const { stepId } of step.needs) {
      const need = byId.get(stepId);
      if (!need || before.has(need)) continue;
      before.add(need);
      add(need);
    }
  };
  wanted.forEach(add);
  return [...before].filter((step) => !wanted.includes(step));
}

async function openTablet(browser: Browser, who: 'imke' | 'tobin', id: string): Promise<Page> {
  const context = await browser.newContext({ storageState: storageOf(who), viewport: { width: 1024, height: 768 } });
  const page = await context.newPage();
  await page.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/floor?loom=inlet`);
  await expect(page.getByRole('button', { name: 'Steps', exact: true })).toBeVisible();
  return page;
}

/** Crimps and seats an end, by the list. */
async function makeEnd(page: Page, name: string): Promise<void> {
  await page.getByRole('button', { name: 'Steps', exact: true }).click();
  await page.getByRole('button', { name: /^All / }).click();
  const take = page.getByRole('button', { name: `Take ${name}`, exact: true });
  if (await take.isVisible()) await take.click();
  await expect(page.getByRole('button', { name: `Leave ${name}`, exact: true })).toBeVisible();
  for (const work of ['Crimp', 'Seat the contacts of']) {
    if (work !== 'Crimp') await page.getByRole('button', { name: 'Steps', exact: true }).click();
    await page.getByLabel('Find an end, a wire or a step').fill(`${work} ${name}`);
    await page.keyboard.press('Enter');
    await expect(page.getByRole('heading', { level: 1 })).toHaveText(`${work} ${name}`);
    if (work === 'Crimp') await passFirstOffs(page);
    // a button that opens readings is not one that is pressed
    const items = page.getByRole('list', { name: 'To do' }).locator('button[aria-pressed="false"]');
    for (let left = await items.count(); left > 0; left -= 1) {
      await items.first().click();
      await expect(items).toHaveCount(left - 1);
    }
  }
}

test('two tablets at one loom: each sees what the other takes; with no network one makes injectors 1 to 3 and the other 4 to 6, and nothing is lost or doubled', async ({
  browser,
  request,
}) => {
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const ends = ['inj1', 'inj2', 'inj3', 'inj4', 'inj5', 'inj6'];
  const wanted = steps.filter(({ endId, operation }) => ends.includes(endId ?? '') && (operation === 'crimp' || operation === 'seat'));
  const before = toEvents(listBefore(wanted));
  for (let from = 0; from < before.length; from += 400)
    expect((await request.post(`/api/jobs/${id}/releases/1/events`, { data: { events: before.slice(from, from + 400) } })).status()).toBe(
      200,
    );
  const [imke, tobin] = [await openTablet(browser, 'imke', id), await openTablet(browser, 'tobin', id)];
  // online: taken here, seen there
  await imke.getByRole('button', { name: 'Steps', exact: true }).click();
  await imke.getByRole('button', { name: /^All / }).click();
  await imke.getByRole('button', { name: 'Take injector 1', exact: true }).click();
  await tobin.getByRole('button', { name: 'Steps', exact: true }).click();
  await tobin.getByRole('button', { name: /^All / }).click();
  await expect(tobin.getByRole('region', { name: 'injector 1', exact: true })).toContainText('Imke Dorsey is here');
  await expect(tobin.getByRole('button', { name: 'Join injector 1', exact: true })).toBeVisible();
  for (const page of [imke, tobin]) {
    await page.getByRole('button', { name: 'Steps', exact: true }).click();
    await page.context().setOffline(true);
  }
  for (const [at, end] of [1, 2, 3].entries()) {
    await makeEnd(imke, `injector ${end}`);
    await makeEnd(tobin, `injector ${at + 4}`);
  }
  for (const page of [imke, tobin]) await expect(page.getByRole('status')).toContainText('kept here');
  for (const page of [imke, tobin]) await page.context().setOffline(false);
  for (const page of [imke, tobin]) await expect(page.getByRole('status')).toHaveText('all stored');
  const events = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as Record<string, string>[];
  const contacts = events.filter(({ kind, stepId }) => kind === 'tick' && wanted.some((step) => step.id === stepId));
  const cavities = wanted.flatMap(({ id: stepId, items }) => items.map((item) => `${stepId} ${item.id}`));
  expect(contacts.map(({ stepId, itemId }) => `${stepId} ${itemId}`).sort()).toEqual(cavities.sort());
  const by = (author: string) =>
    [...new Set(contacts.filter((one) => one.author === author).map(({ stepId }) => stepId!.slice(-1)))].sort();
  expect([by('Imke Dorsey'), by('Tobin Ashgrove')]).toEqual([
    ['1', '2', '3'],
    ['4', '5', '6'],
  ]);
  await imke.getByRole('button', { name: 'Steps', exact: true }).click();
  await imke.getByRole('button', { name: /^All / }).click();
  await expect(imke.getByRole('region', { name: 'injector 5', exact: true })).toContainText('Tobin Ashgrove is here');
  for (const page of [imke, tobin]) await page.context().close();
});

test('only a lane of the revision is taken', async ({ request }) => {
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const send = async (itemId: string, stepId = '', kind = 'take') => {
    const event = {
      ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId, itemId, kind, words: '' },
      happenedAt: '2026-11-24T08:00:00.000Z',
    };
    return (await request.post(`/api/jobs/${id}/releases/1/events`, { data: { events: [event] } })).status();
  };
  expect(await send('end inj1')).toBe(200);
  expect(await send('end inj1', '', 'leave')).toBe(200);
  expect(await send('end nobody')).toBe(422);
  expect(await send('end inj1', 'crimp.inj1')).toBe(422);
  expect(await send('post cut')).toBe(200);
});

test('a problem told at a tablet is on the planner’s wall by itself; her answer is at the step, and what is to be done over is open again', async ({
  browser,
  page,
  request,
}) => {
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await page.goto('/');
  const tobin = await openTablet(browser, 'tobin', id);
  const title = await tobin.getByRole('heading', { level: 1 }).innerText();
  await tobin.getByRole('list', { name: 'To do' }).locator('button[aria-pressed]').first().click();
  const words = `sleeve too tight ${id.slice(0, 8)}`;
  const tell = async (photo: Buffer | null = null) => {
    await tobin.getByRole('button', { name: 'Problem' }).click();
    await tobin.getByLabel('Reason').fill(words);
    if (photo) await tobin.getByLabel('With a photo').setInputFiles({ name: 'sleeve.png', mimeType: 'image/png', buffer: photo });
    await tobin.getByRole('button', { name: 'Keep' }).click();
  };
  const { default: sharp } = await import('sharp');
  await tell(
    await sharp({ create: { width: 60, height: 40, channels: 3, background: '#884422' } })
      .png()
      .toBuffer(),
  );
  await expect(tobin.getByText('It is on the wall of whoever plans.')).toBeVisible();
  // crew does not answer, whatever it sends
  const step = steps.find((one) => one.title === title)!;
  const answer = {
    ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId: step.id, itemId: 'carry-on', kind: 'answer', words: 'x' },
    happenedAt: '2026-11-24T08:00:00.000Z',
  };
  const path = `/api/jobs/${id}/releases/1/events`;
  expect((await tobin.request.post(path, { data: { events: [answer] } })).status()).toBe(403);
  expect((await request.post(path, { data: { events: [{ ...answer, itemId: 'shrug' }] } })).status()).toBe(422);
  const onWall = page.getByRole('region', { name: /^From the floor/ }).getByRole('link', { name: words });
  // named as people name them, not by ids
  await expect(page.getByRole('listitem').filter({ hasText: words })).toContainText(`· inlet, ${title}`);
  await expect(page.getByRole('listitem').filter({ hasText: words })).toContainText('for you, who released revision 1');
  // with its picture, there and at the step
  const isShown = (picture: HTMLImageElement) => picture.complete && picture.naturalWidth > 0;
  const onCard = page.getByRole('listitem').filter({ hasText: words }).getByRole('img', { name: 'photo of the problem' });
  await expect.poll(() => onCard.evaluate(isShown)).toBe(true);
  await onWall.click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(title);
  await expect.poll(() => page.getByRole('img', { name: 'photo of the problem' }).evaluate(isShown)).toBe(true);
  await page.getByRole('button', { name: 'Redo' }).click();
  await page.getByLabel('Reason').fill('the other reel');
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(tobin.getByText('Do it over: the other reel (Imke Dorsey)')).toBeVisible();
  await expect(tobin.getByRole('list', { name: 'To do' }).locator('button[aria-pressed="true"]')).toHaveCount(0);
  await page.goto('/');
  await expect(page.getByText('jobs in work')).toBeVisible();
  await expect(onWall).toHaveCount(0);
  // told again it is let pass until a day: the job has a concession of it
  await tell();
  await expect(tobin.getByText('It is on the wall of whoever plans.')).toBeVisible();
  await onWall.click();
  await page.getByRole('button', { name: 'Let pass until …' }).click();
  await page.getByRole('textbox', { name: 'Until' }).fill('1 Feb 2027');
  await page.keyboard.press('Tab');
  await page.getByLabel('Who asks the customer').fill('Jun Okafor');
  await page.getByRole('button', { name: 'Let it pass', exact: true }).click();
  await expect(tobin.getByText(`Let pass: ${words}, until 2027-02-01; Jun Okafor asks the customer (Imke Dorsey)`)).toBeVisible();
  const { document } = await readJob(request, id);
  expect(
    Object.values(document.openItems).filter(
      ({ kind, due, owner }) => kind === 'concession' && due === '2027-02-01' && owner === 'Jun Okafor',
    ),
  ).toHaveLength(1);
  await tobin.context().close();
});
