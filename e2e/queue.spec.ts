import { randomUUID } from 'node:crypto';
import { expect, test } from '@playwright/test';
import { Client } from 'pg';
import { createCleanInlet, createTestJob, readJob, sendEdit, sendRelease } from './helpers';
import { ownApplication } from './rig';

const own = ownApplication('queue');

async function select<T extends object>(text: string, values: unknown[] = []): Promise<T[]> {
  const client = new Client({ connectionString: own.running.database });
  await client.connect();
  try {
    return (await client.query<T>(text, values)).rows;
  } finally {
    await client.end();
  }
}

const release = (jobId: string, id: string, wait: number) => sendRelease(own.request, jobId, { id, headers: { prefer: `wait=${wait}` } });

test('with no worker the wall of 20 jobs is there at once, uncounted; a worker counts them and the open page shows it by itself', async ({
  page,
}) => {
  // twenty jobs are planned one after the other, beside whatever else this machine is at
  own.running.killWorker();
  const ids: string[] = [];
  for (let count = 0; count < 20; count += 1)
    ids.push(await createTestJob(own.request, { ...createCleanInlet(), name: `Job ${count + 1}` }));
  await page.goto(own.running.address);
  await expect(page.getByText('its wires and findings are being counted')).toHaveCount(20);
  expect(await select('select job_id from job_lines')).toEqual([]);
  own.running.startWorker();
  await expect(page.getByText('1 loom, 44 wires')).toHaveCount(20, { timeout: 500_000 });
  await expect(page.getByText('Release revision 1')).toHaveCount(20);
  // an edit elsewhere: its line is counted anew, the others are left
  expect((await sendEdit(own.request, ids[7]!, 0, [{ op: 'remove', path: '/looms/inlet/circuits/c216' }])).status()).toBe(200);
  await expect(page.getByText('1 loom, 44 wires')).toHaveCount(19);
  const lines = await select<{ version: number }>('select version from job_lines where version > 0');
  expect(lines).toEqual([{ version: 1 }]);
  // what follows compares the shop with every job there is
  for (const id of ids) expect((await own.request.post(`/api/jobs/${id}/deleted`, { data: { deleted: true } })).ok()).toBe(true);
});

test('a page shows the plan that a worker made while its own planner is still on its way', async ({ page }) => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  await own.request.get('/');
  await expect.poll(() => select('select 1 from job_plans where job_id = $1 and version = 0', [jobId])).toHaveLength(1);
  await page.addInitScript(() => {
    class Silent extends EventTarget {
      postMessage() {}
      terminate() {}
    }
    Object.assign(window, { Worker: Silent });
  });
  await page.goto(`${own.running.address}/jobs/${jobId}/bundle`);
  await expect(page.getByRole('slider').first()).toBeVisible();
  await expect(page.getByRole('tab', { name: /^Findings/ })).toBeVisible();
  // of another version there is none, and a worker is asked for one
  expect((await sendEdit(own.request, jobId, 0, [{ op: 'remove', path: '/looms/inlet/circuits/c216' }])).status()).toBe(200);
  expect((await own.request.get(`/api/jobs/${jobId}/plan?version=1`)).status()).toBe(204);
  await expect.poll(async () => (await own.request.get(`/api/jobs/${jobId}/plan?version=1`)).status()).toBe(200);
  expect((await own.request.get(`/api/jobs/${jobId}/plan?version=x`)).status()).toBe(400);
});

test('while edits follow each other their job is not counted; when they rest, once', async () => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  const read = async () => (await select<{ version: number }>('select version from job_lines where job_id = $1', [jobId]))[0]?.version ?? 0;
  await own.request.get('/');
  const seen = new Set<number>();
  for (let version = 0; version < 6; version += 1) {
    const name = `Name ${version}`;
    expect((await sendEdit(own.request, jobId, version, [{ op: 'replace', path: '/name', value: name }])).status()).toBe(200);
    seen.add(await read());
    await new Promise((resolve) => setTimeout(resolve, 1500));
  }
  await expect
    .poll(
      async () => {
        const version = await read();
        seen.add(version);
        return version;
      },
      { intervals: [50] },
    )
    .toBe(6);
  expect([...seen]).toEqual([0, 6]);
});

test('what a worker that was killed had in hand is done by the next one, once', async () => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  own.running.killWorker();
  const id = randomUUID();
  const asked = await release(jobId, id, 0);
  expect(asked.status()).toBe(202);
  const { task } = (await asked.json()) as { task: string };
  // taken out of the queue by one that then dies
  own.running.startWorker();
  await expect
    .poll(async () => (await select<{ state: string }>(`select state from pgboss.job where data->>'id' = $1`, [task]))[0]?.state, {
      intervals: [5],
    })
    .not.toBe('created');
  own.running.killWorker();
  own.running.startWorker();
  await expect.poll(async () => (await release(jobId, id, 2)).status()).toBe(201);
  expect(await (await own.request.get(`/api/jobs/${jobId}/releases`)).json()).toMatchObject([{ number: 1 }]);
});

test('a task that nobody waits for any more is not done; what is asked of it then is not there', async () => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  own.running.killWorker();
  const { task } = (await (await release(jobId, randomUUID(), 0)).json()) as { task: string };
  expect((await own.request.delete(`/api/tasks/${task}`)).status()).toBe(200);
  own.running.startWorker();
  // what is asked later is done later
  const askLater = () => own.request.get(`/api/jobs/${jobId}/sheets?loom=inlet`, { headers: { prefer: 'wait=30' } });
  await expect.poll(async () => (await askLater()).status()).toBe(200);
  expect(await (await own.request.get(`/api/jobs/${jobId}/releases`)).json()).toEqual([]);
  expect((await own.request.get(`/api/tasks/${task}`)).status()).toBe(404);
});

test('a release that was refused is asked again with its own id once the finding is mended', async () => {
  const job = createCleanInlet();
  job.looms.inlet!.segments['s-knk']!.status = 'guessed';
  const jobId = await createTestJob(own.request, job);
  const id = randomUUID();
  const refused = await release(jobId, id, 30);
  expect(refused.status()).toBe(422);
  expect(((await refused.json()) as { problems: { path: string }[] }).problems).toHaveLength(1);
  await sendEdit(own.request, jobId, (await readJob(own.request, jobId)).version, [
    { op: 'replace', path: '/looms/inlet/segments/s-knk/status', value: 'roped' },
  ]);
  expect((await release(jobId, id, 30)).status()).toBe(201);
});

test('sheets of one draft are drawn once; an edit makes them another thing', async () => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  const read = async () => (await (await own.request.get(`/api/jobs/${jobId}/sheets?loom=inlet`)).json()) as { revision: string };
  const answers = await Promise.all([read(), read(), read()]);
  expect(answers.map(({ revision }) => revision)).toEqual(Array(3).fill('draft, version 0'));
  const of = `select id from tasks where kind = 'pages' and input->>'jobId' = $1`;
  expect(await select(of, [jobId])).toHaveLength(1);
  await sendEdit(own.request, jobId, 0, [{ op: 'replace', path: '/name', value: 'Other' }]);
  expect((await read()).revision).toBe('draft, version 1');
  expect(await select(of, [jobId])).toHaveLength(2);
});

test('Shop says which jobs a part is in, also one that only their plan chose; such a part is retired, and a plan does without it', async ({
  page,
}) => {
  await createTestJob(own.request, { ...createCleanInlet(), name: 'Uses a Pellow' });
  const users = async () =>
    (
      await select<{ name: string }>(
        `select j.name from job_lines l join jobs j on j.id = l.job_id where l.uses::text like '%contacts/p16f%'`,
      )
    ).map(({ name }) => name);
  await page.goto(own.running.address);
  await expect.poll(users).toContain('Uses a Pellow');
  await page.goto(`${own.running.address}/shop`);
  await page
    .getByRole('navigation')
    .getByRole('button', { name: /^Contacts/ })
    .click();
  await page.getByRole('button', { name: /^Pellow 16 contact, fine/ }).click();
  await expect(page.getByRole('link', { name: 'Uses a Pellow' })).toBeVisible();
  await expect(page.getByRole('button', { name: 'Take it out' })).toBeDisabled();
  await page.getByRole('button', { name: 'Retire it' }).click();
  await page.getByRole('button', { name: /^Take 1 change/ }).click();
  const dialog = page.getByRole('dialog');
  await expect(dialog).toContainText('contacts/p16f');
  await expect(dialog).toContainText('Uses a Pellow');
  await dialog.getByRole('button', { name: 'Take it' }).click();
  await expect(page.getByRole('button', { name: 'Nothing changed' })).toBeVisible();
  // jobs keep the version they are planned with; a new one is planned without it
  await createTestJob(own.request, { ...createCleanInlet(), name: 'Planned without' });
  await page.goto(own.running.address);
  await expect
    .poll(async () => (await select(`select 1 from job_lines l join jobs j on j.id = l.job_id where j.name = 'Planned without'`)).length)
    .toBe(1);
  expect(await users()).not.toContain('Planned without');
  expect(await users()).toContain('Uses a Pellow');
});
