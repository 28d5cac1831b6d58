import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { existsSync, mkdtempSync, readFileSync, readdirSync, rmSync, truncateSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from '@playwright/test';
import { createCleanInlet } from './helpers';
import { findPort } from './rig';

const root = join(__dirname, '..');
const folder = mkdtempSync(join(tmpdir(), 'wattograph-running-'));
const backups = join(folder, 'kept');

interface Record {
  pid: number;
  port: number;
  application: number;
  worker: number;
  postgres: number;
}

const running = () => JSON.parse(readFileSync(join(folder, 'running.json'), 'utf8')) as Record;
const environment = (more: { [name: string]: string } = {}): NodeJS.ProcessEnv => {
  const { DATABASE_URL: _, ...env } = process.env;
  return { ...env, WATTOGRAPH_DATA: folder, ...more };
};
/** Does it run? What has ended and waits for whoever adopted it to notice does not. */
const isAlive = (pid: number) => {
  if (spawnSync('kill', ['-0', String(pid)]).status !== 0) return false;
  try {
    return !/^State:\s+Z/m.test(readFileSync(`/proc/${pid}/status`, 'utf8'));
  } catch {
    return false;
  }
};

let port = 0;
let supervisor: ChildProcess;

let said = '';
let logged = '';

function start(): void {
  supervisor = spawn('node', ['scripts/start.mjs'], {
    cwd: root,
    stdio: ['ignore', 'pipe', 'pipe'],
    env: environment({ PORT: String(port) }),
  });
  supervisor.stdout!.setEncoding('utf8').on('data', (text: string) => (said += text));
  supervisor.stderr!.setEncoding('utf8').on('data', (text: string) => (logged += text));
}

/** cookies of the owner, from the first visit on */
let cookie = '';

/** The first visit: the code that the start has said, a name and a password. */
async function setUp(): Promise<void> {
  const [, code] = /set it up with this code: ([A-Z0-9-]+)/.exec(said)!;
  const body = { code, name: 'Imke Dorsey', username: 'imke', password: 'long enough for a test', pin: '1111' };
  const send = (of: object) =>
    fetch(`http://127.0.0.1:${port}/api/accounts/set-up`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...body, ...of }),
    });
  expect((await send({ code: 'AAAA-BBBB-CCCC' })).status).toBe(403);
  const made = await send({});
  expect(made.status).toBe(200);
  cookie = made.headers
    .getSetCookie()
    .map((one) => one.split(';')[0])
    .join('; ');
  // nobody sets it up a second time
  expect((await send({ name: 'Somebody Else', username: 'else' })).status).toBe(409);
}

async function get(path: string): Promise<number> {
  try {
    return (await fetch(`http://127.0.0.1:${port}${path}`, { headers: { cookie }, signal: AbortSignal.timeout(2000) })).status;
  } catch {
    return 0;
  }
}

const isUp = () => expect.poll(() => get('/api/health'), { timeout: 200_000, intervals: [100] }).toBe(200);
const post = async (path: string, body: object) =>
  (
    await fetch(`http://127.0.0.1:${port}${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json', cookie },
      body: JSON.stringify(body),
    })
  ).status;
const read = async (path: string) =>
  (await fetch(`http://127.0.0.1:${port}${path}`, { headers: { cookie } })).json() as Promise<{
    version: number;
    document: { notes: string };
  }>;
const script = (name: string, ...args: string[]) =>
  spawnSync('node', [`scripts/${name}.mjs`, ...args], { cwd: root, encoding: 'utf8', env: environment() });

test.describe.configure({ mode: 'serial' });

test.beforeAll(async () => {
  port = await findPort();
  start();
  await isUp();
  await setUp();
});

test.afterAll(() => {
  supervisor.kill('SIGTERM');
  if (existsSync(join(folder, 'running.json'))) for (const pid of Object.values(running())) spawnSync('kill', ['-9', String(pid)]);
  const pidFile = join(folder, 'pg/postmaster.pid');
  if (existsSync(pidFile)) spawnSync('kill', ['-9', readFileSync(pidFile, 'utf8').split('\n')[0]!]);
  rmSync(folder, { recursive: true, force: true });
});

const jobId = randomUUID();
const note = (base: number, value: string) =>
  post(`/api/jobs/${jobId}/edits`, {
    id: randomUUID(),
    base,
    author: 'A',
    label: 'note',
    patch: [{ op: 'replace', path: '/notes', value }],
  });

test('whatever is killed is started again by itself, and what was stored is there', async () => {
  expect(await post('/api/jobs', { id: jobId, author: 'A', document: createCleanInlet() })).toBe(201);
  for (const [round, what] of (['application', 'postgres', 'worker'] as const).entries()) {
    expect(await note(round, `before ${what}`)).toBe(200);
    const before = running()[what];
    process.kill(before, 'SIGKILL');
    await expect.poll(() => running()[what]).not.toBe(before);
    await isUp();
    // a tablet tries again: so does this
    await expect.poll(() => get(`/api/jobs/${jobId}`)).toBe(200);
    expect(await read(`/api/jobs/${jobId}`)).toMatchObject({ version: round + 1, document: { notes: `before ${what}` } });
  }
});

test('after a start every page and route is asked for once, as nobody: whoever comes first does not wait for its code', async () => {
  interface Line {
    path: string;
    status: number;
    person?: string;
  }
  const listAsked = () =>
    logged
      .split('\n')
      .filter((line) => line.startsWith('{') && line.includes('00000000-0000-4000-8000-000000000000'))
      .map((line) => JSON.parse(line) as Line);
  const nobody = '/api/jobs/00000000-0000-4000-8000-000000000000';
  const wanted = [nobody, `${nobody}/edits`, `${nobody}/releases/1/events`, '/api/tasks/00000000-0000-4000-8000-000000000000'];
  await expect.poll(() => listAsked().map(({ path }) => path)).toEqual(expect.arrayContaining(wanted));
  expect(listAsked().filter(({ status, person }) => status !== 401 || person !== undefined)).toEqual([]);
});

test('a second start on a port that is taken says so and does not serve', () => {
  const second = mkdtempSync(join(tmpdir(), 'wattograph-second-'));
  const ended = spawnSync('node', ['scripts/start.mjs'], {
    cwd: root,
    encoding: 'utf8',
    env: environment({ PORT: String(port), WATTOGRAPH_DATA: second }),
  });
  expect([ended.status, ended.stderr]).toEqual([1, expect.stringContaining(`Port ${port} is taken`)]);
  expect(readdirSync(second)).toEqual([]);
  rmSync(second, { recursive: true });
});

test('a host that others reach has to say by which names', () => {
  const ended = spawnSync('node', ['scripts/start.mjs'], { cwd: root, encoding: 'utf8', env: environment({ HOST: '0.0.0.0' }) });
  expect([ended.status, ended.stderr]).toEqual([1, expect.stringContaining('WATTOGRAPH_HOSTS=loom.example')]);
});

test('a backup is made while people work and read back; restoring it wants nobody at work, then brings back that moment', async () => {
  const made = script('backup', backups);
  expect([made.status, made.stdout]).toEqual([0, expect.stringContaining('read back; 1 jobs, 3 edits')]);
  const [name] = readdirSync(backups);
  expect(name).toMatch(/^wattograph-\d{8}-\d{6}\.dump$/);
  const file = join(backups, name!);
  expect(await note(3, 'after the backup')).toBe(200);
  const refused = script('restore', file);
  expect([refused.status, refused.stderr]).toEqual([1, expect.stringContaining('end the application first')]);
  supervisor.kill('SIGTERM');
  expect(await new Promise((resolve) => supervisor.once('exit', resolve))).toBe(0);
  expect(existsSync(join(folder, 'running.json'))).toBe(false);
  expect(existsSync(join(folder, 'pg/postmaster.pid'))).toBe(false);
  // what is no backup, or half of one, changes nothing
  const half = join(folder, 'half.dump');
  execFileSync('cp', [file, half]);
  truncateSync(half, 5000);
  for (const bad of [half, join(root, 'package.json'), join(folder, 'nowhere')])
    expect([bad, script('restore', bad).status]).toEqual([bad, 1]);
  start();
  await isUp();
  expect(await read(`/api/jobs/${jobId}`)).toMatchObject({ version: 4, document: { notes: 'after the backup' } });
  supervisor.kill('SIGTERM');
  await new Promise((resolve) => supervisor.once('exit', resolve));
  const restored = script('restore', file);
  expect([restored.status, restored.stderr]).toEqual([0, '']);
  start();
  await isUp();
  expect(await read(`/api/jobs/${jobId}`)).toMatchObject({ version: 3, document: { notes: 'before worker' } });
  // and it goes on from there
  expect(await note(3, 'goes on')).toBe(200);
});

test('where the start itself is killed nothing of it is left on its port, and the next start takes it all up again', async () => {
  const { pid, application, worker } = running();
  process.kill(pid, 'SIGKILL');
  await expect.poll(() => [application, worker].filter(isAlive)).toEqual([]);
  start();
  await isUp();
  expect(running().port).toBe(port);
  expect(await read(`/api/jobs/${jobId}`)).toMatchObject({ version: 4, document: { notes: 'goes on' } });
  supervisor.kill('SIGTERM');
  await new Promise((resolve) => supervisor.once('exit', resolve));
  // it was left by the start that was killed, and is this one's to end
  expect(existsSync(join(folder, 'pg/postmaster.pid'))).toBe(false);
});
