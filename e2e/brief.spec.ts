import { randomUUID } from 'node:crypto';
import ExcelJS from 'exceljs';
import { Client } from 'pg';
import { expect, test } from '@playwright/test';
import { FORMAT_VERSION } from 'wattograph-core';
import { createFenRanger, createInlet } from 'wattograph-core/demo';
import old from '../core/src/testing/formats/job-2.json';
import { createCleanInlet, createTestJob, pick, readJob, saved, sendRelease } from './helpers';

test('a device is picked by a pin it has, decided with a reason, put on an end, and counted against the agreed scope', async ({
  page,
  request,
}) => {
  const id = await createTestJob(request, createInlet());
  await page.goto(`/jobs/${id}/brief`);
  const scope = page.getByRole('status', { name: 'Scope against the quote' });
  await expect(scope).toContainText('14 devices, 30 circuits, not agreed yet');
  await scope.getByRole('button', { name: 'Agree scope' }).click();
  await expect(scope).toContainText('nothing added');
  await page.getByRole('button', { name: 'Add device' }).click();
  await page.getByLabel('Search the templates').fill('heater');
  await page.getByRole('option', { name: /wideband probe controller/ }).click();
  await expect(scope).toContainText('▲ +1 device, +0 circuits');
  const row = page.getByRole('row', { name: /wideband probe controller, 6 pins/ });
  await expect(page.getByRole('cell', { name: 'CAN high', exact: true })).toBeVisible();
  await pick(page, 'Decision on wideband probe controller', '… later', row);
  await pick(page, 'Unknown place of wideband probe controller', 'full length, coiled', row);
  await row.getByLabel('Reason for wideband probe controller').fill('bung not welded yet');
  await row.getByLabel('Reason for wideband probe controller').press('Enter');
  await saved(page);
  const device = Object.values((await readJob(request, id)).document.devices).at(-1);
  expect(device).toMatchObject({
    templateId: 'probe-wide',
    decision: 'later',
    unknownPolicy: 'coil',
    reason: 'bung not welded yet',
    decidedBy: 'Imke Dorsey',
  });
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row.getByLabel('Reason for wideband probe controller')).toHaveValue('');
});

test('a kind of device of her own begins from one of the catalogue and is offered at once', async ({ page, request }) => {
  const id = await createTestJob(request, createInlet());
  await page.goto(`/jobs/${id}/brief`);
  await page.getByRole('button', { name: 'New template' }).click();
  const dialog = page.getByRole('dialog');
  await dialog
    .getByRole('combobox', { name: 'Begin from' })
    .or(dialog.getByRole('textbox', { name: 'Begin from' }))
    .first()
    .click();
  await page.getByRole('option', { name: 'oil pressure', exact: true }).click();
  await dialog.getByLabel('Name').fill('gearbox pressure');
  await dialog.getByLabel('Pin 3', { exact: true }).fill('1');
  await expect(dialog.getByRole('alert').filter({ hasText: 'pin 1 stands twice' })).toBeVisible();
  await expect(dialog.getByRole('button', { name: 'Keep template' })).toBeDisabled();
  await dialog.getByLabel('Pin 3', { exact: true }).fill('C');
  await pick(page, 'Evidence of pin 3', 'read', dialog);
  await dialog.getByRole('button', { name: 'Keep template' }).click();
  await page.getByRole('button', { name: 'Add device' }).click();
  await page.getByLabel('Search the templates').fill('gearbox pressure');
  await page.getByRole('option', { name: /gearbox pressure.*of this job/ }).click();
  await expect(page.getByRole('button', { name: 'gearbox pressure, 3 pins' })).toBeVisible();
  await saved(page);
  const [template] = Object.values((await readJob(request, id)).document.deviceTemplates);
  expect(template!.pins.C).toMatchObject({ function: 'signal', evidence: 'read' });
});

test('a release is refused while a wire to be cut rests on an open item, or on an answer that is a guess', async ({ page, request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await page.goto(`/jobs/${id}/brief?tab=open`);
  await page.getByLabel('Open item', { exact: true }).fill('Which way does the throttle turn?');
  await page.getByRole('button', { name: 'Note it' }).click();
  await pick(page, 'Blocked by Which way does the throttle turn?', 'inlet · throttle');
  await saved(page);
  const release = () => sendRelease(request, id);
  const refused = await release();
  expect(refused.status()).toBe(422);
  expect(((await refused.json()) as { problems: unknown }).problems).toEqual([
    { path: 'SC2', message: '"Which way does the throttle turn?" is open: 6 wires are held from cutting. Imke Dorsey finds it out.' },
  ]);
  const answer = page.getByLabel('Answer to Which way does the throttle turn?');
  await answer.fill('clockwise');
  await answer.press('Enter');
  await pick(page, 'Evidence for Which way does the throttle turn?', 'guessed');
  await saved(page);
  expect((await release()).status()).toBe(422);
  await pick(page, 'Evidence for Which way does the throttle turn?', 'measured');
  await saved(page);
  await expect.poll(async () => (await release()).status()).toBe(201);
});

test('the donor ledger tells what a removal takes from a device that stays, and keeping the wire mends it', async ({ page, request }) => {
  const id = await createTestJob(request, createFenRanger());
  await page.goto(`/jobs/${id}/brief?tab=donor`);
  const ledger = page.getByRole('status', { name: 'Ledger' });
  await expect(ledger).toContainText('joins 3');
  await expect(ledger).toContainText('for stock 4.49 m, 1 not measured');
  await expect(page.getByText('▲ temperature ground (controller, throttle position stays)')).toBeVisible();
  await pick(page, 'Decision on donor wire 23', '= keep');
  await expect(page.getByText('▲ temperature ground')).toHaveCount(0);
  await expect(ledger).toContainText('for stock 3.77 m');
  await pick(page, 'Decision on donor wire 1', '− shorten');
  await expect(page.getByText('expected the length after shortening')).toBeVisible();
  await page.getByLabel('New length of donor wire 1', { exact: true }).fill('300');
  await page.getByLabel('New length of donor wire 1', { exact: true }).press('Enter');
  await expect(page.getByText('expected the length after shortening')).toHaveCount(0);
});

async function createBook(fill: (sheet: ExcelJS.Worksheet) => void): Promise<Buffer> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('pinout');
  sheet.addRow(['Wire', 'From', 'From pin', 'To', 'To pin', 'Function', 'Colour', 'Length mm']);
  fill(sheet);
  return Buffer.from(await book.xlsx.writeBuffer());
}

test('a pinout comes from a spreadsheet; merged cells and bad lengths are refused with their cell and line', async ({ page, request }) => {
  const id = await createTestJob(request, createFenRanger());
  await page.goto(`/jobs/${id}/brief?tab=donor`);
  await page.getByRole('button', { name: 'Import a pinout (CSV, XLSX)' }).click();
  const dialog = page.getByRole('dialog');
  const choose = (name: string, buffer: Buffer) =>
    dialog.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
  const merged = await createBook((sheet) => {
    sheet.addRow([1, 'lamp', '1', 'box', '4', 'dip', 'blue', 700]);
    sheet.addRow([2, 'lamp', '2', 'box', '5', 'main', 'blue', 700]);
    sheet.mergeCells('B2:B3');
  });
  await choose('merged.xlsx', merged);
  await expect(dialog).toContainText('pinout!B2:B3: expected single cells, got merged ones');
  await choose('broken.xlsx', merged.subarray(0, 900));
  await expect(dialog).toContainText('expected a spreadsheet (XLSX), got a file that is none or is cut short');
  await choose(
    'bad.xlsx',
    await createBook((sheet) => {
      sheet.addRow([1, 'lamp', '1', 'box', '4', 'dip', 'blue', -5]);
      sheet.addRow([2, '', '2', 'box', '5', 'main', 'blue', 700]);
    }),
  );
  await expect(dialog).toContainText('line 2, Length mm: expected a length above 0 and at most 20000 mm, got "-5"');
  await expect(dialog).toContainText('line 3, From: expected the name of a device or plug, got nothing');
  await expect(dialog.getByRole('button', { name: 'Keep the ledger' })).toBeDisabled();
  await choose('pinout.csv', Buffer.from('wire;from;to;function;length\n7;lamp;box;"dip, park";700\n'));
  await expect(dialog).toContainText('1 wire, nothing decided yet');
  await dialog.getByLabel('Name of the donor').fill('front loom');
  await dialog.getByRole('button', { name: 'Keep the ledger' }).click();
  await expect(page.getByRole('status', { name: 'Ledger' })).toContainText('front loom');
  await saved(page);
  const { donors } = (await readJob(request, id)).document;
  expect(Object.keys(donors)).toHaveLength(2);
  expect(Object.values(donors).at(-1)!.wires.w1).toMatchObject({
    number: '7',
    from: 'lamp',
    to: 'box',
    functions: ['dip', 'park'],
    lengthMm: 700,
  });
});

test('photos that are too large, broken or of no job are refused and not stored', async ({ request }) => {
  const id = await createTestJob(request, createInlet());
  const send = (data: Buffer, job = id) =>
    request.post(
      `/api/jobs/${job}/photos?${new URLSearchParams({ id: randomUUID(), loom: 'inlet', node: 'bk1', caption: '', author: 'x', takenAt: '2026-11-25T08:00:00Z' }).toString()}`,
      { data },
    );
  const large = await send(Buffer.alloc(60 * 1024 * 1024));
  expect([large.status(), ((await large.json()) as { problems: { message: string }[] }).problems[0]!.message]).toEqual([
    413,
    'expected at most 20 MB, got more: nothing was stored',
  ]);
  const broken = await send(Buffer.from('not a photograph'));
  expect(broken.status()).toBe(422);
  expect(await broken.text()).toContain('expected a photograph (JPEG, PNG, WebP)');
  expect((await send(Buffer.from('x'), randomUUID())).status()).toBe(404);
  expect(await (await request.get(`/api/jobs/${id}/photos`)).json()).toEqual([]);
});

test('a job stored by an older Wattograph is opened, edited and released in the present format', async ({ request }) => {
  const id = randomUUID();
  const client = new Client({ connectionString: process.env.E2E_DATABASE });
  await client.connect();
  await client.query('insert into jobs (id, version, document) values ($1, 0, $2)', [id, JSON.stringify(old)]);
  await client.end();
  const { document, version } = await readJob(request, id);
  expect([version, document.formatVersion, document.looms.rear!.segments.s1!.fittedMm]).toEqual([0, FORMAT_VERSION, 640]);
  const edit = await request.post(`/api/jobs/${id}/edits`, {
    data: {
      id: randomUUID(),
      base: 0,
      author: 'x',
      label: 'rename',
      patch: [
        { op: 'replace', path: '/brief/vehicle', value: 'hill-climber' },
        // which it did not say then
        { op: 'replace', path: '/looms/rear/ends/RL/pins/1/currentA', value: 0.6 },
      ],
    },
  });
  expect(edit.status()).toBe(200);
  expect((await readJob(request, id)).document.brief.vehicle).toBe('hill-climber');
  expect((await sendRelease(request, id)).status()).toBe(201);
});
