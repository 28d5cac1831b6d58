import { execFile } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { expect, test } from '@playwright/test';
import { createRandomJob } from 'wattograph-core/generate';
import type { Job } from 'wattograph-core';
import { Client } from 'pg';
import { createCleanInlet, createTestJob, readJob, sendEdit, sendRelease } from './helpers';
import { ownApplication } from './rig';

const root = join(__dirname, '..');
const TOKEN = 'the token of whoever looks after it';
const KEYS = { AWS_ACCESS_KEY_ID: 'tests', AWS_SECRET_ACCESS_KEY: 'a secret of the tests' };

interface Store {
  address: string;
  port: number;
  objects: Map<string, Buffer>;
  stop: () => Promise<void>;
}
let store: Store;
const startStore = async (port = 0): Promise<Store> => {
  const file = join(root, 'scripts/standIns/objectStore.mjs');
  const { startObjectStore } = (await import(file)) as { startObjectStore: (options: object) => Promise<Store> };
  return startObjectStore({ keyId: KEYS.AWS_ACCESS_KEY_ID, port });
};
test.beforeAll(async () => {
  store = await startStore();
});
test.afterAll(() => store.stop());

const own = ownApplication('operations', false, () => ({
  ...KEYS,
  WATTOGRAPH_PHOTOS: store.address,
  WATTOGRAPH_METRICS_TOKEN: TOKEN,
  WATTOGRAPH_LINE_SECONDS: '3',
  WATTOGRAPH_TASK_SECONDS: '20',
}));

async function query<T extends object>(text: string, values: unknown[] = [], url = own.running.database): Promise<T[]> {
  const client = new Client({ connectionString: url });
  await client.connect();
  try {
    return (await client.query(text, values)).rows as T[];
  } finally {
    await client.end();
  }
}

/** Not at once: the store answers in this process. */
async function probe(...args: string[]) {
  const { stdout } = await promisify(execFile)('node', ['--import', 'tsx', 'e2e/operateProbe.ts', ...args], {
    cwd: root,
    env: { ...process.env, ...KEYS, WATTOGRAPH_PHOTOS: store.address, DATABASE_URL: own.running.database, LOG_LEVEL: 'silent' },
  });
  return JSON.parse(stdout.split('\n').at(-1)!) as { version: number | null; snapshot: { version: number; document: Job } | null };
}

async function createPhoto(): Promise<Buffer> {
  const { default: sharp } = await import('sharp');
  return sharp({ create: { width: 40, height: 30, channels: 3, background: '#8a6' } })
    .jpeg()
    .toBuffer();
}

const sendPhoto = async (jobId: string, id: string) =>
  own.request.post(
    `/api/jobs/${jobId}/photos?${new URLSearchParams({ id, loom: 'inlet', node: 'bk1', caption: 'bracket', takenAt: '2026-11-24T08:00:00Z' })}`,
    {
      data: await createPhoto(),
      headers: { 'content-type': 'image/jpeg' },
    },
  );

test('photos lie in an object store where one is named: sent, shown, moved there, removed; while it is away nothing is said to be stored', async () => {
  const jobId = await createTestJob(own.request, createCleanInlet());
  const [first, late] = [randomUUID(), randomUUID()];
  expect((await sendPhoto(jobId, first)).status()).toBe(201);
  const path = (id: string) => `/wattograph/photos/${id}.jpg`;
  expect(store.objects.get(path(first))!.subarray(0, 3)).toEqual(Buffer.from([0xff, 0xd8, 0xff]));
  expect(await query('select bytes from photos where id = $1', [first])).toEqual([{ bytes: null }]);
  expect(await (await own.request.get(`/api/photos/${first}`)).body()).toEqual(store.objects.get(path(first)));
  // the store goes away and comes back
  const { port } = store;
  const kept = store.objects;
  await store.stop();
  expect([(await sendPhoto(jobId, late)).status(), (await own.request.get(`/api/photos/${first}`)).status()]).toEqual([503, 503]);
  store = await startStore(port);
  for (const [name, bytes] of kept) store.objects.set(name, bytes);
  expect((await sendPhoto(jobId, late)).status()).toBe(201);
  expect(((await (await own.request.get(`/api/jobs/${jobId}/photos`)).json()) as { id: string }[]).map(({ id }) => id).sort()).toEqual(
    [first, late].sort(),
  );
  // one of before there was a store
  const old = randomUUID();
  await query(
    `insert into photos (id, job_id, loom_id, node_id, caption, author, width_px, height_px, bytes, taken_at)
     values ($1, $2, 'inlet', 'bk1', '', 'Jun Okafor', 1, 1, '\\xffd8ff01', now())`,
    [old, jobId],
  );
  await probe('move');
  expect(store.objects.get(path(old))).toEqual(Buffer.from([0xff, 0xd8, 0xff, 1]));
  expect(await (await own.request.get(`/api/photos/${old}`)).body()).toEqual(Buffer.from([0xff, 0xd8, 0xff, 1]));
  expect((await own.request.delete(`/api/photos/${first}`)).status()).toBe(200);
  expect([store.objects.has(path(first)), store.objects.has(path(late))]).toEqual([false, true]);
});

test('what has been in the bin for a month is gone for good, with its ticks and photos; what has not is not', async () => {
  const [gone, young] = [await createTestJob(own.request, createCleanInlet()), await createTestJob(own.request, createCleanInlet())];
  const photo = randomUUID();
  expect((await sendPhoto(gone, photo)).status()).toBe(201);
  for (const id of [gone, young]) {
    expect((await own.request.post(`/api/jobs/${id}/deleted`, { data: { deleted: true } })).status()).toBe(200);
    await query(
      `insert into floor_events (id, job_id, release, loom_id, step_id, item_id, kind, words, author, happened_at)
       values ($1, $2, 1, 'inlet', 'test', 'step', 'problem', '', 'Tobin Ashgrove', now())`,
      [randomUUID(), id],
    );
  }
  await query(`update jobs set deleted_at = now() - interval '31 days' where id = $1`, [gone]);
  await query(`update jobs set deleted_at = now() - interval '29 days' where id = $1`, [young]);
  await probe('bin');
  expect(await query('select id from jobs where id = any($1)', [[gone, young]])).toEqual([{ id: young }]);
  expect(await query('select job_id from floor_events where job_id = any($1)', [[gone, young]])).toEqual([{ job_id: young }]);
  expect(store.objects.has(`/wattograph/photos/${photo}.jpg`)).toBe(false);
  expect(await query(`select person from audit where what like '%gone for good%'`)).toEqual([{ person: 'Imke Dorsey' }]);
});

test('a long history is kept as a snapshot and the edits after it: those are undone one by one, who made the earlier ones is still known', async () => {
  const id = await createTestJob(own.request, createCleanInlet());
  for (let version = 0; version < 30; version += 1)
    expect((await sendEdit(own.request, id, version, [{ op: 'replace', path: '/notes', value: `note ${version + 1}` }])).status()).toBe(
      200,
    );
  const before = (await readJob(own.request, id)).document;
  expect(await probe('compact', id, '30')).toEqual({ version: null, snapshot: null });
  const { version, snapshot } = await probe('compact', id, '10');
  expect([version, snapshot?.version, snapshot?.document.notes]).toEqual([20, 20, 'note 20']);
  expect({ ...snapshot!.document, notes: 'note 30' }).toEqual(before);
  expect((await readJob(own.request, id)).document).toEqual(before);
  const edits = (await (await own.request.get(`/api/jobs/${id}/edits?since=0`)).json()) as { author: string; patch: object[] }[];
  expect(edits.map(({ patch }) => patch.length)).toEqual(Array.from({ length: 30 }, (_, index) => (index < 20 ? 0 : 1)));
  expect(new Set(edits.map(({ author }) => author))).toEqual(new Set(['Imke Dorsey']));
  const undo = () => own.request.post(`/api/jobs/${id}/history`, { data: { id: randomUUID(), direction: 'undo' } });
  for (let count = 0; count < 10; count += 1) expect((await undo()).status()).toBe(200);
  expect((await readJob(own.request, id)).document).toEqual(snapshot!.document);
  const last = await undo();
  expect([last.status(), await last.text()]).toEqual([409, expect.stringContaining('nothing of Imke Dorsey to undo')]);
});

test('the application works with what is stored and does nothing else: no tables, no roles, no files, no audit rewritten', async () => {
  const as = (text: string) =>
    query(text, [], own.running.appDatabase).then(
      () => 'done',
      ({ code }: { code: string }) => code,
    );
  const DENIED = '42501';
  for (const text of [
    'create table public.mine (x int)',
    'create schema mine',
    'drop table audit',
    'alter table jobs add column mine int',
    'create role mine superuser',
    `update audit set person = 'somebody'`,
    'delete from audit',
    'truncate jobs',
    `copy jobs to program 'cat'`,
    `select pg_read_file('/etc/hostname')`,
    'select * from drizzle.__drizzle_migrations',
  ])
    expect([text, await as(text)]).toEqual([text, DENIED]);
  expect(await as('select count(*) from jobs')).toBe('done');
});

test('figures are for who has the token, and name routes, not jobs', async ({ request }) => {
  const id = await createTestJob(own.request, createCleanInlet());
  await readJob(own.request, id);
  const ask = (token: string) => own.request.get('/api/metrics', { headers: { authorization: `Bearer ${token}` } });
  expect([(await own.request.get('/api/metrics')).status(), (await ask('a guess')).status()]).toEqual([401, 401]);
  const text = await (await ask(TOKEN)).text();
  expect(text).toMatch(/wattograph_request_seconds_count\{route="\/api\/jobs\/\[id\]",method="GET",status="200"\} [1-9]/);
  expect(text).toMatch(/wattograph_database_connections\{state="idle"\} \d/);
  expect(text).not.toContain(id);
  // without a token of the start there are none
  expect((await request.get('/api/metrics', { headers: { authorization: `Bearer ${TOKEN}` } })).status()).toBe(404);
});

test('a job that takes too long to plan says so on the wall and in its answer, and holds up nobody else', async () => {
  const heavy = createRandomJob(7, 20_000);
  const heavyId = await createTestJob(own.request, heavy);
  const smallId = await createTestJob(own.request, createCleanInlet());
  const wall = async () => (await own.request.get('/')).text();
  await expect.poll(wall).toContain('planning it takes longer than 3 s');
  const ask = () =>
    own.request.get(`/api/jobs/${heavyId}/sheets?format=pdf&loom=${Object.keys(heavy.looms)[0]}`, {
      headers: { prefer: 'wait=30' },
      timeout: 300_000,
    });
  let answer = await ask();
  // the server lets nobody wait longer than half a minute: what is not ready is asked for again
  while (answer.status() === 202) answer = await ask();
  expect([answer.status(), await answer.text()]).toEqual([422, expect.stringContaining('It was ended after 20 s')]);
  // and the next one is served: what was ended stays ended, so each try is one of its own, as when a person presses again
  const release = async () => (await sendRelease(own.request, smallId, { id: randomUUID(), base: 0 })).status();
  await expect.poll(release, { timeout: 240_000 }).toBe(201);
  expect((await readJob(own.request, heavyId)).version).toBe(0);
  expect((await own.request.post(`/api/jobs/${heavyId}/deleted`, { data: { deleted: true } })).status()).toBe(200);
});
