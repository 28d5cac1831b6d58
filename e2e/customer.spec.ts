import { expect, test } from '@playwright/test';
import { editDocument, type Job } from 'wattograph-core';
import { createCleanInlet, createTestJob, letCustomerIn, readJob, saved, sendEdit, sendRelease } from './helpers';

const ask = (job: Job, questions: Record<string, string>): Job =>
  editDocument(job, (draft) => {
    draft.customer = 'Penhallow';
    for (const [id, question] of Object.entries(questions))
      draft.openItems[id] = {
        ...{
          stops: 'cut',
          kind: 'question',
          question,
          blocks: [{ loomId: 'inlet', kind: 'loom', id: 'inlet' }],
          owner: 'Penhallow',
          due: '2026-01-10',
        },
        ...{ atVisit: false, answer: null, evidence: null, answeredBy: '' },
      };
  }).next;

test('a customer comes in by a link, sees how the one job stands, and answers what is asked; the planner has the answer with its source', async ({
  page,
  browser,
  baseURL,
  request,
}) => {
  const id = await createTestJob(request, ask(createCleanInlet(), { q1: 'Where does the catch tank go?', q2: 'Which tyres?' }));
  const name = `Esk Penhallow ${id.slice(0, 6)}`;
  await page.goto('/people');
  await page.getByRole('button', { name: 'Let somebody in' }).click();
  const dialog = page.getByRole('dialog', { name: 'Let somebody in' });
  await dialog.getByLabel('Name').fill(name);
  await dialog.getByRole('combobox', { name: 'Role' }).click();
  await page.getByRole('option', { name: /^customer/ }).click();
  // theirs is one job, and it has to be said which
  await expect(dialog.getByRole('button', { name: 'Make a code' })).toBeDisabled();
  const { document } = await readJob(request, id);
  await dialog.getByRole('combobox', { name: 'Their job' }).fill(document.name);
  await page.getByRole('option', { name: document.name }).first().click();
  await dialog.getByRole('button', { name: 'Make a code' }).click();
  await expect(dialog.getByText(/^[2-9A-Z]{4}-[2-9A-Z]{4}-[2-9A-Z]{4}$/)).toBeVisible();

  const cookie = await letCustomerIn(request, id, `${name} B`);
  const [key, value] = cookie.split(/=(.*)/s) as [string, string];
  const context = await browser.newContext({
    storageState: { cookies: [], origins: [] },
    viewport: { width: 390, height: 800 },
    baseURL: baseURL!,
  });
  await context.addCookies([{ name: key, value, url: baseURL! }]);
  const phone = await context.newPage();
  // wherever they go, they come to their job
  for (const path of ['/', '/shop', '/people', `/jobs/${id}/bundle`, `/jobs/${id}/floor`]) {
    await phone.goto(path);
    await expect(phone).toHaveURL(new RegExp(`/jobs/${id}/customer$`));
  }
  const asked = phone.getByRole('region', { name: 'What we need to know from you' });
  await expect(asked.getByRole('listitem')).toHaveCount(2);
  await expect(asked).toContainText('was needed by 2026-01-10; work waits for it');
  await expect(phone.getByRole('region', { name: 'How far it is' })).toContainText('being planned');
  // an answer that the server does not get is kept on the page
  await phone.route('**/customer', (route) => (route.request().method() === 'POST' ? route.abort() : route.continue()));
  await phone.getByLabel('Answer to: Where does the catch tank go?').fill('left of the gearbox, two M6 studs');
  await asked.getByRole('button', { name: 'Answer' }).first().click();
  await expect(asked.getByRole('alert')).toContainText('What you wrote is still here');
  await phone.unroute('**/customer');
  await asked.getByRole('button', { name: 'Answer' }).first().click();
  await expect(phone.getByRole('region', { name: 'What was answered' })).toContainText(`left of the gearbox, two M6 studs ${name} B`);
  await expect(asked.getByRole('listitem')).toHaveCount(1);

  const { document: told, version } = await readJob(request, id);
  expect([version, told.openItems.q1]).toEqual([
    1,
    expect.objectContaining({ answer: 'left of the gearbox, two M6 studs', evidence: 'told', answeredBy: `${name} B` }),
  ]);
  // what the planner has settled since is not overwritten, and what is not asked of them cannot be answered
  const post = (item: string) =>
    phone.request.post(`/api/jobs/${id}/customer`, { data: { id: crypto.randomUUID(), item, answer: 'wets' } });
  await sendEdit(request, id, 1, [
    { op: 'replace', path: '/openItems/q2/answer', value: 'slicks' },
    { op: 'replace', path: '/openItems/q2/answeredBy', value: 'Imke Dorsey' },
    { op: 'replace', path: '/openItems/q2/evidence', value: 'told' },
  ]);
  expect([(await post('q2')).status(), (await post('toString')).status()]).toEqual([409, 404]);

  // she releases it: the customer sees that it is being built
  expect((await sendRelease(request, id)).status()).toBe(201);
  await phone.reload();
  await expect(phone.getByRole('region', { name: 'How far it is' })).toContainText('ready to be built, revision 1');
  await context.close();
});

test('the planner sees what the customer sees, and goes on when the questions are gone', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto(`/jobs/${id}/customer`);
  await expect(page.getByText('Nothing at the moment.')).toBeVisible();
  await expect(page.getByRole('region', { name: 'How far it is' })).toContainText('ready to be built, revision 1');
  await page.getByRole('link', { name: 'back to the brief' }).click();
  await expect(page).toHaveURL(new RegExp(`/jobs/${id}/brief`));
});

test('a deleted job goes from the wall and answers nobody, keeps what a tablet did meanwhile, and comes back whole', async ({
  page,
  request,
}) => {
  const job = { ...createCleanInlet(), name: `To go ${Date.now() % 1e6}` };
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto('/');
  await page.getByLabel('Search jobs').fill(job.name);
  await page.getByRole('button', { name: `More of ${job.name}` }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  const dialog = page.getByRole('dialog', { name: `Delete ${job.name}?` });
  await expect(dialog).toContainText('For 30 days it can be brought back');
  await dialog.getByRole('button', { name: 'Leave it' }).click();
  await expect(page.getByRole('heading', { name: job.name })).toBeVisible();
  await page.getByRole('button', { name: `More of ${job.name}` }).click();
  await page.getByRole('menuitem', { name: 'Delete' }).click();
  await dialog.getByRole('button', { name: 'Delete' }).click();
  await expect(page.getByRole('heading', { name: job.name })).toHaveCount(0);
  for (const path of [`/api/jobs/${id}`, `/api/jobs/${id}/releases`, `/api/jobs/${id}/sheets`]) {
    const answer = await request.get(path);
    expect([path, answer.status(), await answer.text()]).toEqual([path, 410, expect.stringContaining('can be brought back from the wall')]);
  }
  expect((await sendEdit(request, id, 0, [{ op: 'replace', path: '/notes', value: 'x' }])).status()).toBe(410);
  for (const station of ['bundle', 'floor', 'survey', 'customer']) expect((await request.get(`/jobs/${id}/${station}`)).status()).toBe(404);
  // a tablet in a dead corner does not know: what it did is kept
  const event = { id: crypto.randomUUID(), loomId: 'inlet', stepId: 'test', itemId: 'step', kind: 'problem', words: 'a pin is bent' };
  const told = await request.post(`/api/jobs/${id}/releases/1/events`, {
    data: { events: [{ ...event, happenedAt: '2026-11-24T08:00:00.000Z' }] },
  });
  expect(told.status()).toBe(200);

  await page.getByText(/^deleted \d+$/).click();
  const line = page.getByRole('listitem').filter({ has: page.getByRole('heading', { name: job.name }) });
  await expect(line).toContainText('Deleted by Imke Dorsey');
  await line.getByRole('button', { name: 'Bring it back' }).click();
  await expect(line).toHaveCount(0);
  // and what the tablet told is on the wall again
  await expect(
    page
      .getByRole('region', { name: /^From the floor/ })
      .getByRole('listitem')
      .filter({ hasText: job.name }),
  ).toContainText('a pin is bent');
  expect((await readJob(request, id)).document.name).toBe(job.name);
  expect(await (await request.get(`/api/jobs/${id}/releases/1/events`)).text()).toContain('a pin is bent');
  await page.goto(`/jobs/${id}/bundle`);
  await saved(page);
  // who did it is kept
  await page.goto('/people');
  await expect(page.getByRole('region', { name: 'What was decided' })).toContainText(`Imke Dorsey brought a job back: ${job.name}`);
});
