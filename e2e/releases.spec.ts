import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdirSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { expect, test, type APIRequestContext } from '@playwright/test';
import { build } from 'esbuild';
import { Client } from 'pg';
import { CATALOGUE, createBuild, ENGINE, listFindings, plan, type Job, type Step } from 'wattograph-core';
import { cookieOf } from '../scripts/lib/testPeople.cjs';
import { createCleanInlet, createTestJob, readJob, sendEdit, sendRelease } from './helpers';

const root = join(__dirname, '..');
const toSteps = (job: Job): Step[] => createBuild(job, plan(job, CATALOGUE).looms[0]!, CATALOGUE).steps;

async function release(request: APIRequestContext, id: string): Promise<number> {
  const response = await sendRelease(request, id);
  expect(response.status()).toBe(201);
  return ((await response.json()) as { number: number }).number;
}

async function tickAll(request: APIRequestContext, id: string, number: number, steps: readonly Step[]): Promise<void> {
  const events = steps.flatMap((step) =>
    step.items
      .filter(({ heldBecause }) => heldBecause === null)
      .map((item) => ({
        ...{ id: randomUUID(), loomId: 'inlet', stepId: step.id, itemId: item.id, kind: 'tick', words: '' },
        ...{ author: 'Tobin Ashgrove', happenedAt: '2026-11-24T08:00:00.000Z' },
      })),
  );
  for (let from = 0; from < events.length; from += 400)
    expect(
      (await request.post(`/api/jobs/${id}/releases/${number}/events`, { data: { events: events.slice(from, from + 400) } })).status(),
    ).toBe(200);
}

/** The server's own reading of releases, with an engine and a catalogue that are wrong in every way. */
async function buildDoctored(folder: string): Promise<string> {
  const outfile = join(folder, 'probe.cjs');
  const doctored = `
    export * from ${JSON.stringify(join(root, 'core/src/index.ts'))};
    const broken = () => { throw new Error('the engine of another year was asked'); };
    export const [plan, createPlanner, createBuild, createSheets, listFindings, findFamily] = Array(6).fill(broken);
    import { CATALOGUE as real } from ${JSON.stringify(join(root, 'core/src/index.ts'))};
    export const CATALOGUE = JSON.parse(JSON.stringify(real), (_, value) => (typeof value === 'number' ? value * 1.37 : value));
    export const ENGINE = '99';`;
  await build({
    ...{ entryPoints: [join(root, 'e2e/doctoredProbe.ts')], outfile, bundle: true, platform: 'node', format: 'cjs', logLevel: 'error' },
    external: ['pg-native'],
    plugins: [
      {
        name: 'doctored',
        setup(one) {
          one.onResolve({ filter: /^wattograph-core$/ }, () => ({ path: 'doctored', namespace: 'doctored' }));
          one.onLoad({ filter: /.*/, namespace: 'doctored' }, () => ({ contents: doctored, loader: 'ts', resolveDir: root }));
        },
      },
    ],
  });
  return outfile;
}

test('a revision reads back byte for byte with another catalogue, standard and formula', async ({ request }) => {
  const folder = join(root, `test-results/doctored-${process.pid}`);
  mkdirSync(folder, { recursive: true });
  try {
    const id = await createTestJob(request, createCleanInlet());
    await release(request, id);
    const get = async (path: string) => (await request.get(`/api/jobs/${id}/${path}`)).text();
    const svgs = async (paper: string) =>
      (JSON.parse(await get(`sheets?loom=inlet&paper=${paper}&release=1`)) as { pages: { svg: string }[] }).pages.map(({ svg }) => svg);
    const now = {
      a4: await svgs('A4'),
      letter: await svgs('Letter'),
      wires: await get('export?what=wires&loom=inlet&release=1'),
      cuts: await get('export?what=cuts&loom=inlet&release=1'),
      carried: { carried: [], reopened: [], undo: [] },
    };
    expect(now.a4.length).toBeGreaterThan(15);
    const probe = await buildDoctored(folder);
    const printed = execFileSync('node', [probe, id, '1', 'inlet'], {
      ...{ encoding: 'utf8', maxBuffer: 64 * 1024 * 1024 },
      env: { ...process.env, DATABASE_URL: process.env.E2E_DATABASE },
    });
    const { families, ...later } = JSON.parse(printed) as typeof now & { families: string[] };
    expect(later).toEqual(now);
    expect(families.length).toBeGreaterThan(2);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
});

test('after the trial fit work done counts on: what changed is open and says what differs, what is gone is to be undone', async ({
  page,
  request,
}) => {
  const first = createCleanInlet();
  const id = await createTestJob(request, first);
  await release(request, id);
  const steps = toSteps(first);
  const until = steps.findIndex(({ operation }) => operation === 'lay');
  await tickAll(request, id, 1, steps.slice(0, until));
  // the leg to the first injector comes out longer, and one track of the throttle is left out
  const loom = first.looms.inlet!;
  const { version } = await readJob(request, id);
  const leg = loom.segments['s-inj1']!;
  const edited = await sendEdit(request, id, version, [
    { op: 'replace', path: '/looms/inlet/segments/s-inj1/status', value: 'fitted' },
    { op: 'replace', path: '/looms/inlet/segments/s-inj1/fittedMm', value: leg.lengthMm! + 6 },
    { op: 'remove', path: '/looms/inlet/circuits/c214' },
  ]);
  expect(await edited.text()).not.toContain('problems');
  expect(await release(request, id)).toBe(2);

  await page.setViewportSize({ width: 1024, height: 768 });
  await page.goto(`/jobs/${id}/floor?loom=inlet`);
  const pieces = page.getByRole('listitem').getByRole('button');
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Undo what this revision does not ask for any more');
  await expect(pieces.first()).toContainText(
    'Remove N-214. Done in revision 1, the last first: Seat the contacts of inlet bulkhead B1, cavity 14 · ',
  );
  const undone = await pieces.count();
  for (let at = 0; at < undone; at += 1) await pieces.nth(at).click();
  await page.getByRole('button', { name: 'Next step' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Cut and mark AWG 20 ETFE red');
  await expect(pieces.filter({ hasText: 'done in revision 1, and the same now' })).toHaveCount(3);
  const open = pieces.filter({ hasText: 'changed since: ' });
  await expect(open).toHaveCount(1);
  await expect(open).toContainText(/rough \d+ → \d+ mm; final \d+ → \d+ mm.* \(the piece in hand is \d+ mm long and will do for \d+ mm\)/);
  await open.click();
  await expect(page.getByRole('status')).toHaveText('all stored');
  await page.reload();
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Undo what this revision does not ask for any more');
  await expect(page.getByRole('heading', { level: 1 })).not.toHaveText('Cut and mark AWG 20 ETFE red');
  // a tick of the revision before that comes late still counts
  await tickAll(request, id, 1, steps.slice(until, until + 1));
  const carried = (await (await request.get(`/api/jobs/${id}/releases/2/carried?loom=inlet`)).json()) as { carried: { stepId: string }[] };
  expect(carried.carried.some(({ stepId }) => stepId === steps[until]!.id)).toBe(true);
});

test('a revision of a Wattograph that kept the document only is planned once more, and then stays as it is', async ({ request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await release(request, id);
  const before = await (await request.get(`/api/jobs/${id}/sheets?loom=inlet&release=1`)).text();
  const client = new Client({ connectionString: process.env.E2E_DATABASE });
  await client.connect();
  try {
    await client.query('delete from release_looms where job_id = $1', [id]);
    // asked for in other words, for the answer to the same ones is kept for an hour
    expect(await (await request.get(`/api/jobs/${id}/sheets?loom=inlet&release=1&paper=A4`)).text()).toBe(before);
    const { rows } = await client.query<{ loom_id: string; engine: string }>(
      'select loom_id, engine from release_looms where job_id = $1',
      [id],
    );
    expect(rows).toEqual([{ loom_id: 'inlet', engine: ENGINE }]);
  } finally {
    await client.end();
  }
});

test('a revision that is not there, and a loom that it does not have, are refused by name', async ({ request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await release(request, id);
  for (const [path, words] of [
    ['sheets?release=7', 'There is no revision 7 of this job.'],
    ['sheets?release=abc', 'expected the number of a revision, got "abc"'],
    ['sheets?release=1&loom=boat', 'expected one of inlet, got "boat"'],
    ['releases/1e9/events', 'expected the number of a revision, got "1e9"'],
    ['releases/99999999999/carried?loom=inlet', 'expected the number of a revision, got "99999999999"'],
  ] as const) {
    const response = await request.get(`/api/jobs/${id}/${path}`);
    expect([path, response.status()]).toEqual([path, 404]);
    expect(await response.text()).toContain(JSON.stringify(words).slice(1, -1));
  }
});

test('two releases at once get two numbers, and one sent twice gets one', async ({ request }) => {
  const id = await createTestJob(request, createCleanInlet());
  const send = (releaseId: string) => sendRelease(request, id, { id: releaseId });
  const [one, other] = [randomUUID(), randomUUID()];
  const answers = await Promise.all([send(one), send(other), send(one)]);
  const numbers = await Promise.all(answers.map(async (answer) => ((await answer.json()) as { number: number }).number));
  expect(numbers[0]).toBe(numbers[2]);
  expect([...new Set(numbers)].sort()).toEqual([1, 2]);
});

test('released in part: what an open anchor holds stays held, the rest is released; a stop of another kind is not passed over', async ({
  request,
}) => {
  const job = createCleanInlet();
  job.anchors.plug = { ...job.anchors.plug!, state: 'open', nodes: [{ loomId: 'inlet', nodeId: 'n-knk' }] };
  const id = await createTestJob(request, job);
  const whole = await sendRelease(request, id);
  expect([whole.status(), await whole.text()]).toEqual([
    422,
    expect.stringContaining('The place of the main plug is open: 2 wires of inlet'),
  ]);
  const part = await sendRelease(request, id, { inPart: true });
  expect([part.status(), await part.json()]).toEqual([201, expect.objectContaining({ number: 1, heldWires: 2 })]);
  const cuts = toSteps(job).flatMap((step) => (step.operation === 'cut' ? step.items.map((item) => ({ step, item })) : []));
  const held = cuts.filter(({ item }) => item.heldBecause !== null);
  expect(held).toHaveLength(2);
  const tick = ({ step, item }: (typeof cuts)[number]) => ({
    ...{ id: randomUUID(), loomId: 'inlet', stepId: step.id, itemId: item.id, kind: 'tick', words: '' },
    happenedAt: '2026-11-24T08:00:00.000Z',
  });
  const post = (one: (typeof cuts)[number]) => request.post(`/api/jobs/${id}/releases/1/events`, { data: { events: [tick(one)] } });
  expect(await (await post(held[0]!)).text()).toContain('place of the main plug still open');
  expect((await post(cuts.find(({ item }) => item.heldBecause === null)!)).status()).toBe(200);
  // where nobody says what the anchor moves, nothing goes out
  expect((await sendEdit(request, id, 0, [{ op: 'replace', path: '/anchors/plug/nodes', value: [] }])).status()).toBe(200);
  expect((await sendRelease(request, id, { inPart: true })).status()).toBe(422);
});

test('a revision is of the version that was looked at: of one edited since it is refused', async ({ request }) => {
  const id = await createTestJob(request, createCleanInlet());
  expect((await sendEdit(request, id, 0, [{ op: 'replace', path: '/notes', value: 'later' }])).status()).toBe(200);
  const refused = await sendRelease(request, id, { base: 0 });
  expect([refused.status(), await refused.text()]).toEqual([409, expect.stringContaining('The job was edited since version 0')]);
  expect((await sendRelease(request, id, { base: 1 })).status()).toBe(201);
});

test('ticks are of what the revision asks for and does not hold; a repeat counts once, other content under its id not at all', async ({
  request,
}) => {
  const job = createCleanInlet();
  // a length that is only a guess holds its wires, and stands with a reason
  job.looms.inlet!.segments['s-knk'] = { ...job.looms.inlet!.segments['s-knk']!, status: 'guessed' };
  for (const { grade, key } of listFindings(job, plan(job, CATALOGUE), CATALOGUE, null))
    if (grade === 'stop') job.accepted[key] = { reason: 'measured at the trial fit', by: 'Imke Dorsey' };
  const id = await createTestJob(request, job);
  const number = await release(request, id);
  const steps = toSteps(job);
  const held = steps.flatMap((step) => step.items.map((item) => ({ stepId: step.id, itemId: item.id, held: item.heldBecause !== null })));
  const [free, barred] = [held.find((one) => !one.held)!, held.find((one) => one.held)!];
  const path = `/api/jobs/${id}/releases/${number}/events`;
  const send = async (of: object, events: object[] = [{}]) => {
    const base = { loomId: 'inlet', kind: 'tick', words: '', author: 'Tobin Ashgrove', happenedAt: '2026-11-24T08:00:00.000Z' };
    const answer = await request.post(path, { data: { events: events.map((one) => ({ ...base, id: randomUUID(), ...of, ...one })) } });
    return [answer.status(), ((await answer.json()) as { problems?: { message: string }[] }).problems?.[0]?.message ?? ''];
  };
  const at = { stepId: free.stepId, itemId: free.itemId };
  expect(await send({ stepId: 'nowhere', itemId: 'x' })).toEqual([422, expect.stringContaining('expected a step of revision 1')]);
  expect(await send({ ...at, itemId: 'nothing' })).toEqual([422, expect.stringContaining('expected something that the step asks for')]);
  expect(await send({ stepId: barred.stepId, itemId: barred.itemId })).toEqual([422, expect.stringContaining('it is held')]);
  expect(await send({ stepId: 'undo', itemId: 'x' })).toEqual([422, expect.stringContaining('asks for nothing of that name to be undone')]);
  // one that is not as asked keeps the whole of its request out; the device sends the others alone
  expect((await send(at, [{}, { stepId: 'nowhere' }]))[0]).toBe(422);
  const list = async () => (await (await request.get(path)).json()) as { id: string; serial: number }[];
  expect(await list()).toEqual([]);
  const eventId = randomUUID();
  expect((await send({ ...at, id: eventId }))[0]).toBe(200);
  expect((await send({ ...at, id: eventId }))[0]).toBe(200);
  expect(await send({ ...at, id: eventId, kind: 'untick' })).toEqual([409, expect.stringContaining('another tick')]);
  expect((await send({ ...at, kind: 'untick' }))[0]).toBe(200);
  const all = await list();
  expect(all).toHaveLength(2);
  const after = (await (await request.get(`${path}?after=${all[0]!.serial}`)).json()) as { id: string }[];
  expect(after.map(({ id: one }) => one)).toEqual([all[1]!.id]);
});

test('a loom is signed by somebody else than who tested it, said where it is refused and kept with who signed', async ({ request }) => {
  const id = await createTestJob(request, createCleanInlet());
  await release(request, id);
  const send = (by: 'jun' | 'tobin', stepId: string, itemId: string, kind = 'tick') =>
    request.post(`/api/jobs/${id}/releases/1/events`, {
      data: {
        events: [{ ...{ id: randomUUID(), loomId: 'inlet', stepId, itemId, kind, words: '' }, happenedAt: '2026-11-24T08:00:00.000Z' }],
      },
      headers: { cookie: cookieOf(by) },
    });
  const { steps } = createBuild(createCleanInlet(), plan(createCleanInlet(), CATALOGUE).looms[0]!, CATALOGUE);
  const tests = steps.find(({ operation }) => operation === 'test')!;
  for (const item of tests.items) expect((await send('jun', tests.id, item.id)).status()).toBe(200);
  const own = await send('jun', 'sign', 'signed');
  expect([own.status(), await own.text()]).toEqual([
    422,
    expect.stringContaining('Jun Okafor tested this loom: somebody else looks it over and signs'),
  ]);
  // of one's own test that somebody opened again one is not the tester any more
  for (const item of tests.items) expect((await send('tobin', tests.id, item.id, 'untick')).status()).toBe(200);
  for (const item of tests.items) expect((await send('tobin', tests.id, item.id)).status()).toBe(200);
  expect((await send('tobin', 'sign', 'signed')).status()).toBe(422);
  expect((await send('jun', 'sign', 'signed')).status()).toBe(200);
  const client = new Client({ connectionString: process.env.E2E_DATABASE });
  await client.connect();
  const { rows } = await client.query(`select person, what from audit where about like $1 order by serial`, [`%${id}%`]);
  await client.end();
  expect(rows).toEqual([{ person: 'Jun Okafor', what: 'signed' }]);
});

test('a reading is stored with its unit, instrument and person; one that is none is refused, and nothing with it', async ({
  page,
  request,
}) => {
  const job = createCleanInlet();
  const id = await createTestJob(request, job);
  const number = await release(request, id);
  const steps = toSteps(job);
  const at = steps.findIndex(({ operation, items }) => operation === 'crimp' && items.some(({ reads }) => reads.length > 0));
  await tickAll(request, id, number, steps.slice(0, at));
  const path = `/api/jobs/${id}/releases/${number}/events`;
  const list = async () => (await (await request.get(path)).json()) as Record<string, unknown>[];
  const before = (await list()).length;
  const step = steps[at]!;
  const item = step.items.find(({ reads }) => reads.length > 0)!;
  const [expected] = item.reads;
  const reading = {
    ...{ id: randomUUID(), loomId: 'inlet', stepId: step.id, itemId: item.id, kind: 'reading', words: '', author: 'Tobin Ashgrove' },
    ...{ happenedAt: '2026-11-24T08:00:00.000Z', readId: expected!.id, value: expected!.least! - 2, unit: 'N', instrument: 'pull tester' },
  };
  for (const broken of [{ unit: 'lb' }, { instrument: ' ' }, { value: 'much' }, { value: null }, { readId: '' }, { kind: 'tick' }]) {
    const refused = await request.post(path, { data: { events: [{ ...reading, id: randomUUID(), ...broken }] } });
    expect([broken, refused.status()]).toEqual([broken, 400]);
  }
  expect(await list()).toHaveLength(before);
  // sent twice it counts once
  for (let time = 0; time < 2; time += 1) expect((await request.post(path, { data: { events: [reading] } })).status()).toBe(200);
  expect((await list()).slice(before)).toMatchObject([{ ...reading, author: 'Imke Dorsey' }]);
  await page.goto(`/jobs/${id}/floor`);
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(step.title);
  await page.getByRole('button', { name: /^1 of 1 reading, 1 outside the limit$/ }).click();
  await page.getByLabel('Instrument').fill('pull tester');
  await page.getByLabel(`${expected!.words}, N`).fill(String(expected!.least! + 5));
  await page.getByRole('button', { name: 'Keep' }).click();
  await expect(page.getByText(`read ${expected!.least! + 5} N, pull tester, Imke Dorsey`)).toBeVisible();
  await expect(page.getByRole('status')).toHaveText('all stored');
  expect((await list()).at(-1)).toMatchObject({
    kind: 'reading',
    value: expected!.least! + 5,
    unit: 'N',
    instrument: 'pull tester',
    author: 'Imke Dorsey',
  });
});
