import { expect, test } from '@playwright/test';
import { CATALOGUE, createBuild, MILESTONE_STEP, plan } from 'wattograph-core';
import { createCleanSkerry } from 'wattograph-core/demo';
import { storageOf } from '../scripts/lib/testPeople.cjs';
import { createTestJob, sendEdit, sendRelease } from './helpers';

test('what is left until the first start shrinks as the crew works; a check made with no network counts in the next revision too', async ({
  browser,
  request,
}) => {
  const job = createCleanSkerry();
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const context = await browser.newContext({ storageState: storageOf('tobin'), viewport: { width: 1280, height: 800 } });
  const page = await context.newPage();
  await page.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/prove/milestones`);
  const start = page.getByRole('group', { name: 'Milestones' }).getByRole('button', { name: /^First start/ });
  await expect(start).toContainText(/h of work/);
  const before = await start.innerText();
  // another tablet: every wire of the inlet cut, a minute each, but for an hour's pause
  const inlet = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'inlet')!;
  const cuts = createBuild(job, inlet, CATALOGUE).steps.filter(({ operation }) => operation === 'cut');
  let minute = 0;
  const events = cuts.flatMap(({ id: stepId, items }) =>
    items.map((item, at) => {
      minute += at === 3 ? 60 : 1;
      return {
        ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId, itemId: item.id, kind: 'tick', words: '', author: 'Tobin Ashgrove' },
        happenedAt: new Date(Date.UTC(2026, 10, 29, 7, minute)).toISOString(),
      };
    }),
  );
  const tell = (told: object[], release = 1) => request.post(`/api/jobs/${id}/releases/${release}/events`, { data: { events: told } });
  expect((await tell(events)).ok()).toBe(true);
  await expect(async () => expect(await start.innerText()).not.toBe(before)).toPass();
  const times = page.getByRole('region', { name: 'Times' });
  // when the first one was begun nobody knows
  await expect(times.getByRole('row', { name: /^cut/ }).getByRole('cell').first()).toHaveText(`${events.length - 1}`);

  // out in the yard there is no network
  await context.setOffline(true);
  const check = page.getByRole('checkbox', { name: 'exhaust on' });
  await check.check();
  await expect(page.getByRole('status').filter({ hasText: 'kept here' })).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();

  // another revision: the vehicle is the same
  expect((await sendEdit(request, id, 0, [{ op: 'replace', path: '/notes', value: 'exhaust looked at' }])).ok()).toBe(true);
  expect((await sendRelease(request, id)).ok()).toBe(true);
  await page.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/prove/milestones`);
  await expect(page.getByRole('checkbox', { name: 'exhaust on' })).toBeChecked();

  // the server takes checks that the shop asks for, of the vehicle, and times by the event that ended them
  const of = (rest: object) => ({
    ...{ id: crypto.randomUUID(), loomId: '', stepId: MILESTONE_STEP, itemId: 'exhaust on', kind: 'tick', words: '' },
    ...{ author: 'Tobin Ashgrove', happenedAt: new Date().toISOString() },
    ...rest,
  });
  const say = async (event: object) => {
    const answer = await tell([event], 2);
    return [answer.status(), await answer.text()] as const;
  };
  expect((await say(of({ kind: 'untick' })))[0]).toBe(200);
  const [cut] = cuts;
  const time = { loomId: 'inlet', stepId: cut!.id, itemId: cut!.items[0]!.id, kind: 'worked' };
  expect((await say(of({ ...time, words: events[0]!.id })))[0]).toBe(200);
  for (const [wrong, expected] of [
    [{ itemId: 'seats in' }, 'expected a check of the shop’s milestones'],
    [{ loomId: 'inlet' }, 'expected no loom'],
    [{ kind: 'problem' }, 'expected a tick'],
    [{ ...time, words: 'yes' }, 'expected the id of the event that ended the time'],
  ] as const)
    expect(await say(of(wrong))).toEqual([422, expect.stringContaining(expected)]);
  await context.close();
});
