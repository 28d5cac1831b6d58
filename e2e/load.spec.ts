import { spawn, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { createSkerry } from 'wattograph-core/demo';
import { createRandomJob } from 'wattograph-core/generate';
import { Client } from 'pg';
import { cookieOf, storageOf, TEST_ENVIRONMENT } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, sendRelease } from './helpers';
import { findPort, ownApplication } from './rig';

const own = ownApplication('load');
const IS_SOAK = process.env.WATTOGRAPH_SOAK === '1';
const [TABLETS, PLANNERS, SECONDS] = IS_SOAK ? [200, 20, 60] : [8, 3, 4];
/**
 * Between two of a tablet, and of a planner, ms: at most so long, a random share of it. A contact takes longer to crimp than that; 16,000 is nearer
 * to a shop, and WATTOGRAPH_PAUSE_MS sets it.
 */
const [TICK_PAUSE_MS, EDIT_PAUSE_MS] = [Number(process.env.WATTOGRAPH_PAUSE_MS ?? 4000), 8000];
const PDFS = IS_SOAK ? 5 : 3;
/** tablets that come back into reach half way through (WATTOGRAPH_AWAY sets how many), and for how long they were away, s; each ticked on all the while */
const [AWAY, AWAY_S, MOST_AT_ONCE] = [Number(process.env.WATTOGRAPH_AWAY ?? Math.ceil(TABLETS / 5)), IS_SOAK ? 600 : 60, 200];

const COOKIE = cookieOf('imke');
const ends: (() => void)[] = [];
test.afterAll(() => ends.forEach((end) => end()));
const root = join(__dirname, '..');

let dropped = 0;
/** a tablet keeps its connection; and asking must cost this process little, for real ones have processors of their own */
const agent = new Agent({ keepAlive: true });

function askOnce(url: string, method: string, body: string | null): Promise<{ status: number; text: string }> {
  return new Promise((resolve, reject) => {
    const headers = {
      cookie: COOKIE,
      ...(body === null ? {} : { 'content-type': 'application/json', 'content-length': Buffer.byteLength(body) }),
    };
    const asked = request(url, { method, agent, headers }, (response) => {
      const chunks: Buffer[] = [];
      response.on('data', (chunk: Buffer) => chunks.push(chunk));
      response.on('end', () => resolve({ status: response.statusCode!, text: Buffer.concat(chunks).toString() }));
      response.on('error', reject);
    });
    asked.on('error', reject);
    asked.end(body ?? undefined);
  });
}

/**
 * Asked once more where the connection was closed under the request, as a browser does: a server lets go of one that was idle for five seconds, and may do so
 * as it is used again.
 */
async function ask(url: string, method: string, body: string | null): Promise<{ status: number; text: string }> {
  try {
    return await askOnce(url, method, body);
  } catch (error) {
    if (!['ECONNRESET', 'EPIPE'].includes((error as { code?: string }).code ?? '')) throw error;
    dropped += 1;
    return askOnce(url, method, body);
  }
}

async function send(address: string, path: string, body: object): Promise<{ status: number; ms: number; body: { version?: number } }> {
  const started = performance.now();
  const { status, text } = await ask(`${address}${path}`, 'POST', JSON.stringify(body));
  return { status, ms: performance.now() - started, body: JSON.parse(text) as { version?: number } };
}

const get = async <T>(address: string, path: string): Promise<T> => JSON.parse((await ask(`${address}${path}`, 'GET', null)).text) as T;

const pause = (mostMs: number) => new Promise((resolve) => setTimeout(resolve, mostMs * (0.3 + 0.7 * Math.random())));

/** A second application on the same database, as behind a balancer. */
async function startSecond(): Promise<{ address: string; child: ChildProcess }> {
  const port = await findPort();
  const child = spawn('node', ['node_modules/next/dist/bin/next', 'start', 'web', '-p', String(port), '-H', '127.0.0.1'], {
    cwd: root,
    stdio: 'ignore',
    env: { ...process.env, NODE_ENV: 'production', DATABASE_URL: own.running.database, ...TEST_ENVIRONMENT },
  });
  const address = `http://127.0.0.1:${port}`;
  await expect
    .poll(() =>
      fetch(`${address}/api/health`).then(
        ({ status }) => status,
        () => 0,
      ),
    )
    .toBe(200);
  return { address, child };
}

const say = (what: string, times: number[]) => {
  const sorted = [...times].sort((a, b) => a - b);
  const at = (share: number) => Math.round(sorted[Math.floor((sorted.length - 1) * share)] ?? 0);
  console.log(`${what}: ${sorted.length}, p50 ${at(0.5)}, p95 ${at(0.95)}, p99 ${at(0.99)}, slowest ${at(1)} ms`);
};
const memoryOf = (pid: number): number => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** one application, and two of them as behind a balancer */
for (const applications of IS_SOAK ? [1, 2] : [2])
  test(`${TABLETS} tablets, ${AWAY} more that come back after ${AWAY_S} s, and ${PLANNERS} planners on ${applications === 1 ? 'one application' : 'two applications'} and one worker, while ${PDFS} PDFs are made: each thing that was acknowledged is stored once`, async () => {
    test.setTimeout(600_000 + SECONDS * 4000);
    const job = createCleanInlet();
    const floorId = await createTestJob(own.request, job);
    expect((await sendRelease(own.request, floorId)).status()).toBe(201);
    const items = createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE).steps.flatMap((step) =>
      // one person ticks everything: signing is for another
      step.items
        .filter(({ heldBecause }) => heldBecause === null && step.operation !== 'sign')
        .map((item) => ({ stepId: step.id, itemId: item.id })),
    );
    const deskIds = await Promise.all([0, 1, 2, 3].map(() => createTestJob(own.request, createSkerry())));
    const second = applications === 1 ? null : await startSecond();
    if (second) ends.push(() => second.child.kill('SIGTERM'));
    const addresses = [own.running.address, ...(second ? [second.address] : [])];
    const ticks: { id: string; ms: number; at: number }[] = [];
    const edits: { jobId: string; version: number; ms: number; at: number }[] = [];
    const failed: string[] = [];
    const until = performance.now() + SECONDS * 1000;
    const path = `/api/jobs/${floorId}/releases/1/events`;
    const tablet = async (index: number) => {
      await pause(TICK_PAUSE_MS);
      for (let count = 0; count === 0 || performance.now() < until; count += 1) {
        const id = randomUUID();
        const event = {
          id,
          loomId: 'inlet',
          ...items[(index * 7 + count) % items.length]!,
          kind: count % 2 ? 'untick' : 'tick',
          words: '',
        };
        const { status, ms } = await send(addresses[index % addresses.length]!, path, {
          events: [{ ...event, happenedAt: new Date().toISOString() }],
        });
        if (status === 200) ticks.push({ id, ms, at: performance.now() });
        else failed.push(`tick ${status}`);
        await pause(TICK_PAUSE_MS);
      }
    };
    const returning: { id: string; ms: number; at: number }[] = [];
    /** What a tablet kept while it was away goes out in as few requests as it makes, each twice: the first answer never came. */
    const back = async (index: number) => {
      const count = Math.round((AWAY_S * 1000) / (0.65 * TICK_PAUSE_MS));
      const device = randomUUID();
      const kept = Array.from({ length: count }, (_, at) => ({
        ...{ id: randomUUID(), loomId: 'inlet', ...items[(index * 11 + at) % items.length]!, kind: at % 2 ? 'untick' : 'tick', words: '' },
        ...{ happenedAt: new Date(Date.now() - 1000 * AWAY_S * (1 - at / count)).toISOString(), device, after: 0 },
      }));
      await pause(SECONDS * 500);
      for (let from = 0; from < kept.length; from += MOST_AT_ONCE) {
        const events = kept.slice(from, from + MOST_AT_ONCE);
        for (const _ of ['not heard', 'heard']) {
          const { status, ms } = await send(addresses[index % addresses.length]!, path, { events });
          if (status === 200) returning.push(...events.map(({ id }) => ({ id, ms, at: performance.now() })));
          else failed.push(`back ${status}`);
        }
      }
    };
    const planner = async (index: number) => {
      const jobId = deskIds[index % deskIds.length]!;
      // as the page does: the job once, then its own edits on top of what others made since
      let { version: base } = await get<{ version: number }>(addresses[index % addresses.length]!, `/api/jobs/${jobId}`);
      await pause(EDIT_PAUSE_MS);
      for (let count = 0; count === 0 || performance.now() < until; count += 1) {
        const since = await get<{ version: number }[]>(addresses[index % addresses.length]!, `/api/jobs/${jobId}/edits?since=${base}`);
        base = since.at(-1)?.version ?? base;
        const edit = { id: randomUUID(), label: 'load', patch: [{ op: 'replace', path: '/notes', value: `${index} ${count}` }] };
        const started = performance.now();
        for (let tries = 0; tries < 40; tries += 1) {
          const { status, body } = await send(addresses[index % addresses.length]!, `/api/jobs/${jobId}/edits`, { ...edit, base });
          if (status === 200) {
            base = body.version!;
            edits.push({ jobId, version: base, ms: performance.now() - started, at: performance.now() });
            break;
          }
          if (status !== 409) {
            failed.push(`edit ${status}`);
            break;
          }
          base = body.version!;
        }
        await pause(EDIT_PAUSE_MS);
      }
    };
    const pdf = async (index: number) => {
      await pause(1000);
      const response = await fetch(
        `${addresses[index % addresses.length]}/api/jobs/${deskIds[index % 4]}/sheets?format=pdf&loom=chassis&paper=${index % 2 ? 'A4' : 'Letter'}`,
        {
          headers: { cookie: COOKIE, prefer: 'wait=30' },
        },
      );
      await response.arrayBuffer();
      return response.status;
    };
    const [made] = await Promise.all([
      Promise.all(Array.from({ length: PDFS }, (_, index) => pdf(index))),
      ...Array.from({ length: TABLETS }, (_, index) => tablet(index)),
      ...Array.from({ length: AWAY }, (_, index) => back(index)),
      ...Array.from({ length: PLANNERS }, (_, index) => planner(index)),
    ]);
    // the first quarter is a start with cold code and everybody at once; both are said
    const warm = until - SECONDS * 750;
    const times = (all: readonly { ms: number; at: number }[], from = 0) => all.filter(({ at }) => at >= from).map(({ ms }) => ms);
    say('ticks', times(ticks));
    say('ticks after the first quarter', times(ticks, warm));
    say('events of tablets that came back', times(returning));
    say('edits of the demo', times(edits));
    say('edits after the first quarter', times(edits, warm));
    console.log(
      `PDFs answered ${made.join(', ')}; connections closed under a request ${dropped}; memory ${[own.running.server, ...(second ? [second.child.pid!] : [])].map((pid) => Math.round(memoryOf(pid))).join(' and ')} MB`,
    );
    // what both say is the same, and holds all that was acknowledged, once
    for (const address of addresses) {
      const events = await get<{ id: string }[]>(address, path);
      expect(events).toHaveLength(new Set(events.map(({ id }) => id)).size);
      expect(events.map(({ id }) => id)).toEqual(expect.arrayContaining([...ticks, ...returning].map(({ id }) => id)));
      for (const jobId of deskIds) {
        const { version } = await get<{ version: number }>(address, `/api/jobs/${jobId}`);
        const versions = edits.filter((edit) => edit.jobId === jobId).map((edit) => edit.version);
        expect([jobId, new Set(versions).size, Math.max(0, ...versions)]).toEqual([jobId, versions.length, version]);
        expect(versions).toHaveLength(version);
      }
    }
    expect(failed).toEqual([]);
    expect(ticks.length).toBeGreaterThanOrEqual(TABLETS);
    expect(new Set(returning.map(({ id }) => id)).size * 2).toBe(returning.length);
    expect(returning.length).toBeGreaterThanOrEqual(2 * AWAY);
    expect(edits.length).toBeGreaterThanOrEqual(PLANNERS);
  });

const median = (times: readonly number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)]!;
const EDITS = 5000;

test(`an edit after ${EDITS} others costs what one of a new job does, minute by minute beside each other`, async () => {
  const [long, fresh] = [await createTestJob(own.request, createSkerry()), await createTestJob(own.request, createSkerry())];
  const client = new Client({ connectionString: own.running.database });
  await client.connect();
  await client.query(
    `insert into edits (job_id, version, id, author, label, kind, patch, inverse)
     select $1, n, gen_random_uuid(), case when n % 3 = 0 then 'Jun Okafor' else 'Imke Dorsey' end, 'note ' || n, 'edit',
       json_build_array(json_build_object('op', 'replace', 'path', '/notes', 'value', 'note ' || n)),
       json_build_array(json_build_object('op', 'replace', 'path', '/notes', 'value', 'note ' || n - 1))
     from generate_series(1, $2::int) n`,
    [long, EDITS],
  );
  await client.query('update jobs set version = $2 where id = $1', [long, EDITS]);
  await client.end();
  const times: Record<string, number[]> = { [long]: [], [fresh]: [] };
  const rounds = IS_SOAK ? 200 : 20;
  for (let round = 0; round < rounds; round += 1)
    for (const [id, base] of [
      [long, EDITS + round],
      [fresh, round],
    ] as const) {
      const patch = [{ op: 'replace', path: '/notes', value: `now ${round}` }];
      const { status, ms } = await send(own.running.address, `/api/jobs/${id}/edits`, { id: randomUUID(), base, label: 'note', patch });
      expect(status).toBe(200);
      times[id]!.push(ms);
    }
  const [after, first] = [median(times[long]!.slice(rounds / 4)), median(times[fresh]!.slice(rounds / 4))];
  console.log(
    `edits of the demo: ${after.toFixed(1)} ms after ${EDITS}, ${first.toFixed(1)} ms of a new job, ratio ${(after / first).toFixed(2)} (target 1.3)`,
  );
  const since = await get<{ version: number }[]>(own.running.address, `/api/jobs/${long}/edits?since=${EDITS}`);
  expect(since.map(({ version }) => version)).toEqual(Array.from({ length: rounds }, (_, index) => EDITS + 1 + index));
});

test('a tablet at rest hears little', async ({ browser }) => {
  const restS = IS_SOAK ? 60 : 5;
  const floorId = await createTestJob(own.request, createCleanInlet());
  expect((await sendRelease(own.request, floorId)).status()).toBe(201);
  const context = await browser.newContext({ storageState: storageOf('tobin'), baseURL: own.running.address });
  const page = await context.newPage();
  await page.goto(`/jobs/${floorId}/floor`);
  await expect(page.getByRole('status')).toHaveText('all stored');
  await page.waitForTimeout(3000);
  const session = await context.newCDPSession(page);
  await session.send('Network.enable');
  let [bytes, requests] = [0, 0];
  session.on('Network.dataReceived', ({ encodedDataLength, dataLength }) => (bytes += Math.max(encodedDataLength, dataLength)));
  session.on('Network.requestWillBeSent', () => (requests += 1));
  await page.waitForTimeout(restS * 1000);
  console.log(`a tablet at rest: ${bytes} bytes and ${requests} requests in ${restS} s (target 5 kB a minute)`);
  expect(bytes / restS).toBeLessThan(5000 / 60);
  expect(requests).toBe(0);
  await context.close();
});

test('a large vehicle: edits while the sheets of its trunk are made and a tablet ticks', async () => {
  const wires = IS_SOAK ? 3200 : 300;
  const large = createRandomJob(7, wires);
  const id = await createTestJob(own.request, large);
  const floorId = await createTestJob(own.request, createCleanInlet());
  expect((await sendRelease(own.request, floorId)).status()).toBe(201);
  const edit = (version: number) =>
    send(own.running.address, `/api/jobs/${id}/edits`, {
      ...{ id: randomUUID(), base: version, label: 'note' },
      patch: [{ op: 'replace', path: '/notes', value: `note ${version}` }],
    });
  const alone: number[] = [];
  for (let version = 0; version < 20; version += 1) alone.push((await edit(version)).ms);
  let isMade = false;
  const pdf = fetch(`${own.running.address}/api/jobs/${id}/sheets?format=pdf&loom=${Object.keys(large.looms)[0]}`, {
    headers: { cookie: COOKIE, prefer: 'wait=30' },
  }).then(async (response) => {
    await response.arrayBuffer();
    isMade = true;
    return response.status;
  });
  const ticks: number[] = [];
  const during: number[] = [];
  for (let version = 20; version < 40 || (!isMade && version < 400); version += 1) {
    during.push((await edit(version)).ms);
    const event = { id: randomUUID(), loomId: 'inlet', stepId: 'test', itemId: 'step', kind: 'problem', words: '' };
    const tick = await send(own.running.address, `/api/jobs/${floorId}/releases/1/events`, {
      events: [{ ...event, happenedAt: new Date().toISOString() }],
    });
    expect(tick.status).toBe(200);
    ticks.push(tick.ms);
  }
  say(`edits of ${wires} wires alone`, alone);
  say('edits while its sheets are made', during);
  say('ticks meanwhile', ticks);
  expect([200, 202]).toContain(await pdf);
});
