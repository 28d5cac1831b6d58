import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import {
  CATALOGUE,
  createBuild,
  createRingOut,
  createStandInDevice,
  plan,
  STAND_IN,
  toTestsCsv,
  type Planted,
  type RingOut,
} from 'wattograph-core';
import { createCleanInlet, createTestJob, sendRelease, turnTo } from './helpers';

const EXCHANGED: Planted = {
  ...{ kind: 'moved', endId: 'B1' },
  moves: [
    ['5', '6'],
    ['6', '5'],
  ],
};

function createLoom(): { ringOut: RingOut; answer: (planted: readonly Planted[]) => (list: string) => string } {
  const job = createCleanInlet();
  const loom = plan(job, CATALOGUE).looms[0]!;
  const ringOut = createRingOut(job, CATALOGUE, loom, createBuild(job, loom, CATALOGUE).continuity);
  // as a real tester would answer, which does not say that it is none
  const asReal = (readings: string) => readings.replaceAll(`,${STAND_IN}`, '').replace(',instrument', '');
  return { ringOut, answer: (planted) => (list) => asReal(createStandInDevice(ringOut, planted, 11)(list)) };
}

async function release(request: Parameters<typeof sendRelease>[0]): Promise<string> {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).ok()).toBe(true);
  return id;
}

/** The list as the page gives it, answered by a tester, and read back. */
async function measure(page: Page, device: (list: string) => string): Promise<void> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Export for a tester' }).click();
  const list = readFileSync(await (await waiting).path(), 'utf8');
  const chooser = page.waitForEvent('filechooser');
  await page.getByRole('button', { name: 'Read a file' }).click();
  await (await chooser).setFiles({ name: 'readings.csv', mimeType: 'text/csv', buffer: Buffer.from(device(list)) });
}

test('a tester rings the loom out by file: the exchanged pair is named, mended, measured again, and the test is ticked; all of it is stored once', async ({
  page,
  request,
}) => {
  const id = await release(request);
  const { ringOut, answer } = createLoom();
  const total = ringOut.tests.length;
  await page.goto(`/jobs/${id}/brief`);
  await turnTo(page, 'p', /\/prove\?/);
  await expect(page.getByRole('heading', { name: 'Nothing is measured yet' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Read a file' })).toBeDisabled();
  await page.getByLabel('Instrument').fill('bench tester 2');
  await measure(page, answer([EXCHANGED]));
  await expect(page.getByText(/more measurements? would tell; each that is made may spare others\./)).toBeVisible();
  // what would tell is on the next list
  for (let round = 0; round < 3 && (await page.getByText('5 and 6 of inlet bulkhead B1 are exchanged.').count()) === 0; round += 1) {
    await measure(page, answer([EXCHANGED]));
    await page.waitForTimeout(300);
  }
  await expect(page.getByRole('heading', { name: '5 and 6 of inlet bulkhead B1 are exchanged.' })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  // it is there for whoever opens it next
  await page.reload();
  await page.getByRole('button', { name: 'Mended: measure it again' }).click();
  await page.getByRole('button', { name: 'Yes, it was done over' }).click();
  await expect(page.getByText(/^4 of \d+ pass|, 4 of them read before something was done over\.$/)).toBeVisible();
  await measure(page, answer([]));
  await expect(page.getByRole('heading', { name: `All ${total} measurements pass` })).toBeVisible();
  await page.getByRole('button', { name: 'Tick the test on the floor' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  const events = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as {
    id: string;
    kind: string;
    stepId: string;
    itemId: string;
    readId: string | null;
    instrument: string | null;
  }[];
  const readings = events.filter(({ kind }) => kind === 'reading');
  expect(new Set(readings.map(({ readId }) => readId)).size).toBeGreaterThan(total);
  expect(new Set(readings.map(({ instrument }) => instrument))).toEqual(new Set(['bench tester 2']));
  const inTable = readings.filter(({ readId }) => ringOut.tests.some((one) => one.id === readId));
  // every measurement of the table once, and the four that had to be made again
  expect(inTable).toHaveLength(total + 4);
  expect(events.filter(({ kind, stepId }) => kind === 'tick' && stepId === 'test').map(({ itemId }) => itemId)).toEqual([
    'pairs',
    'isolation',
  ]);
});

test('read by hand with no network: it is kept through a reload and sent once; work on the wire voids it', async ({
  page,
  request,
  context,
}) => {
  const id = await release(request);
  await page.goto(`/jobs/${id}/prove`);
  await page.getByLabel('Instrument').fill('milliohmmeter');
  await context.setOffline(true);
  const field = page.getByRole('textbox', { name: /^Reading/ });
  await field.fill('19 mΩ');
  await page.keyboard.press('Enter');
  await field.fill('21 mΩ');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('heading', { name: /^2 of \d+ pass, none fails$/ })).toBeVisible();
  await expect(page.getByRole('status').filter({ hasText: '2 readings kept here' })).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();
  await page.reload();
  await expect(page.getByRole('heading', { name: /^2 of \d+ pass, none fails$/ })).toBeVisible();
  // somebody does a cavity of the first one over
  const { ringOut } = createLoom();
  const [first] = ringOut.tests;
  const job = createCleanInlet();
  const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
  const seat = steps.find(({ operation, endId }) => operation === 'seat' && endId === first!.to!.endId)!;
  const item = seat.items.find(({ cavity }) => cavity === first!.to!.cavity)!;
  const event = {
    ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId: seat.id, itemId: item.id, kind: 'untick', words: '' },
    ...{ author: 'Tobin Ashgrove', happenedAt: new Date().toISOString() },
  };
  expect((await request.post(`/api/jobs/${id}/releases/1/events`, { data: { events: [event] } })).ok()).toBe(true);
  await expect(page.getByRole('heading', { name: /^1 of \d+ pass, none fails$/ })).toBeVisible();
  await expect(page.getByText(/1 of them read before something was done over/)).toBeVisible();
});

test('a file that is no list of readings says where, and nothing of it is stored', async ({ page, request }) => {
  const id = await release(request);
  const { ringOut } = createLoom();
  await page.goto(`/jobs/${id}/prove`);
  await page.getByLabel('Instrument').fill('bench tester 2');
  const [list] = [toTestsCsv(ringOut).split('\r\n').slice(0, 3)];
  await measure(page, () => [list[0], `${list[1]}0.02`, `${list[2]}much`].join('\r\n'));
  await expect(page.getByText('readings.csv was not taken; nothing was stored')).toBeVisible();
  await expect(page.getByText(/line 3, value.*expected a number or OL, got "much"/)).toBeVisible();
  await expect(page.getByRole('heading', { name: 'Nothing is measured yet' })).toBeVisible();
});
