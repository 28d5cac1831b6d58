import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { request as send } from 'node:http';
import { expect, test } from '@playwright/test';
import sharp from 'sharp';
import { Client } from 'pg';
import { cookieOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, sendRelease } from './helpers';
import { createHostile, listRoutes, listUnknown, type Hostile } from './hostileRequests';
import { ownApplication } from './rig';

const own = ownApplication('hostile');
const COUNT = process.env.WATTOGRAPH_SOAK === '1' ? 10_000 : 600;
/** MB that the application may grow by while one of them is answered, and have at most: what is left of the others is collected when it gets too much */
const [MOST_MORE_MB, MOST_MB] = [200, 700];
/** without an answer by then it hangs */
const HANGS_MS = 20_000;

const COOKIE = cookieOf('imke');

interface Answered extends Hostile {
  seed: number;
  status: number;
  ms: number;
}

/** Sent as it is written: fetch would mend an address or refuse a header. */
function ask(address: string, { method, path, headers, body }: Hostile): Promise<{ status: number; ms: number }> {
  const { hostname, port } = new URL(address);
  const started = performance.now();
  return new Promise((resolve, reject) => {
    const bytes = body === null ? null : Buffer.from(body as string);
    const request = send(
      {
        hostname,
        port,
        method,
        path,
        headers: { cookie: COOKIE, ...headers, ...(bytes ? { 'content-length': bytes.length } : {}) },
        timeout: HANGS_MS,
      },
      (response) => {
        response.resume().on('end', () => resolve({ status: response.statusCode!, ms: performance.now() - started }));
      },
    );
    request.on('timeout', () => request.destroy(new Error(`no answer within ${HANGS_MS} ms: ${method} ${path.slice(0, 80)}`)));
    request.on('error', reject);
    request.end(bytes ?? undefined);
  });
}

async function countRows(): Promise<Record<string, number>> {
  const client = new Client({ connectionString: own.running.database });
  await client.connect();
  try {
    const tables = [
      'jobs',
      'edits',
      'releases',
      'release_looms',
      'floor_events',
      'photos',
      'shop_versions',
      'people',
      'invites',
      'devices',
    ];
    const counts: Record<string, number> = {};
    for (const table of tables)
      counts[table] = (await client.query<{ count: number }>(`select count(*)::int as count from ${table}`)).rows[0]!.count;
    counts.archived = (
      await client.query<{ count: number }>('select count(*)::int as count from jobs where archived_at is not null')
    ).rows[0]!.count;
    return counts;
  } finally {
    await client.end();
  }
}

/** Resident memory of a process and what it started, MB. */
const memoryOf = (pid: number): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

test('every route that takes a body is known to the hostile requests', () => {
  expect(listRoutes().length).toBeGreaterThan(20);
  expect(listUnknown(listRoutes())).toEqual([]);
});

test(`${COUNT} hostile requests over every route: none is carried out, none is a failure of the server, none takes its memory`, async () => {
  test.setTimeout(600_000 + COUNT * 60);
  const { address } = own.running;
  const jobId = await createTestJob(own.request, createCleanInlet());
  const released = await sendRelease(own.request, jobId);
  expect(await released.text()).toContain('number');
  const photoId = randomUUID();
  const picture = await sharp({ create: { width: 8, height: 8, channels: 3, background: 'white' } })
    .jpeg()
    .toBuffer();
  const about = new URLSearchParams({ id: photoId, loom: 'inlet', node: 'bk1', caption: '', author: 'x', takenAt: '2026-11-24T08:00:00Z' });
  const photo = await own.request.post(`/api/jobs/${jobId}/photos?${about}`, { data: picture, headers: { 'content-type': 'image/jpeg' } });
  expect(photo.status()).toBe(201);
  const routes = listRoutes().filter(({ path }) => !['/api/live', '/api/accounts/sign-out'].includes(path));
  const before = await countRows();
  const memory = memoryOf(own.running.server);
  let [most, mostMore] = [memory, 0];
  const answers: Answered[] = [];
  const seeds = Array.from({ length: COUNT }, (_, seed) => seed + 1);
  await Promise.all(
    Array.from({ length: 4 }, async () => {
      for (let seed = seeds.shift(); seed !== undefined; seed = seeds.shift()) {
        const hostile = createHostile(seed, routes, { jobId, photoId });
        const started = memoryOf(own.running.server);
        answers.push({ seed, ...hostile, ...(await ask(address, hostile)) });
        const now = memoryOf(own.running.server);
        [most, mostMore] = [Math.max(most, now), Math.max(mostMore, now - started)];
      }
    }),
  );
  const words = ({ seed, what, method, path, status, body }: Answered) =>
    `${seed}: ${status} ${method} ${path.slice(0, 120)} (${what}) ${String(body).slice(0, 160)}`;
  expect(answers.filter(({ status }) => status >= 500).map(words)).toEqual([]);
  expect(answers.filter(({ method, status }) => method !== 'GET' && method !== 'DELETE' && status < 400).map(words)).toEqual([]);
  expect(await countRows()).toEqual(before);
  expect(mostMore).toBeLessThan(MOST_MORE_MB);
  expect(most).toBeLessThan(MOST_MB);
  const times = answers.map(({ ms }) => ms).sort((a, b) => a - b);
  const at = (share: number) => Math.round(times[Math.floor((times.length - 1) * share)]!);
  console.log(
    `${COUNT} hostile requests: p50 ${at(0.5)}, p95 ${at(0.95)}, p99 ${at(0.99)}, slowest ${at(1)} ms; memory ${Math.round(memory)} → ${Math.round(most)} MB, at most ${Math.round(mostMore)} MB more during one`,
  );
  for (const slow of [...answers].sort((a, b) => b.ms - a.ms).slice(0, 5))
    console.log(`  ${Math.round(slow.ms)} ms: ${words(slow).slice(0, 160)}`);
  // who asks properly is served as before
  expect((await own.request.get(`/api/jobs/${jobId}`)).status()).toBe(200);
  expect(await (await own.request.get('/api/health')).json()).toEqual({ ok: true });
});
