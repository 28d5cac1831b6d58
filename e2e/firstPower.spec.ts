import { expect, test, type APIRequestContext } from '@playwright/test';
import { CATALOGUE, createBuild, createFirstPower, plan, POWER_STEP, type Job, type PowerTest } from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { createTestJob, sendEdit, sendRelease } from './helpers';

const job = createCleanSkerry();
const planned = plan(job, CATALOGUE);
const sheet = createFirstPower(job, planned, CATALOGUE)!;
const of = (part: PowerTest['part']) => sheet.tests.filter((one) => one.part === part);
const stamp = () => ({ author: 'Jun Okafor', happenedAt: new Date().toISOString(), words: '' });

const send = (request: APIRequestContext, id: string, events: object[]) =>
  request.post(`/api/jobs/${id}/releases/1/events`, { data: { events } });

/** The test of every loom ticked, as its bench does. */
const ringOut = (one: Job, looms = planned.looms) =>
  looms.flatMap((loom) =>
    createBuild(one, loom, CATALOGUE)
      .steps.filter(({ operation }) => operation === 'test')
      .flatMap(({ id, items }) =>
        items.map((item) => ({ id: crypto.randomUUID(), loomId: loom.loomId, stepId: id, itemId: item.id, kind: 'tick', ...stamp() })),
      ),
  );
const reading = (test: PowerTest, value: number, rest: object = {}) => ({
  ...{ id: crypto.randomUUID(), loomId: '', stepId: POWER_STEP, itemId: test.part, kind: 'reading', ...stamp() },
  ...{ readId: test.id, value, unit: test.unit, instrument: 'meter 4' },
  ...rest,
});

test('a vehicle gets power: not before every loom is rung out; a surprise stops it, says where to look, and is there after a reload', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await page.goto(`/jobs/${id}/prove?loom=inlet`);
  await page.getByRole('link', { name: 'first power' }).click();
  const blocks = page.getByRole('region', { name: 'No power yet' });
  await expect(blocks.getByRole('listitem')).toHaveCount(planned.looms.length);
  await page.getByLabel('Instrument').fill('meter 4');
  const field = page.getByRole('textbox', { name: /^Reading/ });
  await field.fill('OL');
  await page.keyboard.press('Enter');
  for (const { words, expected } of [...of('grounds'), ...of('buses')]) {
    await expect(page.getByRole('region', { name: 'Next reading' }).getByText(words)).toBeVisible();
    await field.fill(String(expected ?? 2.4));
    await page.keyboard.press('Enter');
  }
  await expect(page.getByRole('region', { name: 'Next reading' })).toHaveCount(0);
  // the looms are rung out elsewhere: this page hears of it
  expect((await send(request, id, ringOut(job))).ok()).toBe(true);
  const first = of('unplugged')[0]!;
  await expect(page.getByRole('region', { name: 'Next reading' }).getByText(first.words)).toBeVisible();
  await expect(blocks).toHaveCount(0);
  await field.fill('0,1');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: 'Stop: power off' })).toBeVisible();
  await expect(page.getByText(/^Open on its way, source first: wire .*main fuse/)).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: 'Stop: power off' })).toBeVisible();
  await page.getByRole('button', { name: 'Read it again' }).click();
  await field.fill('12.4');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /read, no surprise$/ })).toBeVisible();
  // two feeds that are one, read in by somebody else
  const before = sheet.tests.slice(
    0,
    sheet.tests.findIndex(({ part }) => part === 'feeds'),
  );
  const good = before.map((one) => reading(one, one.expected ?? (one.unit === 'Ω' ? 5000 : 3)));
  expect((await send(request, id, good)).ok()).toBe(true);
  const [feed] = of('feeds');
  await expect(page.getByRole('region', { name: 'Next reading' }).getByText(feed!.words)).toBeVisible();
  await field.fill('14');
  await page.keyboard.press('Enter');
  await page.getByRole('combobox', { name: /^What else woke with/ }).click();
  await page.getByRole('option', { name: 'radiator fan' }).click();
  await expect(page.getByText(/^Two nets are joined behind .*: radiator fan hangs on /)).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  // another revision, in which nothing of the wiring changed: what was read counts there, the surprise too
  expect((await sendEdit(request, id, 0, [{ op: 'replace', path: '/notes', value: 'fan looked at' }])).ok()).toBe(true);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await page.goto(`/jobs/${id}/prove/power`);
  await expect(page.getByRole('region', { name: 'The sheet' }).getByText('revision 1', { exact: true }).first()).toBeVisible();
  await expect(page.getByText(/^Two nets are joined behind .*: radiator fan hangs on /)).toBeVisible();
});

test('the server takes no reading with power before every loom is rung out, nor after one was done over', async ({ request }) => {
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const [bare] = of('bare');
  const [live] = of('unplugged');
  const say = async (...events: object[]) => {
    const answer = await send(request, id, events);
    return [answer.status(), await answer.text()] as const;
  };
  expect((await say(reading(bare!, 5000)))[0]).toBe(200);
  expect(await say(reading(live!, 12))).toEqual([422, expect.stringMatching(/no power yet: the .* loom is not rung out/)]);
  const [one, ...others] = planned.looms;
  expect((await say(...ringOut(job, others)))[0]).toBe(200);
  expect(await say(reading(live!, 12))).toEqual([422, expect.stringContaining(`the ${job.looms[one!.loomId]!.name} loom is not rung out`)]);
  // as a tablet tells it that was away: rung out, and then read
  expect((await say(...ringOut(job, [one!]), reading(live!, 12)))[0]).toBe(200);
  const crimp = createBuild(job, one!, CATALOGUE).steps.find(({ operation }) => operation === 'crimp')!;
  const redone = {
    ...{ id: crypto.randomUUID(), loomId: one!.loomId, stepId: crimp.id, itemId: crimp.items[0]!.id, kind: 'tick' },
    ...stamp(),
  };
  expect((await say(redone))[0]).toBe(200);
  expect(await say(reading(live!, 12))).toEqual([422, expect.stringContaining('not rung out')]);
});

test('the server takes readings that the revision asks for, and none with power on what is held from it', async ({ request }) => {
  const held = createCleanSkerry();
  const [loomId, endId] = ['engine', 'm-oil-level-switch'];
  const { pins } = held.looms[loomId]!.ends[endId]!;
  const [cavity] = Object.keys(pins);
  pins[cavity!] = { ...pins[cavity!]!, evidence: 'guessed', doubts: ['volts'] };
  const id = await createTestJob(request, held);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const [bare] = of('bare');
  const [live] = of('unplugged');
  const say = async (event: object) => {
    const answer = await send(request, id, [event]);
    return [answer.status(), await answer.text()] as const;
  };
  expect((await say(reading(bare!, 5000)))[0]).toBe(200);
  const [status, words] = await say(reading(live!, 12));
  expect([status, words]).toEqual([422, expect.stringContaining('held from power')]);
  for (const [wrong, expected] of [
    [{ readId: 'bare sky' }, 'expected something that is read at first power'],
    [{ itemId: 'start' }, 'expected something that is read at first power'],
    [{ loomId: 'engine' }, 'expected no loom'],
  ] as const)
    expect(await say(reading(bare!, 5000, wrong))).toEqual([422, expect.stringContaining(expected)]);
  const { readId: _, value: __, unit: ___, instrument: ____, ...tick } = reading(bare!, 1);
  expect(await say({ ...tick, kind: 'tick' })).toEqual([422, expect.stringContaining('expected a reading')]);
});
