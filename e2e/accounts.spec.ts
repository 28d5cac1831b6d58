import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type Page } from '@playwright/test';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { cookieOf } from '../scripts/lib/testPeople.cjs';
import { mayDo, RIGHTS, ROLES, type Right } from '../web/server/accounts/rights';
import { createCleanInlet, createTestJob, letCustomerIn, readJob, sendRelease } from './helpers';
import { listRoutes } from './hostileRequests';

const WHO = { owner: 'imke', planner: 'jun', crew: 'tobin', viewer: 'wil' } as const;

/** Routes that ask for no right: the way in, and whether it runs. */
const OPEN = [
  '/api/accounts/faces GET',
  '/api/accounts/invites/accept GET',
  '/api/accounts/invites/accept POST',
  '/api/accounts/pin POST',
  '/api/accounts/set-up POST',
  '/api/accounts/sign-in POST',
  '/api/accounts/sign-out POST',
  '/api/health GET',
  '/api/metrics GET',
];

const API = join(__dirname, '../web/app/api');

/** The right that a route asks for, as its file says it; null: it is open. */
function findRight(path: string, method: string): Right | null {
  const source = readFileSync(join(API, path.replace('/api/', ''), 'route.ts'), 'utf8');
  const found = new RegExp(`export const ${method} = routeHandler(?:<[^(]*>)?\\(\\s*'(\\w+)'`).exec(source);
  return found ? (found[1] as Right) : null;
}

const routes = listRoutes().flatMap(({ path, methods }) => methods.map((method) => ({ path, method, right: findRight(path, method) })));

test('every route asks for a right of the table, but for the way in', () => {
  expect(
    routes
      .filter(({ right }) => right === null)
      .map(({ path, method }) => `${path} ${method}`)
      .sort(),
  ).toEqual(OPEN);
  expect(routes.filter(({ right }) => right !== null && !(right in RIGHTS))).toEqual([]);
  // and every page too: a new one that asks nobody fails here
  const pages = readdirSync(join(__dirname, '../web/app'), { recursive: true, encoding: 'utf8' }).filter((file) =>
    /(page|layout)\.tsx$/.test(file),
  );
  const unasked = pages.filter((file) => !readFileSync(join(__dirname, '../web/app', file), 'utf8').includes('expectPerson('));
  expect(unasked.sort()).toEqual(
    [
      ...['bundle', 'brief', 'circuits', 'dress', 'ends', 'board', 'power', 'sheets'].map(
        (station) => `jobs/[id]/(desk)/${station}/page.tsx`,
      ),
      'jobs/[id]/page.tsx',
      'layout.tsx',
      'set-up/page.tsx',
      'sign-in/page.tsx',
      'welcome/page.tsx',
    ].sort(),
  );
});

test('no route goes round the door: a foreign name, a foreign page and a form are kept out of each', async ({ request }) => {
  const wrong: string[] = [];
  for (const { path, method } of routes) {
    const url = path
      .replace('[number]', '1')
      .replace('[version]', '1')
      .replace(/\[\w+\]/g, '5ee12000-0000-4000-8000-00000000ffff');
    const strangers: [Record<string, string>, number][] = [
      [{ host: 'rebound.example' }, 421],
      [{ 'sec-fetch-site': 'cross-site' }, 403],
      ...(method === 'GET'
        ? []
        : ([
            [{ origin: 'https://elsewhere.example' }, 403],
            [{ 'content-type': 'text/plain' }, 415],
          ] as [Record<string, string>, number][])),
    ];
    for (const [headers, status] of strangers) {
      const answer = await request.fetch(url, { method, headers, ...(method === 'GET' ? {} : { data: '{}' }) });
      if (answer.status() !== status || !answer.headers()['content-security-policy']?.includes("frame-ancestors 'none'"))
        wrong.push(`${method} ${path} ${JSON.stringify(headers)}: ${answer.status()}`);
    }
  }
  expect(wrong).toEqual([]);
});

test('every route for every role and for nobody, of their own job and of another: who may not is told so before anything else, who may is let in', async ({
  playwright,
  baseURL,
  request,
}) => {
  const [own, foreign] = [await createTestJob(request), await createTestJob(request)];
  const customer = await letCustomerIn(request, own, `Customer ${own.slice(0, 8)}`);
  const nobody = await playwright.request.newContext({ baseURL: baseURL!, storageState: { cookies: [], origins: [] } });
  const fill = (path: string, jobId: string) =>
    path
      .replace('[id]', jobId)
      .replace('[number]', '1')
      .replace('[version]', '1')
      .replace(/\[\w+\]/g, '5ee12000-0000-4000-8000-00000000ffff');
  const wrong: string[] = [];
  let count = 0;
  for (const { path, method, right } of routes) {
    if (right === null || path === '/api/live') continue;
    // a body that is not as asked: who is let in is told 400, 404 or 415, and nothing is done
    const ask = (cookie: string | null, jobId: string) =>
      nobody.fetch(fill(path, jobId), {
        method,
        headers: { 'content-type': 'application/json', ...(cookie ? { cookie } : {}) },
        ...(method === 'POST' ? { data: '{' } : {}),
      });
    for (const role of [null, ...ROLES])
      for (const jobId of path.includes('[id]') ? [own, foreign] : [own]) {
        count += 1;
        const status = (await ask(role && (role === 'customer' ? customer : cookieOf(WHO[role])), jobId)).status();
        const isTheirs = role !== 'customer' || (path.includes('[id]') && jobId === own);
        const expected = role === null ? 401 : mayDo(role, right) && isTheirs ? 'in' : 403;
        if (expected === 'in' ? status === 401 || status === 403 || status >= 500 : status !== expected)
          wrong.push(`${method} ${path} as ${role} of ${jobId === own ? 'their own' : 'another'} job: ${status}, expected ${expected}`);
      }
  }
  await nobody.dispose();
  expect(wrong).toEqual([]);
  expect(count).toBeGreaterThan(300);
});

test('a page that nobody signed in for leads to the way in, and back; one of another site is not gone to', async ({ browser, baseURL }) => {
  const context = await browser.newContext({ storageState: { cookies: [], origins: [] } });
  const page = await context.newPage();
  await page.goto(`${baseURL}/shop`);
  await expect(page).toHaveURL(/\/sign-in\?next=%2Fshop$/);
  await expect(page.getByRole('heading', { name: 'With a password' })).toBeVisible();
  // a device that is none of the shop shows nobody's face
  await expect(page.getByRole('heading', { name: 'Who is working' })).toHaveCount(0);
  for (const next of ['//elsewhere.example', '/\\elsewhere.example', 'https://elsewhere.example']) {
    const html = await (await context.request.get(`${baseURL}/sign-in?next=${encodeURIComponent(next)}`)).text();
    expect(html).not.toContain(`\\"next\\":\\"${next}`);
  }
  await context.close();
});

const type = async (page: Page, name: string, digits: string) => {
  await page.getByRole('button', { name: new RegExp(`^${name}`) }).click();
  const pad = page.getByRole('group', { name: `Digits of ${name}` });
  for (const digit of digits) await pad.getByRole('button', { name: digit, exact: true }).click();
  await pad.getByRole('button', { name: 'Open' }).click();
};

test('the owner lets two people in with codes; on a tablet they take turns with digits alone, and each tick is signed by who made it, also what waited', async ({
  page,
  browser,
  baseURL,
  request,
}) => {
  const [one, two] = [`Ada Quill ${Date.now() % 1e6}`, `Bo Larch ${Date.now() % 1e6}`];
  await page.goto('/people');
  const letIn = async (name: string): Promise<string> => {
    await page.getByRole('button', { name: 'Let somebody in' }).click();
    const dialog = page.getByRole('dialog', { name: 'Let somebody in' });
    await dialog.getByLabel('Name').fill(name);
    await dialog.getByRole('button', { name: 'Make a code' }).click();
    const code = (await dialog.getByText(/^[2-9A-Z]{4}-[2-9A-Z]{4}-[2-9A-Z]{4}$/).textContent())!;
    await dialog.getByRole('button', { name: 'Done' }).click();
    return code;
  };
  const codes = [await letIn(one), await letIn(two)];
  // the tablet is one of the shop
  const context = await browser.newContext({
    storageState: { cookies: [], origins: [] },
    viewport: { width: 1024, height: 768 },
    baseURL: baseURL!,
  });
  const device = (await page.context().cookies()).find(({ name }) => name === 'wattograph.device')!;
  await context.addCookies([device]);
  const tablet = await context.newPage();
  for (const [index, code] of codes.entries()) {
    await tablet.goto(`/welcome?code=${code}`);
    await expect(tablet.getByRole('heading', { name: `Welcome, ${[one, two][index]}` })).toBeVisible();
    await tablet.getByLabel('Digits').fill(`${index}${index}12`);
    await tablet.getByRole('button', { name: 'Come in' }).click();
    await expect(tablet.getByRole('button', { name: [one, two][index]! })).toBeVisible();
  }
  // a code lets in once
  await tablet.goto(`/welcome?code=${codes[0]}`);
  await expect(tablet.getByText(/expected a code that lets somebody in/)).toBeVisible();

  const job = createCleanInlet();
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).status()).toBe(201);
  await tablet.goto(`/jobs/${id}/floor`);
  const tick = () => tablet.locator('button[aria-pressed="false"]').first().click();
  await tick();
  await expect(tablet.getByRole('status')).toHaveText('all stored');
  // with no answer from the server two ticks wait, one of each
  let isAway = true;
  await tablet.route('**/events', (route) => (isAway && route.request().method() === 'POST' ? route.abort() : route.continue()));
  await tick();
  await expect(tablet.getByRole('status')).toContainText('1 kept here');
  await tablet.getByRole('button', { name: two, exact: true }).click();
  await type(tablet, one, '0012');
  await expect(tablet.getByRole('button', { name: one, exact: true })).toBeVisible();
  await tick();
  await expect(tablet.getByRole('status')).toContainText('2 kept here');
  // a request that is held just while its route is taken away is never answered
  isAway = false;
  await expect(tablet.getByRole('status')).toHaveText('all stored');
  const events = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as { author: string; itemId: string }[];
  expect(events.map(({ author }) => author).sort()).toEqual([one, two, two].sort());
  const { steps } = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE);
  expect(steps.flatMap(({ items }) => items.map((item) => item.id))).toEqual(expect.arrayContaining(events.map(({ itemId }) => itemId)));

  // crew look at the plan and change nothing
  await tablet.goto(`/jobs/${id}/bundle`);
  await tablet.getByRole('slider').first().focus();
  await tablet.keyboard.press('ArrowRight');
  await expect(tablet.getByText('is signed in as crew: planners change the job')).toBeVisible();
  expect((await readJob(request, id)).version).toBe(0);

  // five that do not fit lock out, also with those that do
  await tablet.getByRole('button', { name: one, exact: true }).click();
  for (let tries = 0; tries < 5; tries += 1) {
    await type(tablet, two, '9999');
    await expect(tablet.getByRole('group', { name: /^Digits of/ }).getByRole('alert')).toContainText('does not fit');
  }
  await type(tablet, two, '1112');
  await expect(tablet.getByRole('group', { name: /^Digits of/ }).getByRole('alert')).toContainText('wait until');

  // she leaves: her sessions end at once, what she signed stays
  await page.reload();
  await page
    .getByRole('row', { name: new RegExp(one) })
    .getByRole('button', { name: 'End access' })
    .click();
  await expect(page.getByRole('row', { name: new RegExp(one) })).toContainText('what was signed stays signed');
  await tablet.goto(`/jobs/${id}/floor`);
  await expect(tablet).toHaveURL(/sign-in/);
  expect(await (await request.get(`/api/jobs/${id}/releases/1/events`)).text()).toContain(one);
  await expect(page.getByRole('region', { name: 'What was decided' })).toContainText(`Imke Dorsey ended access: ${one}`);
  await context.close();
});

test('nobody takes the name of another, and there is always an owner', async ({ request }) => {
  const taken = await request.post('/api/accounts/invites', { data: { name: 'tobin ashgrove', role: 'crew', personId: null } });
  expect([taken.status(), await taken.text()]).toEqual([409, expect.stringContaining('somebody has it already')]);
  const last = await request.post('/api/accounts/people/imke', { data: { role: 'planner' } });
  expect([last.status(), await last.text()]).toEqual([409, expect.stringContaining('make another one owner first')]);
  expect((await request.post('/api/accounts/people/imke', { data: { hasLeft: true } })).status()).toBe(409);
  expect(await (await request.get('/api/accounts/me')).json()).toEqual({ id: 'imke', name: 'Imke Dorsey', role: 'owner', jobId: null });
});

test('another person is signed for only on a device where they have signed in', async ({ request, playwright, baseURL }) => {
  const id = await createTestJob(request);
  const entry = (by: string, cookie: string) =>
    request.post(`/api/jobs/${id}/survey`, {
      data: {
        entries: [
          {
            kind: 'answer',
            id: crypto.randomUUID(),
            loomId: 'inlet',
            author: 'x',
            at: '2026-11-25T09:00:00.000Z',
            itemId: 'nothing',
            answer: 'x',
          },
        ],
      },
      headers: { cookie, 'x-person': by },
    });
  // 400 or 200: it was let in; without the device of the tests it is not
  expect((await entry('tobin', cookieOf('imke'))).status()).not.toBe(401);
  expect((await entry('tobin', cookieOf('imke').replace(/; wattograph\.device=.*/, ''))).status()).toBe(401);
  expect((await entry('nobody', cookieOf('imke'))).status()).toBe(401);
  // and the other one may do what he may do, no more
  const edit = await request.post(`/api/jobs/${id}/edits`, { data: {}, headers: { cookie: cookieOf('imke'), 'x-person': 'tobin' } });
  expect(edit.status()).toBe(403);
  const forged = await playwright.request.newContext({ baseURL: baseURL!, storageState: { cookies: [], origins: [] } });
  const tampered = cookieOf('tobin').replace('session-of-tobin', 'session-of-imke');
  expect((await forged.get('/api/accounts/me', { headers: { cookie: tampered } })).status()).toBe(401);
  await forged.dispose();
});
