import { expect, test } from '@playwright/test';
import { CATALOGUE, createBuild, CRIMP_STEP, listCrimpSeries, plan, type SampleSet } from 'wattograph-core';
import { cookieOf, storageOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, passSamples, sendRelease } from './helpers';

const job = createCleanInlet();
const loom = plan(job, CATALOGUE).looms[0]!;
const { steps } = createBuild(job, loom, CATALOGUE);
const crimp = steps.find(({ id }) => id === 'crimp.B1')!;
const series = listCrimpSeries(loom, steps, CATALOGUE.contacts).filter(({ places }) => places.some(({ stepId }) => stepId === crimp.id));
const countHere = ({ places }: (typeof series)[number]) => places.filter(({ stepId }) => stepId === crimp.id).length;
/** the kind of which the end has most */
const made = [...series].sort((a, b) => countHere(b) - countHere(a))[0]!;
const least = made.leastN[0]!;
const here = made.places.filter(({ stepId }) => stepId === crimp.id);

interface Told {
  kind: string;
  stepId: string;
  itemId: string;
  samples?: SampleSet | null;
}

test('a first-off before the first crimp, another reel with a bad sample: what was made since is taken back by name, on every tablet', async ({
  browser,
  request,
}) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const context = await browser.newContext({ storageState: storageOf('tobin'), viewport: { width: 1024, height: 768 } });
  const page = await context.newPage();
  const open = async (on: typeof page) => {
    await on.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/floor?loom=inlet&card=${encodeURIComponent(`step ${crimp.id}`)}`);
    await expect(on.getByRole('heading', { level: 1 })).toHaveText(crimp.title);
  };
  await open(page);
  const proof = page.getByRole('region', { name: 'How the crimps are proved' });
  const todo = page.getByRole('list', { name: 'To do' });
  const item = (itemId: string) => todo.getByRole('button').filter({ hasText: crimp.items.find((one) => one.id === itemId)!.words });
  await expect(item(here[0]!.itemId)).toBeDisabled();
  await proof.getByRole('button', { name: /other kinds here/ }).click();
  const line = proof.getByRole('listitem').filter({ hasText: `${made.contactName} on ${made.wires}${made.tool}` });
  await line.getByRole('button', { name: '3 samples' }).click();
  await passSamples(page.getByRole('dialog'));
  for (const { itemId } of here.slice(0, 2)) await item(itemId).click();
  await expect(line.getByText(/^proved \d\d:\d\d, 2 of 100 since$/)).toBeVisible();

  // with the radio away another reel is put on, and its sample comes out too early
  await context.setOffline(true);
  await line.getByRole('button', { name: `Change … ${made.contactName}` }).click();
  await line.getByRole('button', { name: 'another reel' }).click();
  await expect(item(here[2]!.itemId)).toBeDisabled();
  await line.getByRole('button', { name: '1 sample', exact: true }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByRole('button', { name: 'Looks right' }).click();
  await dialog.getByLabel(/^pull, at least/).fill(String(least - 2));
  await expect(dialog.getByText(`${least - 2} N, at least ${least} N`)).toBeVisible();
  await dialog.getByRole('button', { name: 'Keep: it fails' }).click();
  await expect(proof.getByRole('alert')).toContainText('2 crimps since');
  await expect(item(here[0]!.itemId)).toContainText('Not done: a sample of Tobin Ashgrove failed');
  await expect(page.getByRole('status').filter({ hasText: 'kept here' })).toBeVisible();
  await context.setOffline(false);
  await expect(page.getByRole('status').filter({ hasText: 'all stored' })).toBeVisible();

  // Saoirse's tablet says the same, and asks her for samples of her own
  const other = await (await browser.newContext({ storageState: storageOf('saoirse'), viewport: { width: 1024, height: 768 } })).newPage();
  await open(other);
  const theirs = other.getByRole('region', { name: 'How the crimps are proved' });
  await expect(theirs.getByRole('alert')).toContainText(
    `Here: ${here
      .slice(0, 2)
      .map(({ cavity }) => cavity)
      .join(', ')}`,
  );
  await theirs.getByRole('button', { name: /other kinds here/ }).click();
  await expect(theirs.getByText('a sample failed: 3 samples before the next')).toBeVisible();
  await theirs.getByRole('button', { name: 'Cut them off and open them again' }).click();
  await expect(theirs.getByRole('alert')).toHaveCount(0);
  await expect(proof.getByRole('alert')).toHaveCount(0);
  const told = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as Told[];
  expect(told.map(({ kind }) => kind)).toEqual(['gauge', 'sample', 'tick', 'tick', 'changeover', 'sample', 'untick', 'untick']);
  expect(told[5]!.samples).toMatchObject({ reason: 'reel', pullTester: 'pull tester 2', samples: [{ bad: [], pullsN: [least - 2] }] });
  // three samples, two crimps and one sample more were made with the tool
  await other.reload();
  await theirs.getByRole('button', { name: '3 samples' }).first().click();
  await expect(other.getByRole('dialog')).toContainText(
    /: calibrated until \d{4}-\d\d-\d\d, (?:[6-9]|\d\d+) of 10000 crimps since its service/,
  );
});

test('what no revision asks for is refused with its reason, and the tool is counted once however often a tick is sent', async ({
  request,
}) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).ok()).toBe(true);
  const set = (part: Partial<SampleSet> = {}): SampleSet => ({
    ...{ reason: 'first', pullTester: 'pull tester 2', heightGauge: null, samples: [{ bad: [], heightMm: null, pullsN: [90] }] },
    ...part,
  });
  const send = async (part: object) => {
    const event = {
      ...{ id: crypto.randomUUID(), loomId: 'inlet', stepId: CRIMP_STEP, itemId: made.id, kind: 'sample', words: '' },
      ...{ happenedAt: new Date().toISOString(), samples: set() },
      ...part,
    };
    const response = await request.post(`/api/jobs/${id}/releases/1/events`, {
      data: { events: [event] },
      headers: { cookie: cookieOf('tobin') },
    });
    return [response.status(), ((await response.json()) as { problems?: { message: string }[] }).problems?.[0]?.message ?? ''];
  };
  expect(await send({})).toEqual([200, '']);
  expect(await send({ itemId: 'ffffffff' })).toEqual([422, 'expected crimps that the loom has in this revision, got others']);
  expect(await send({ samples: set({ samples: [{ bad: [], heightMm: null, pullsN: [90, 90] }] }) })).toEqual([
    422,
    'expected a pull for each of its wires, 1',
  ]);
  expect(await send({ samples: set({ samples: [] }) })).toEqual([422, 'expected a sample at least']);
  expect(await send({ samples: set({ pullTester: '' }) })).toEqual([422, 'expected what they were pulled with']);
  expect(await send({ samples: set({ reason: 'none', samples: [], pullTester: '' }) })).toEqual([
    422,
    'expected no samples and the reason why there are none',
  ]);
  expect((await send({ samples: set({ samples: [{ bad: [], heightMm: null, pullsN: [-1] }] }) }))[0]).toBe(400);
  expect(await send({ stepId: crimp.id })).toEqual([422, `expected ${CRIMP_STEP} for the step of what is told of a tool or its samples`]);
  expect(await send({ kind: 'gauge', itemId: 'hammer', samples: null })).toEqual([
    422,
    'expected a tool that the loom is crimped with, got another',
  ]);
  expect(await send({ kind: 'changeover', words: 'weather', samples: null })).toEqual([
    422,
    'expected reel, lot or tool, got another change',
  ]);
  const stored = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as Told[];
  expect(stored).toHaveLength(1);
});
