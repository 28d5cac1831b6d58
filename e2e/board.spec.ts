import { readFileSync } from 'node:fs';
import { expect, test, type Page } from '@playwright/test';
import { createCleanInlet, createTestJob, pick, readJob, saved, sendRelease, turnTo } from './helpers';

const LOOM = 'inlet';
const run = (page: Page, name: RegExp) => page.getByRole('group', { name: /^Board of/ }).getByRole('button', { name });
async function download(page: Page, name: string): Promise<Buffer> {
  const waiting = page.waitForEvent('download');
  await page.getByRole('button', { name }).click();
  return readFileSync(await (await waiting).path());
}

test('a loom is laid out by search, a branch dragged to the other side, printed in pages; a leg measured longer names what is stale', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request);
  await page.goto(`/jobs/${id}/brief`);
  await turnTo(page, '9', /\/board/);
  await expect(page.getByText('Not searched yet: spread at a guess.')).toBeVisible();
  await page.getByRole('button', { name: 'Search the layout' }).click();
  await expect(page.getByText('laid out', { exact: true })).toBeVisible();
  await expect(page.getByText(/^Too near/)).toHaveCount(0);
  await saved(page);

  // dragged by its far end across the trunk
  const spread = async () => (await readJob(request, id)).document.looms[LOOM]!.board;
  const before = (await spread()).turns['s-inj1']!;
  const box = (await run(page, /^primary rail to injector 1, /).boundingBox())!;
  const near = { x: box.x + box.width / 2, y: box.y + box.height / 2 };
  const trunk = (await page
    .getByRole('group', { name: /^Board of/ })
    .locator('[data-fork="false"]')
    .first()
    .boundingBox())!;
  const across = trunk.y + trunk.height / 2;
  await page.mouse.move(near.x, near.y);
  await page.mouse.down();
  await page.mouse.move(near.x, across, { steps: 4 });
  await page.mouse.move(near.x + 3, 2 * across - near.y, { steps: 6 });
  await expect(page.getByText(/° to the (left|right)/)).toBeVisible();
  await page.mouse.up();
  await saved(page);
  const turned = (await spread()).turns['s-inj1']!;
  expect([Math.sign(turned.deg), turned.pinned]).toEqual([-Math.sign(before.deg), true]);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect.poll(async () => (await spread()).turns['s-inj1']!.deg).toBe(before.deg);

  expect((await download(page, 'Pages (PDF)')).subarray(0, 5).toString()).toBe('%PDF-');
  expect((await download(page, 'Plank (PDF)')).subarray(0, 5).toString()).toBe('%PDF-');
  const dxf = (await download(page, 'DXF')).toString();
  for (const layer of ['RUNS', 'PEGS', 'FIXTURES', 'BANDS']) expect(dxf).toContain(layer);
  expect((await download(page, 'SVG')).toString()).toContain('width="3000mm"');
  expect((await download(page, 'Pegs (CSV)')).toString()).toMatch(/^\uFEFF?peg,kind,x mm/);

  await page.getByRole('button', { name: 'This print hangs' }).click();
  await page.getByLabel('Bar of the print').fill('100');
  await page.keyboard.press('Enter');
  await expect(page.getByText('The print is true, and shows the loom as it is now.')).toBeVisible();
  await saved(page);
  // its injector stands out furthest in this layout: pages may join, and those that do not show it hang on
  const { segments } = (await readJob(request, id)).document.looms[LOOM]!;
  await page.goto(`/jobs/${id}/bundle?tab=lengths`);
  await page.getByLabel('Filter the table').fill('injector 6');
  const length = page.getByLabel(/^Length of .* to injector 6$/);
  await length.fill(String(Math.round(segments['s-inj6']!.lengthMm) + 120));
  await length.press('Enter');
  await saved(page);
  await page.keyboard.press('Escape');
  await page.goto(`/jobs/${id}/board`);
  await expect(page.getByText(/Pages? [\d, and]+ (shows? what is no longer so|(is|are) new)/)).toBeVisible();
  const { printed } = await spread();
  const told = (await page.getByRole('img', { name: /^Map of \d+ pages?, stale: / }).getAttribute('aria-label'))!;
  const stale = told.split('stale: ')[1]!.split(', ').map(Number);
  expect(printed!.tiles.filter(({ number }) => !stale.includes(number)).length).toBeGreaterThan(printed!.tiles.length / 3);
  const some = await download(page, 'Stale pages (PDF)');
  expect(some.subarray(0, 5).toString()).toBe('%PDF-');
});

test('the drawing of a board refuses what it is not asked rightly', async ({ request }) => {
  const id = await createTestJob(request);
  const status = async (query: string) => (await request.get(`/api/jobs/${id}/board?${query}`)).status();
  expect(await status('what=half&format=pdf')).toBe(400);
  expect(await status('what=pages&format=svg')).toBe(400);
  expect(await status('what=plank&format=dxf')).toBe(400);
  expect(await status('what=pages&format=pdf&pages=1;2')).toBe(400);
  expect(await status('what=pages&format=pdf&pages=999')).toBe(400);
  expect(await status('what=whole&format=json&loom=none')).toBe(404);
  expect(await status('what=pages&format=pdf&address=http%3A%2F%2Fsomewhere.else')).toBe(400);
  // codes lead to this installation and nowhere else; without an address there are none
  const marks = async (query: string) => {
    const answer = await request.get(`/api/jobs/${id}/board?what=whole&format=svg${query}`, { headers: { prefer: 'wait=60' } });
    expect(answer.status()).toBe(200);
    return ((await answer.text()).match(/<path/g) ?? []).length;
  };
  const coded = await marks(`&address=${encodeURIComponent(process.env.E2E_ADDRESS!)}`);
  expect(coded).toBeGreaterThan(await marks(''));
});

test('a pack that hangs: after a change only the pages that say something else are shown and printed, with those to destroy', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto(`/jobs/${id}/bundle?tab=lengths`);
  await page.getByLabel('Filter the table').fill('injector 1');
  const length = page.getByLabel(/^Length of primary rail to injector 1/);
  await length.fill('261');
  await length.press('Enter');
  await saved(page);
  await page.goto(`/jobs/${id}/sheets`);
  const images = page.getByRole('img', { name: /, page \d+$/ });
  await expect(images.first()).toBeVisible();
  const all = await images.count();
  await pick(page, 'Which pages', 'changed since revision 1');
  await expect(page.getByText(/^Take down and destroy of revision 1: page \d+ \(/)).toBeVisible();
  const changed = await images.count();
  expect(changed).toBeGreaterThan(0);
  expect(changed).toBeLessThan(all);
  await expect(page.getByRole('img', { name: /^Cut list, page/ }).first()).toBeVisible();
  expect((await download(page, 'Save PDF')).subarray(0, 5).toString()).toBe('%PDF-');
  // against itself nothing differs
  const ask = async (query: string) => {
    const path = `/api/jobs/${id}/sheets?loom=inlet&release=1&since=1${query}`;
    let response = await request.get(path);
    while (response.status() === 202) response = await request.get(path);
    return response;
  };
  expect(((await (await ask('')).json()) as { changes: unknown }).changes).toEqual({ print: [], destroy: [] });
  expect((await ask('&format=pdf')).status()).toBe(409);
});

test('a revision of a loom that is laid out: the floor lays by pegs and pages, and tells the mark of a print that is of another state', async ({
  page,
  request,
}) => {
  const job = createCleanInlet();
  job.looms[LOOM]!.board.at = { xMm: 200, yMm: 600 };
  const id = await createTestJob(request, job);
  expect((await sendRelease(request, id)).status()).toBe(201);
  await page.goto(`/jobs/${id}/floor?release=1&loom=${LOOM}&card=${encodeURIComponent('post board')}`);
  await expect(page.getByRole('heading', { level: 1 })).toContainText('lay the wires');
  await expect(page.getByRole('button', { name: /injector 1 .*peg.* page/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /, on the board$/ })).toBeVisible();
  // the mark that stands on a page of the print of the same state is true, and no other
  const asked = await request.get(`/api/jobs/${id}/board?loom=${LOOM}&what=whole&format=json`, { headers: { prefer: 'wait=60' } });
  expect(asked.status()).toBe(200);
  const { tiles } = (await asked.json()) as { tiles: { pages: { number: number; fingerprint: string }[] } };
  const [tile] = tiles.pages;
  const mark = page.getByRole('textbox', { name: 'Mark of any page that hangs' });
  await mark.fill(tile!.fingerprint);
  await expect(page.getByText(`Page ${tile!.number} of this revision. Lay on it.`)).toBeVisible();
  await mark.fill('00000000');
  await expect(page.getByText('No page of revision 1 has this mark')).toBeVisible();
});
