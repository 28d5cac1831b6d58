import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import type { BuildJson, Job, Shop } from 'wattograph-core';
import { createCleanInlet, createTestJob, openBundle, pick, readJob, sendRelease } from './helpers';

async function release(page: Page, id: string): Promise<void> {
  await page.goto(`/jobs/${id}/sheets`);
  await page.getByRole('button', { name: 'Release revision 1' }).click();
  await page.getByLabel('Note').fill('first off');
  await page.getByRole('button', { name: 'Release', exact: true }).click();
  await expect(page.getByText('Revision 1 released')).toBeVisible();
}

test('a job with open stop findings is not released, by the dialog or by the server', async ({ page, request }) => {
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/sheets`);
  await page.getByRole('button', { name: 'Release revision 1' }).click();
  await expect(page.getByRole('dialog')).toContainText('3 stop findings stand in the way');
  await expect(page.getByRole('dialog')).toContainText('charge pressure has no ground');
  const response = await sendRelease(request, id);
  expect(response.status()).toBe(422);
  expect(((await response.json()) as { problems: { path: string }[] }).problems.map(({ path }) => path)).toEqual(['SC1', 'CI1', 'DR1']);
});

test('sheets show on screen, print without the desk, save as PDF, and a revision never changes', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await release(page, id);
  await expect(
    page
      .getByRole('img', { name: /^Cut list, page/ })
      .filter({ hasText: 'N-201A' })
      .first(),
  ).toBeVisible();
  await page.emulateMedia({ media: 'print' });
  await expect(page.getByRole('navigation', { name: 'Stations' })).toBeHidden();
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden();
  await expect(page.getByRole('img', { name: /^Loom, page/ })).toBeVisible();
  await page.emulateMedia({ media: 'screen' });
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save PDF' }).click();
  const file = await (await download).path();
  expect((await download).suggestedFilename()).toBe('skerry-12-inlet-revision-1.pdf');
  expect(readFileSync(file).subarray(0, 5).toString()).toBe('%PDF-');

  const released = await (await request.get(`/api/jobs/${id}/export?what=job&release=1`)).text();
  await request.post(`/api/jobs/${id}/edits`, {
    data: { id: crypto.randomUUID(), base: 0, author: 'x', label: 'rename', patch: [{ op: 'replace', path: '/name', value: 'Other' }] },
  });
  expect(await (await request.get(`/api/jobs/${id}/export?what=job&release=1`)).text()).toBe(released);
  expect((await readJob(request, id)).document.name).toBe('Other');
});

test('cards of one post alone, on screen and as PDF; their codes open the floor at the card', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await release(page, id);
  const pages = page.getByRole('img', { name: /, page \d+$/ });
  await expect(pages.first()).toBeVisible();
  const all = await pages.count();
  await pick(page, 'Cards of', 'Crimp bench');
  await expect(pages.first()).toHaveAccessibleName(/^Ends, page/);
  const crimp = await pages.count();
  expect(crimp).toBeLessThan(all);
  const read = async (query: string) => {
    const path = `/api/jobs/${id}/sheets?loom=inlet&${query}`;
    let response = await request.get(path);
    while (response.status() === 202) response = await request.get(path);
    return response;
  };
  const count = async (query: string) =>
    ((await (await read(`format=pdf&release=1&${query}`)).body()).toString('latin1').match(/\/Type \/Page\b/g) ?? []).length;
  expect(await count('post=crimp')).toBe(crimp);
  expect(await count('')).toBe(all);
  expect((await read('post=kitchen')).status()).toBe(400);
  expect((await read('format=pdf&release=1&post=twist')).status()).toBe(409);
  // codes lead to where the planner is; nowhere else; and a draft, which the floor does not know, has none
  const { origin } = new URL(page.url());
  const svg = async (query: string) => ((await (await read(query)).json()) as { pages: { svg: string }[] }).pages[0]!.svg.length;
  const [plain, coded] = [await svg('release=1'), await svg(`release=1&address=${encodeURIComponent(origin)}`)];
  expect(coded).toBeGreaterThan(plain + 5000);
  expect(await svg(`address=${encodeURIComponent(origin)}`)).toBe(await svg(''));
  for (const address of ['https://elsewhere.example', `${origin}?x=1`, 'javascript:alert(1)', 'x'])
    expect((await read(`release=1&address=${encodeURIComponent(address)}`)).status()).toBe(400);

  await page.goto(`/jobs/${id}/floor?release=1&loom=inlet&card=${encodeURIComponent('end thr')}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('throttle');
  await page.goto(`/jobs/${id}/floor?release=1&loom=inlet&card=${encodeURIComponent('end nowhere')}`);
  await expect(page.getByText('The card that was opened is not of this loom in revision 1')).toBeVisible();
});

test('job and lists are exported from the menu and come back the same', async ({ page, request }) => {
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/sheets`);
  const save = async (name: string) => {
    await page.getByRole('button', { name: 'Export' }).click();
    const download = page.waitForEvent('download');
    await page.getByRole('menuitem', { name }).click();
    return readFileSync(await (await download).path(), 'utf8');
  };
  const job = await save('Job (JSON)');
  const { shop, ...document } = JSON.parse(job) as Job & { shop: Shop };
  expect(document).toEqual((await readJob(request, id)).document);
  expect(Object.keys(shop.families)).toContain('hollin-37');
  expect((await save('Wire list (CSV)')).split('\r\n')).toHaveLength(45);
  expect(await save('Cut list (CSV)')).toContain('AWG 20 ETFE red,N-201B,red,AWG 20,390,340,no');
  const build = JSON.parse(await save('Build (JSON)')) as BuildJson;
  expect([build.format, build.wires.length, build.revision]).toEqual(['wattograph-build', 43, 'draft, version 0']);
  // a package of ISO/IEC 29500 is a ZIP
  expect((await save('All lists (XLSX)')).slice(0, 2)).toBe('PK');
  await page.goto('/');
  await page.locator('input[type=file]').setInputFiles({ name: 'skerry.json', mimeType: 'application/json', buffer: Buffer.from(job) });
  await expect(page).toHaveURL(/\/jobs\/[0-9a-f-]{36}\/bundle/);
  await expect(page.getByRole('heading', { name: 'Skerry 12' })).toBeVisible();
});

test.describe('the floor, tablet size', () => {
  test.use({ viewport: { width: 1024, height: 768 } });

  test('one step at a time; ticks are stored, survive a closed browser, and work resumes at the right step', async ({
    page,
    request,
    browser,
  }) => {
    const id = await createTestJob(request, createCleanInlet());
    await page.goto(`/jobs/${id}/floor`);
    await expect(page.getByText('Nothing is released yet')).toBeVisible();
    await release(page, id);
    await page.goto(`/jobs/${id}/floor`);
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Cut and mark AWG 20 ETFE red');
    const pieces = page.getByRole('listitem').getByRole('button');
    await expect(pieces).toHaveCount(4);
    for (const at of [0, 1, 2, 3]) await pieces.nth(at).click();
    await page.getByRole('button', { name: 'Next step' }).click();
    await expect(page.getByRole('heading', { level: 1 })).toHaveText('Cut and mark AWG 20 ETFE red/white');
    await pieces.first().click();
    await pieces.nth(1).click();
    await expect(page.getByRole('status')).toHaveText('all stored');
    await page.close();
    const other = await (await browser.newContext({ viewport: { width: 1024, height: 768 } })).newPage();
    await other.goto(`${process.env.E2E_ADDRESS}/jobs/${id}/floor`);
    await expect(other.getByText(/^2 of \d+$/)).toBeVisible();
    await expect(other.getByRole('listitem').getByRole('button', { pressed: true })).toHaveCount(2);
    await expect(other.getByRole('button', { name: 'Skip for now' })).toBeVisible();
  });

  test.describe('without the service worker, whose requests a test cannot stop', () => {
    test.use({ serviceWorkers: 'block' });
    test('with the server away ticks are kept through a reload and sent once', async ({ page, request }) => {
      const id = await createTestJob(request, createCleanInlet());
      await release(page, id);
      await page.goto(`/jobs/${id}/floor`);
      await expect(page.getByRole('heading', { level: 1 })).toContainText('Cut and mark');
      let isAway = true;
      await page.route('**/events', (route) => (isAway ? route.abort() : route.continue()));
      await page.getByRole('listitem').getByRole('button').first().click();
      await expect(page.getByRole('status')).toContainText('1 kept here, server away');
      await page.reload();
      await expect(page.getByRole('status')).toContainText('1 kept here');
      // a request that is held just while its route is taken away is never answered
      isAway = false;
      await expect(page.getByRole('status')).toHaveText('all stored');
      const events = (await (await request.get(`/api/jobs/${id}/releases/1/events`)).json()) as unknown[];
      expect(events).toHaveLength(1);
    });
  });

  test('a problem is told with a reason and solved', async ({ page, request }) => {
    const id = await createTestJob(request, createCleanInlet());
    await release(page, id);
    await page.goto(`/jobs/${id}/floor`);
    await page.getByRole('button', { name: 'Problem' }).click();
    await page.getByLabel('Reason').fill('reel is empty');
    await page.getByRole('button', { name: 'Keep' }).click();
    await expect(page.getByText('Problem: reel is empty (Imke Dorsey)')).toBeVisible();
    await page.getByRole('button', { name: 'solved' }).click();
    await expect(page.getByText('Problem: reel is empty')).toHaveCount(0);
  });
});

test('a second job from an empty page: ends, a breakout, a family of its own, circuits, and her own sheets', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name').fill('Test bench loom');
  await page.getByLabel('Customer').fill('Larkhollow Looms');
  await pick(page, 'Made to', 'Larkhollow plain style');
  await page.getByRole('button', { name: 'Begin job' }).click();
  await expect(page).toHaveURL(/\/brief$/);
  await expect(page.getByRole('combobox', { name: 'Shop standard' })).toContainText('Larkhollow plain style');
  await pick(page, 'Shop standard', 'Larkhollow house style');
  await page.getByRole('link', { name: 'Bundle' }).click();
  await expect(page.getByText('Nothing beyond the datum yet')).toBeVisible();
  const choose = async (label: string, option: string) => {
    await page
      .getByRole('dialog')
      .getByRole('combobox', { name: label })
      .or(page.getByRole('dialog').getByRole('textbox', { name: label }))
      .first()
      .click();
    await page.getByRole('option', { name: option, exact: true }).click();
  };
  const addEnd = async (name: string, family: string, leg?: { from?: string; mm: string }) => {
    await page.getByRole('button', { name: 'Add end' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill(name);
    await choose('Family', family);
    if (leg?.from) await choose('Where', `on a leg from ${leg.from}`);
    if (leg) await dialog.getByLabel('Leg, mm').fill(leg.mm);
    await dialog.getByRole('button', { name: 'Add end' }).click();
    await expect(dialog).toHaveCount(0);
  };
  await addEnd('panel', 'Hollin 6');
  await addEnd('pump', 'Pellow 2', { mm: '600' });
  await expect(page.getByRole('group', { name: /^Strip of/ })).toContainText('pump');
  await page.getByRole('button', { name: 'Add breakout' }).click();
  await page.getByRole('dialog').getByLabel('Name').fill('fork');
  await page.getByRole('dialog').getByLabel('From the datum, mm').fill('900');
  await expect(page.getByRole('dialog')).toContainText('this run lies between 0 and 600 mm');
  await page.getByRole('dialog').getByLabel('From the datum, mm').fill('350');
  await page.getByRole('button', { name: 'Add it' }).click();

  await page.keyboard.press('7');
  await expect(page).toHaveURL(/\/ends/);
  await page.getByRole('button', { name: 'New family' }).click();
  const family = page.getByRole('dialog');
  await family.getByLabel('Name').fill('Bench 3');
  await family.getByLabel('How many in each').fill('3');
  await choose('Contacts', 'Pellow 16 contact');
  for (const [label, value] of [
    ['Pitch, mm', '5'],
    ['Entry depth, mm', '16'],
    ['Passes a hole of, mm', '22'],
    ['Mass, g', '7'],
  ] as const)
    await family.getByLabel(label).fill(value);
  await family.getByRole('button', { name: 'Keep family' }).click();
  await expect(family).toHaveCount(0);
  await page.keyboard.press('5');
  await expect(page).toHaveURL(/\/bundle/);
  await expect(page.getByRole('region', { name: 'Strip' })).toBeVisible();
  await addEnd('gauge', 'Bench 3 (of this job)', { from: 'fork', mm: '120' });

  await page.getByRole('tab', { name: 'Circuits' }).click();
  for (const [name, ends] of [
    ['pump feed', ['panel', 'pump']],
    ['supply', ['panel', 'pump', 'gauge']],
  ] as const) {
    await page.getByRole('button', { name: 'Add circuit' }).click();
    const dialog = page.getByRole('dialog');
    await dialog.getByLabel('Name').fill(name);
    for (const end of ends) {
      await choose('Add a pin at', end);
      await expect(
        dialog
          .getByRole('combobox', { name: `Cavity at ${end}` })
          .or(dialog.getByRole('textbox', { name: `Cavity at ${end}` }))
          .first(),
      ).toBeVisible();
    }
    await dialog.getByRole('button', { name: 'Keep circuit' }).click();
    await expect(dialog).toHaveCount(0);
  }
  await page.getByRole('tab', { name: 'Wires' }).click();
  await expect(page.getByText(/^[45] wires, \d+ g/)).toBeVisible();
  await page.keyboard.press('0');
  await expect(page).toHaveURL(/\/sheets/);
  await expect(page.getByRole('img', { name: /Cut list/ }).first()).toContainText('W-101');
  await expect(page.getByRole('img', { name: /^Ends/ }).first()).toContainText('gaugeBench 3 · push-to-seat');
  await openBundle(page, /jobs\/([^/]+)/.exec(page.url())![1]!);
});

test('the wall is searched; a job is begun from another, put away and brought back, and stays what it was', async ({ page, request }) => {
  const id = await createTestJob(request, { ...createCleanInlet(), name: 'Wall one', customer: 'Quoin Motors' });
  const before = (await readJob(request, id)).document;
  await page.goto('/');
  const rows = page.getByRole('list', { name: 'Jobs' }).getByRole('listitem');
  await page.getByLabel('Search jobs').fill('quoin wall');
  await expect(rows).toHaveCount(1);
  await page.getByRole('button', { name: 'More of Wall one' }).click();
  await page.getByRole('menuitem', { name: 'Begin another from it' }).click();
  await expect(page).toHaveURL(/\/brief$/);
  await expect(page.getByRole('heading', { name: 'Wall one, copy' })).toBeVisible();
  await page.goto('/');
  await page.getByLabel('Search jobs').fill('quoin');
  await expect(rows).toHaveCount(2);
  await page.getByRole('button', { name: 'More of Wall one', exact: true }).click();
  await page.getByRole('menuitem', { name: 'Archive' }).click();
  await expect(rows).toHaveCount(1);
  await page
    .getByRole('group', { name: 'Which jobs' })
    .getByRole('button', { name: /^archived/ })
    .click();
  await expect(rows).toHaveText([/Wall one/]);
  expect((await readJob(request, id)).document).toEqual(before);
  await page.getByRole('button', { name: 'More of Wall one' }).click();
  await page.getByRole('menuitem', { name: 'Back on the wall' }).click();
  await expect(rows).toHaveCount(0);
  await page
    .getByRole('group', { name: 'Which jobs' })
    .getByRole('button', { name: /^in work/ })
    .click();
  await expect(rows).toHaveCount(2);
  const wrong = `/api/jobs/${crypto.randomUUID()}/archived`;
  expect((await request.post(wrong, { data: { archived: true } })).status()).toBe(404);
  expect((await request.post(`/api/jobs/${id}/archived`, { data: { archived: 'yes' } })).status()).toBe(400);
});

test('a new job begins on Brief, in order nowhere yet; its first loom comes from the shop’s own spreadsheet', async ({ page }) => {
  await page.goto('/');
  await page.getByRole('button', { name: 'New job' }).click();
  await page.getByLabel('Name').fill('Coil loom');
  await page.getByRole('button', { name: 'Begin job' }).click();
  await expect(page).toHaveURL(/\/brief$/);
  const stations = page.getByRole('navigation', { name: 'Stations' });
  await expect(stations.getByTitle('1 stop, 0 check')).toBeVisible();
  await expect(stations.getByTitle('no open findings')).toHaveCount(0);
  await page.getByRole('button', { name: 'A loom from a wire list …' }).click();
  const rows = ['1', '2', '3', '4'].flatMap((nth) => [
    `plug,${Number(nth) * 2 - 1},coil ${nth},1`,
    `plug,${Number(nth) * 2},coil ${nth},2`,
  ]);
  const list = ['from,from pin,to,to pin', ...rows].join('\n');
  await page
    .locator('input[type=file]')
    .first()
    .setInputFiles({ name: 'coils.csv', mimeType: 'text/csv', buffer: Buffer.from(list) });
  const dialog = page.getByRole('dialog', { name: 'A loom from a wire list (CSV)' });
  await dialog.getByRole('button', { name: 'The smallest that has the cavities, for all' }).click();
  await dialog.getByLabel('First letters of its wire numbers').fill('C');
  await expect(dialog).toContainText('It makes 5 ends and 8 circuits');
  await dialog.getByRole('button', { name: 'Make the loom' }).click();
  await expect(page.getByRole('group', { name: 'Strip of coils' })).toBeVisible();
  // the empty loom that a job begins with made room
  await expect(page.getByRole('navigation', { name: 'Looms' }).getByRole('link')).toHaveText(['coils']);
  await expect(stations.getByTitle('no open findings').first()).toBeVisible();
});
