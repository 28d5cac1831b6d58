import { storageOf } from '../scripts/lib/testPeople.cjs';
import { randomUUID } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { Client } from 'pg';
import { FORMAT_VERSION, SHOP_FORMAT_VERSION, type Job, type Shop } from 'wattograph-core';
import oldJob from '../core/src/testing/formats/job-2.json';
import { createCleanInlet, createTestJob, readJob } from './helpers';
import { ownApplication, start } from './rig';

// the shop is one: these tests have an application of their own
const own = ownApplication('shop');

const read = async () => (await (await own.request.get('/api/shop')).json()) as { version: number; shop: Shop };
const take = (base: number, document: unknown, id: string = randomUUID()) =>
  own.request.post('/api/shop', { data: { id, base, author: 'Imke Dorsey', note: 'test', document } });

test('a default changed in Shop plans a job when it is brought up to it; undo and the version before lead back', async ({ page }) => {
  const id = await createTestJob(own.request, createCleanInlet());
  const { version } = await read();
  const lengths = async () => {
    const ask = () => own.request.get(`/api/jobs/${id}/export?what=wires&loom=inlet`, { headers: { prefer: 'wait=30' } });
    let answer = await ask();
    // on a slow machine it is still being planned: the same asked again is answered when it is there
    for (let asked = 1; answer.status() === 202 && asked < 10; asked += 1) answer = await ask();
    expect(answer.status()).toBe(200);
    const lines = (await answer.text()).trim().split('\r\n').slice(1);
    return lines.map((line) => Number(line.split(',')[8]));
  };
  expect((await lengths()).some((mm) => mm % 50 !== 0)).toBe(true);
  await page.goto(own.running.address);
  await page.getByRole('link', { name: 'Shop' }).click();
  await page.getByRole('button', { name: 'Larkhollow house style' }).click();
  await page.getByLabel('cut increment, mm').fill('50');
  await page.getByLabel('cut increment, mm').press('Enter');
  await page.getByRole('button', { name: 'Take 1 change …' }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog.getByText('cut increment, mm: 5 → 50')).toBeVisible();
  await expect(dialog.getByText(/\d+ wires cut otherwise/).first()).toBeVisible();
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('button', { name: `version ${version + 1}` })).toBeVisible();
  // the job stays with the version it has, in the server's plan as in the worker's, until she takes what changes
  expect((await lengths()).some((mm) => mm % 50 !== 0)).toBe(true);
  await page.goto(`${own.running.address}/jobs/${id}/bundle?tab=wires`);
  await page.getByRole('button', { name: `shop ${version} → ${version + 1}` }).click();
  const bring = page.getByRole('dialog', { name: `From version ${version} of the shop to ${version + 1}` });
  await expect(bring).toContainText(/\d+ wires cut otherwise/);
  await expect(bring.getByText('cut increment, mm: 5 → 50')).toBeVisible();
  await bring.getByRole('button', { name: 'Bring it up' }).click();
  await expect(page.getByRole('button', { name: `shop ${version + 1}`, exact: true })).toBeVisible();
  expect((await lengths()).every((mm) => mm % 50 === 0)).toBe(true);
  await page.getByRole('tab', { name: 'Wires' }).click();
  await expect(
    page
      .getByRole('row', { name: /N-203/ })
      .getByText(/^\d*[05]0$/)
      .first(),
  ).toBeVisible();
  // another version than the shop ever had is refused, and undo goes back to the one before
  const refused = await own.request.post(`/api/jobs/${id}/edits`, {
    data: { id: randomUUID(), base: 1, author: 'x', label: 'x', patch: [{ op: 'replace', path: '/shopVersion', value: 99 }] },
  });
  expect([refused.status(), await refused.json()]).toEqual([
    422,
    { problems: [{ path: '/shopVersion', message: 'expected a version of this shop, got 99' }] },
  ]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('button', { name: `shop ${version} → ${version + 1}` })).toBeVisible();
  expect((await lengths()).some((mm) => mm % 50 !== 0)).toBe(true);
  await page.goto(`${own.running.address}/shop`);
  await page.getByRole('button', { name: `version ${version + 1}` }).click();
  await page.getByRole('menuitem', { name: new RegExp(`^${version},`) }).click();
  await page.getByRole('dialog').getByText('cut increment, mm: 50 → 5').waitFor();
  await page.getByRole('dialog').getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('button', { name: `version ${version + 2}` })).toBeVisible();
  await page.goto(`${own.running.address}/jobs/${id}/bundle`);
  await page.getByRole('button', { name: `shop ${version} → ${version + 2}` }).click();
  await expect(page.getByRole('dialog')).toContainText('stays as it is');
});

test('a shop is exported as one file and read again; what is wrong in it is named and nothing is stored', async () => {
  const { version, shop } = await read();
  const file = await own.request.get('/api/shop?as=file');
  expect(file.headers()['content-disposition']).toBe(`attachment; filename="shop-version-${version}.json"`);
  expect(JSON.parse(await file.text())).toEqual(shop);
  const refused = async (change: (one: Shop) => void, words: string) => {
    const broken = structuredClone(shop);
    change(broken);
    const answer = await take(version, broken);
    expect([words, answer.status()]).toEqual([words, 422]);
    expect(await answer.text()).toContain(JSON.stringify(words).slice(1, -1));
  };
  await refused((one) => (one.contacts[0]!.maxAreaMm2 = 0.01), '/contacts/0/maxAreaMm2');
  await refused((one) => Object.assign(one, { formatVersion: SHOP_FORMAT_VERSION + 1 }), 'the file is of a newer Wattograph');
  await createTestJob(own.request, createCleanInlet());
  await refused((one) => {
    one.devices = {};
    one.families = {};
    one.buying = {};
  }, 'Skerry 12 /looms/inlet/ends/');
  const big = await own.request.post('/api/shop', { data: 'x'.repeat(10 * 1024 * 1024), headers: { 'content-type': 'application/json' } });
  expect(big.status()).toBe(413);
  expect((await read()).version).toBe(version);
});

test('of two changes of one version one is taken; the same one sent twice counts once', async () => {
  const { version, shop } = await read();
  const named = (name: string) => ({ ...shop, people: [...shop.people, name] });
  const id = randomUUID();
  const answers = await Promise.all([take(version, named('Wil Tamsin'), id), take(version, named('Nora Quint'))]);
  expect(answers.map((answer) => answer.status()).sort()).toEqual([201, 409]);
  const again = await Promise.all([take(version, named('Wil Tamsin'), id), take(version, named('Wil Tamsin'), id)]);
  const wasTaken = answers[0]!.status() === 201;
  expect(again.map((answer) => answer.status())).toEqual(wasTaken ? [201, 201] : [409, 409]);
  expect((await read()).version).toBe(version + 1);
});

test('a housing of her drawer: 26 ways in two sizes, lettered; a wire list that nobody has housings for finds it', async ({ page }) => {
  const id = await createTestJob(own.request, createCleanInlet());
  const { version } = await read();
  // the list first: its relay and its gauge have cavities that no housing has
  await page.goto(`${own.running.address}/jobs/${id}/bundle`);
  await page.getByRole('button', { name: 'Add a loom' }).click();
  await page.getByRole('button', { name: /From a wire list/ }).click();
  const dialog = page.getByRole('dialog', { name: 'A loom from a wire list (CSV)' });
  const rows = ['relay,30', 'relay,85', 'relay,86', 'relay,87', ...[...'ABCDEFGHJKL'].map((name) => `gauge,${name}`)];
  const list = ['from,from pin,to,to pin', ...rows.map((to, at) => `main plug,${at + 1},${to}`)].join('\n');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'dash.csv', mimeType: 'text/csv', buffer: Buffer.from(list) });
  await expect(dialog).toContainText('3 ends without a housing');
  await dialog.getByRole('button', { name: 'The smallest that has the cavities, for all' }).click();
  await expect(dialog.getByRole('combobox', { name: 'Housing of main plug' })).toHaveValue('Hollin 19');
  await dialog.getByLabel('First letters of its wire numbers').fill('D');
  await dialog.getByRole('button', { name: 'Make the loom' }).click();
  await expect(page.getByRole('group', { name: 'Strip of dash' })).toBeVisible();

  await page.goto(`${own.running.address}/shop`);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Housings/ })
    .click();
  await page.getByRole('button', { name: /^Pellow 12/ }).click();
  await page.getByRole('button', { name: 'Make another from it' }).click();
  const fill = async (label: string, value: string) => {
    await page.getByLabel(label, { exact: true }).fill(value);
    await page.getByLabel(label, { exact: true }).press('Enter');
  };
  await fill('name', 'Pellow 26, mixed');
  await fill('in each row, top first', '13, 13');
  await fill('names, in that order', 'A to Z without I, O, Q then a to c');
  const cavity = (name: string) => page.getByRole('button', { name: `cavity ${name}`, exact: true });
  await cavity('A').click();
  await cavity('B').click({ modifiers: ['Shift'] });
  await page.getByRole('combobox', { name: 'size of 2 picked' }).fill('6p');
  await page.getByRole('combobox', { name: 'size of 2 picked' }).press('Enter');
  await expect(page.getByText(/^pellow-12-2 · 26 ways, size 6p and 16s/)).toBeVisible();
  // a spot moved on the face, upon another: told at once, and undone
  await page.getByRole('combobox', { name: 'cavities in' }).click();
  await page.getByRole('option', { name: 'spots of their own' }).click();
  const box = (await cavity('C').boundingBox())!;
  const other = (await cavity('D').boundingBox())!;
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2);
  await page.mouse.down();
  await page.mouse.move(other.x + other.width / 2, other.y + other.height / 2, { steps: 4 });
  await page.mouse.up();
  await expect(page.getByRole('alert').filter({ hasText: 'between two cavities' })).toContainText('from C to D');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(page.getByRole('alert').filter({ hasText: 'between two cavities' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Take 1 change …' }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('button', { name: `version ${version + 1}` })).toBeVisible();

  await page.goto(`${own.running.address}/jobs/${id}/ends`);
  await page.getByRole('button', { name: `shop ${version} → ${version + 1}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Bring it up' }).click();
  await expect(page.getByRole('button', { name: `shop ${version + 1}`, exact: true })).toBeVisible();
  await page
    .getByRole('button', { name: 'dash', exact: true })
    .or(page.getByRole('tab', { name: 'dash' }))
    .or(page.getByRole('link', { name: 'dash', exact: true }))
    .first()
    .click();
  await page
    .getByRole('button', { name: /^relay/ })
    .first()
    .click();
  await expect(page.getByText(/relay has no housing yet \(cavities 30, 85, 86, 87\)/)).toBeVisible();
  await page
    .getByRole('button', { name: /^gauge/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'Take a Pellow 26, mixed' }).click();
  await expect(page.getByRole('img', { name: 'Pellow 26, mixed, wire side' })).toBeVisible();
  await expect(page.getByText(/gauge has no housing yet/)).toHaveCount(0);
  await expect(page.getByRole('row', { name: /^A D-/ })).toContainText('none takes this wire');
  await expect(page.getByRole('row', { name: /^C D-/ })).not.toContainText('▲');
  await expect(page.getByRole('list', { name: 'Crimps' })).toContainText('Pellow 16 contact');
});

test('a job file carries its parts: read in another shop it plans as at home, until it is brought up to that', async ({ page }) => {
  const id = await createTestJob(own.request, createCleanInlet());
  const { version, shop } = await read();
  const file = JSON.parse(await (await own.request.get(`/api/jobs/${id}/export`)).text()) as { shop: Shop } & Job;
  const store = async (document: unknown, jobId: string = randomUUID()) => {
    const answer = await own.request.post('/api/jobs', { data: { id: jobId, author: 'test', document } });
    return { jobId, status: answer.status(), body: (await answer.json()) as { problems?: { path: string }[] } };
  };
  const pinned = async (jobId: string) => (await readJob(own.request, jobId)).document.shopVersion;
  // the same parts: planned with this shop's newest version
  const same = await store(file);
  expect([same.status, await pinned(same.jobId)]).toEqual([201, version]);
  // other figures for the same ids: a version beside those of the shop
  const other = structuredClone(file);
  other.shop.families['hollin-37']!.entryDepthMm += 40;
  const jobId = randomUUID();
  const twice = await Promise.all([store(other, jobId), store(other, jobId)]);
  expect(twice.map(({ status }) => status)).toEqual([201, 201]);
  expect(await pinned(jobId)).toBe(version + 1);
  expect((await read()).version).toBe(version);
  expect((await (await own.request.get('/api/shop/versions')).json()) as unknown[]).not.toContainEqual(
    expect.objectContaining({ author: 'import' }),
  );
  const cuts = async (one: string) => (await own.request.get(`/api/jobs/${one}/export?what=cuts&loom=inlet`)).text();
  expect(await cuts(same.jobId)).toBe(await cuts(id));
  expect(await cuts(jobId)).not.toBe(await cuts(id));
  await page.goto(`${own.running.address}/jobs/${jobId}/bundle`);
  await page.getByRole('button', { name: `shop ${version + 1} → ${version}` }).click();
  await page.getByRole('dialog').getByRole('button', { name: 'Bring it up' }).click();
  await expect(page.getByRole('button', { name: `shop ${version}`, exact: true })).toBeVisible();
  expect(await cuts(jobId)).toBe(await cuts(id));
  // the next version of the shop has a number of its own
  expect(await (await take(version, { ...shop, name: 'Larkhollow, again' })).json()).toEqual({ version: version + 2 });
  const broken = structuredClone(file);
  broken.shop.contacts[0]!.maxAreaMm2 = 0.01;
  const refused = await store(broken);
  expect([refused.status, refused.body.problems![0]!.path]).toEqual([422, '/shop/contacts/0/maxAreaMm2']);
  expect((await own.request.get(`/api/jobs/${refused.jobId}`)).status()).toBe(404);
});

test('what an older Wattograph stored is opened: a shop of format 1, and a job that names no version is pinned at the start', async ({
  playwright,
}) => {
  const { version, shop } = await read();
  const isOld = ([id]: [string, unknown]) => !id.startsWith('hollin-10');
  const old = {
    ...shop,
    formatVersion: 1,
    devices: {},
    families: Object.fromEntries(
      Object.entries(shop.families)
        .filter(isOld)
        .map(([id, family]) => [id, without(family, ['cavityNames', 'otherSizes', 'gender', 'mateId'])]),
    ),
    contacts: shop.contacts.map((contact) => without(contact, ['gender'])),
  };
  const id = randomUUID();
  const client = new Client({ connectionString: own.running.database });
  await client.connect();
  await client.query('update shop_versions set document = $1 where version = $2', [JSON.stringify(old), version]);
  await client.query('insert into jobs (id, version, document) values ($1, 0, $2)', [id, JSON.stringify(oldJob)]);
  await client.end();
  await own.request.dispose();
  own.running.kill();
  own.running = start(own.folder);
  own.request = await playwright.request.newContext({ baseURL: own.running.address, storageState: storageOf('imke') });
  const now = await read();
  expect([now.version, now.shop.formatVersion]).toEqual([version, SHOP_FORMAT_VERSION]);
  expect(now.shop.families['tarn-3']).toMatchObject({ cavityNames: null, otherSizes: {}, gender: null, mateId: null });
  const job = await readJob(own.request, id);
  expect([job.version, job.document.formatVersion, job.document.shopVersion]).toEqual([0, FORMAT_VERSION, version]);
  const edit = await own.request.post(`/api/jobs/${id}/edits`, {
    data: { id: randomUUID(), base: 0, author: 'x', label: 'x', patch: [{ op: 'replace', path: '/notes', value: 'opened' }] },
  });
  expect(edit.status()).toBe(200);
});

const without = (value: object, keys: readonly string[]) =>
  Object.fromEntries(Object.entries(value).filter(([key]) => !keys.includes(key)));
