import { randomUUID } from 'node:crypto';
import { Agent, get } from 'node:http';
import { setTimeout } from 'node:timers/promises';
import { expect, test, type Page } from '@playwright/test';
import { createInlet } from 'wattograph-core/demo';
import type { Job } from 'wattograph-core';
import { chooseColumns, createTestJob, openBundle, readJob, sendEdit } from './helpers';

const offer = (page: Page, name: string, content: string | Buffer) =>
  page.locator('input[type=file]').setInputFiles({ name, mimeType: 'application/json', buffer: Buffer.from(content) });
const spoilt = (change: (job: Job) => void) => {
  const job = structuredClone(createInlet());
  change(job);
  return JSON.stringify(job);
};

test('a bad job file is refused with its place and nothing is stored', async ({ page }) => {
  await page.goto('/');
  const jobs = await page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').count();
  const cases: [string, string | Buffer, RegExp][] = [
    ['cut.json', JSON.stringify(createInlet()).slice(0, 400), /line 1, column 401: expected more JSON, got the end of the file/],
    [
      'type.json',
      spoilt((job) => {
        job.looms.inlet!.segments.t1!.lengthMm = '60' as never;
      }),
      /\/looms\/inlet\/segments\/t1\/lengthMm: expected number, got "60"/,
    ],
    [
      'loop.json',
      spoilt((job) => {
        job.looms.inlet!.segments.x = { ...job.looms.inlet!.segments.t1!, fromNodeId: 'bk1', toNodeId: 'bk3' };
      }),
      /expected a tree, got a loop through segments t3, t4, x/,
    ],
    [
      'cavity.json',
      spoilt((job) => {
        job.looms.inlet!.circuits.c203!.terminations[0]!.cavity = '99';
      }),
      /expected a cavity of inlet bulkhead B1 \(Hollin 37, 1 to 37\), got "99"/,
    ],
    [
      'twice.json',
      spoilt((job) => {
        job.looms.inlet!.circuits.c203!.terminations[0]!.cavity = '4';
      }),
      /expected one wire in a cavity, got circuits "c203" and "c204" both in inlet bulkhead B1 cavity 4/,
    ],
    [
      'negative.json',
      spoilt((job) => {
        job.looms.inlet!.segments.t1!.lengthMm = -60;
      }),
      /lengthMm: must be > 0, got -60/,
    ],
    ['big.json', Buffer.alloc(49 * 1024 * 1024, 32), /expected at most 8 MB, got 49 MB/],
  ];
  for (const [name, content, expected] of cases) {
    await offer(page, name, content);
    const alert = page.getByRole('alert').filter({ hasText: name });
    await expect(alert).toContainText('nothing was stored');
    await expect(alert).toContainText(expected);
  }
  await page.reload();
  expect(await page.getByRole('list', { name: 'Jobs' }).getByRole('listitem').count()).toBeGreaterThanOrEqual(jobs);
  await expect(page.getByText('cut.json')).toHaveCount(0);
});

test('a from-to list with semicolons and a byte-order mark becomes a loom in a mapping step', async ({ page, request }) => {
  const id = await createTestJob(request);
  await openBundle(page, id);
  await page.getByRole('button', { name: 'Add a loom' }).click();
  await page.getByRole('button', { name: /From a wire list/ }).click();
  const dialog = page.getByRole('dialog', { name: 'A loom from a wire list (CSV)' });
  const csv = (text: string) =>
    dialog
      .locator('input[type=file]')
      .or(page.locator('input[type=file]'))
      .first()
      .setInputFiles({ name: 'pump.csv', mimeType: 'text/csv', buffer: Buffer.from(text) });
  await csv('\ufeffA;A pin;A;Z pin\n1;2;3;4\n');
  await expect(dialog).toContainText('line 1, column 3: expected a column name of its own, got "A" twice');
  await csv(
    '\ufeffStart;Start pin;Stop;Stop pin;Meaning;Colour\nECU;1;"pump; left";1;"pump ""feed""";red/black\nECU;2;"pump; left";2;return;black\nECU;2;fan;1;return;black\n',
  );
  await expect(dialog).toContainText('3 rows, fields parted by “;”');
  await chooseColumns(page);
  await expect(dialog).toContainText('line 4: expected one wire in a cavity, got a second in ECU 2 (first in line 3)');
  await dialog.getByLabel(/Join rows that share a cavity/).check();
  await expect(dialog).toContainText('It makes 3 ends and 2 circuits');
  await dialog.getByLabel('First letters of its wire numbers').fill('P');
  await dialog.getByRole('button', { name: 'Make the loom' }).click();
  await expect(page.getByRole('group', { name: 'Strip of pump' })).toContainText('pump; left');
  await expect
    .poll(async () => Object.values((await readJob(request, id)).document.looms).map(({ name }) => name))
    .toEqual(['inlet', 'pump']);
});

test.describe('the server', () => {
  test('sends the usual headers, says that it is well, and gives no version away', async ({ request }) => {
    const page = await request.get('/');
    expect(page.headers()).toMatchObject({
      'x-content-type-options': 'nosniff',
      'x-frame-options': 'DENY',
      'referrer-policy': 'same-origin',
    });
    expect(page.headers()['content-security-policy']).toMatch(/script-src 'self' 'nonce-[^']+' 'strict-dynamic'/);
    expect(page.headers()['content-security-policy']).not.toContain('unsafe-eval');
    expect(page.headers()['x-powered-by']).toBeUndefined();
    expect(await (await request.get('/api/health')).json()).toEqual({ ok: true });
  });

  test('leaves a connection that rests to the one who asks, so that no request crosses its end', async ({ baseURL }) => {
    const agent = new Agent({ keepAlive: true, maxSockets: 1 });
    const ask = () =>
      new Promise<{ status: number | undefined; port: number | undefined }>((resolve, reject) => {
        get(`${baseURL}/api/health`, { agent }, (response) => {
          const port = response.socket.localPort;
          response.resume().on('end', () => resolve({ status: response.statusCode, port }));
        }).on('error', reject);
      });
    const first = await ask();
    // Node's own limit is 5 s
    await setTimeout(6_500);
    expect(await ask()).toEqual({ status: 200, port: first.port });
    agent.destroy();
  });

  test('takes an edit once however often it is sent, and refuses a stale one with what happened since', async ({ request }) => {
    const jobId = await createTestJob(request);
    const editId = randomUUID();
    const patch = [{ op: 'replace' as const, path: '/notes', value: 'one' }];
    const first = await (await sendEdit(request, jobId, 0, patch, editId)).json();
    expect(await (await sendEdit(request, jobId, 0, patch, editId)).json()).toEqual(first);
    expect((await readJob(request, jobId)).version).toBe(1);
    const stale = await sendEdit(request, jobId, 0, [{ op: 'replace', path: '/name', value: 'two' }]);
    expect(stale.status()).toBe(409);
    expect(await stale.json()).toMatchObject({ version: 1, since: [{ version: 1, author: 'Imke Dorsey', patch }] });
  });

  test('refuses an edit that would break the job, whole', async ({ request }) => {
    const jobId = await createTestJob(request);
    for (const patch of [
      [
        { op: 'replace' as const, path: '/name', value: 'kept?' },
        { op: 'replace' as const, path: '/looms/inlet/segments/t1/lengthMm', value: -1 },
      ],
      [{ op: 'remove' as const, path: '/looms/inlet/nodes/bk1' }],
      [{ op: 'replace' as const, path: '/looms/inlet/segments/gone/lengthMm', value: 5 }],
    ]) {
      const response = await sendEdit(request, jobId, 0, patch);
      expect(response.status()).toBe(422);
    }
    expect(await readJob(request, jobId)).toMatchObject({ version: 0, document: { name: 'Skerry 12' } });
  });

  test('refuses bodies that are too large, broken or not of the declared shape, each with its place', async ({ request }) => {
    const send = (data: string) => request.post('/api/jobs', { headers: { 'content-type': 'application/json' }, data: Buffer.from(data) });
    const big = await send(`{"x":"${'y'.repeat(50 * 1024 * 1024)}"}`).catch(() => null);
    expect(big === null || big.status() === 413).toBe(true);
    const broken = await send('{"id": ');
    expect(broken.status()).toBe(400);
    expect(await broken.json()).toEqual({
      problems: [{ path: 'line 1, column 8', message: 'expected more JSON, got the end of the file: it is cut short' }],
    });
    expect((await send('{"id":"x","author":"a","document":{}}')).status()).toBe(400);
    expect((await request.get('/api/jobs/none')).status()).toBe(404);
    expect((await request.get(`/api/jobs/${randomUUID()}`)).status()).toBe(404);
    const id = await createTestJob(request);
    expect((await request.get(`/api/jobs/${id}/sheets?paper=A9`)).status()).toBe(400);
    expect((await request.get(`/api/jobs/${id}/export?what=wires&loom=none`)).status()).toBe(404);
  });

  test('undo is refused where somebody else changed the same place since', async ({ request }) => {
    const jobId = await createTestJob(request);
    await sendEdit(request, jobId, 0, [{ op: 'replace', path: '/notes', value: 'mine' }], randomUUID());
    await sendEdit(request, jobId, 1, [{ op: 'replace', path: '/notes', value: 'theirs' }], randomUUID(), 'jun');
    const response = await request.post(`/api/jobs/${jobId}/history`, { data: { id: randomUUID(), direction: 'undo' } });
    expect(response.status()).toBe(409);
    expect(await response.json()).toMatchObject({
      problems: [{ path: '/notes', message: 'Jun Okafor has changed the same place since; "test edit" cannot be taken back.' }],
    });
    expect((await readJob(request, jobId)).document.notes).toBe('theirs');
  });
});
