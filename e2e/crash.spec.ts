import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { CATALOGUE, createBuild, plan } from 'wattograph-core';
import { cookieOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet } from './helpers';
import { start } from './rig';

const COOKIE = cookieOf('imke');

async function post(
  address: string,
  path: string,
  body: unknown,
): Promise<{ status: number; body: { version?: number; stored?: string[] } } | null> {
  try {
    const response = await fetch(`${address}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie: COOKIE },
      body: JSON.stringify(body),
    });
    return { status: response.status, body: (await response.json()) as { version?: number; stored?: string[] } };
  } catch {
    return null;
  }
}

test('application and database killed in the middle of edits and ticks: what was acknowledged is there, none twice', async () => {
  const rounds = process.env.WATTOGRAPH_SOAK === '1' ? 100 : 2;
  test.setTimeout(600_000 + 60_000 * rounds);
  const folder = mkdtempSync(join(tmpdir(), 'wattograph-crash-'));
  let running = start(folder);
  const jobId = randomUUID();
  try {
    expect((await post(running.address, '/api/jobs', { id: jobId, author: 'A', document: createCleanInlet() }))!.status).toBe(201);
    const release = { id: randomUUID(), base: 0, author: 'A', note: '' };
    // on a slow machine it is still being planned: the same one asked again is answered when it is there
    await expect
      .poll(async () => (await post(running.address, `/api/jobs/${jobId}/releases`, release))!.status, { timeout: 300_000 })
      .toBe(201);
    const edits: { id: string; value: string; acknowledged: boolean }[] = [];
    const ticks: { id: string; acknowledged: boolean }[] = [];
    for (let round = 0; round < rounds; round += 1) {
      const { address } = running;
      let version = ((await (await fetch(`${address}/api/jobs/${jobId}`, { headers: { cookie: COOKIE } })).json()) as { version: number })
        .version;
      let isUp = true;
      // an edit or tick that the last crash left without an answer is sent again with its own id
      for (const edit of edits.filter(({ acknowledged }) => !acknowledged)) {
        const answer = await post(address, `/api/jobs/${jobId}/edits`, toEdit(edit, version));
        expect(answer!.status).toBe(200);
        version = Math.max(version, answer!.body.version!);
        edit.acknowledged = true;
      }
      for (const tick of ticks.filter(({ acknowledged }) => !acknowledged))
        tick.acknowledged = (await post(address, `/api/jobs/${jobId}/releases/1/events`, toTick(tick)))!.status === 200;
      const editing = (async () => {
        for (let count = 0; count < 400 && isUp; count += 1) {
          const edit = { id: randomUUID(), value: `note ${edits.length}`, acknowledged: false };
          edits.push(edit);
          const answer = await post(address, `/api/jobs/${jobId}/edits`, toEdit(edit, version));
          if (answer?.status !== 200) return;
          edit.acknowledged = true;
          version = answer.body.version!;
        }
      })();
      const ticking = (async () => {
        for (let count = 0; count < 400 && isUp; count += 1) {
          const tick = { id: randomUUID(), acknowledged: false };
          ticks.push(tick);
          if ((await post(address, `/api/jobs/${jobId}/releases/1/events`, toTick(tick)))?.status !== 200) return;
          tick.acknowledged = true;
        }
      })();
      // killed by what was done, not by the clock: a busy machine does as much before its server dies
      const done = { edits: countAcknowledged(edits) + 8, ticks: countAcknowledged(ticks) + 8 };
      await expect
        .poll(() => countAcknowledged(edits) >= done.edits && countAcknowledged(ticks) >= done.ticks, {
          timeout: 240_000,
          intervals: [10 + round * 7],
        })
        .toBe(true);
      running.kill();
      isUp = false;
      await Promise.all([editing, ticking]);
      running = start(folder);
    }
    const stored = (await (await fetch(`${running.address}/api/jobs/${jobId}/edits?since=0`, { headers: { cookie: COOKIE } })).json()) as {
      version: number;
      patch: { value: string }[];
    }[];
    const values = stored.map(({ patch }) => patch[0]!.value);
    expect(countAcknowledged(edits)).toBeGreaterThanOrEqual(8 * rounds);
    for (const { value, acknowledged } of edits) if (acknowledged) expect(values.filter((one) => one === value)).toHaveLength(1);
    expect(new Set(values).size).toBe(values.length);
    expect(stored.map(({ version }) => version)).toEqual(stored.map((_, index) => index + 1));
    const events = (await (
      await fetch(`${running.address}/api/jobs/${jobId}/releases/1/events`, { headers: { cookie: COOKIE } })
    ).json()) as { id: string }[];
    for (const { id, acknowledged } of ticks) if (acknowledged) expect(events.filter((event) => event.id === id)).toHaveLength(1);
    expect(new Set(events.map(({ id }) => id)).size).toBe(events.length);
    expect(countAcknowledged(ticks)).toBeGreaterThanOrEqual(8 * rounds);
  } finally {
    running.kill();
    await new Promise((resolve) => setTimeout(resolve, 500));
    rmSync(folder, { recursive: true, force: true });
  }
});

const countAcknowledged = (sent: readonly { acknowledged: boolean }[]) => sent.filter(({ acknowledged }) => acknowledged).length;

const toEdit = ({ id, value }: { id: string; value: string }, base: number) => ({
  id,
  base,
  author: 'A',
  label: value,
  patch: [{ op: 'replace', path: '/notes', value }],
});
const JOB = createCleanInlet();
const STEP = createBuild(JOB, plan(JOB, CATALOGUE).looms[0]!, CATALOGUE).steps.find(({ items }) => items[0]?.heldBecause === null)!;

const toTick = ({ id }: { id: string }) => ({
  events: [
    {
      id,
      loomId: 'inlet',
      stepId: STEP.id,
      itemId: STEP.items[0]!.id,
      kind: 'tick',
      words: '',
      author: 'Tobin Ashgrove',
      happenedAt: '2026-11-24T08:00:00.000Z',
    },
  ],
});
