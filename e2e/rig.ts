import { execFileSync, spawn } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { storageOf } from '../scripts/lib/testPeople.cjs';
import { test, type APIRequestContext } from '@playwright/test';

export interface Running {
  address: string;
  /** of its own PostgreSQL, as its owner, and as the role that the application works with */
  database: string;
  appDatabase: string;
  /** process of the application */
  server: number;
  kill(): void;
  /** the worker only */
  killWorker(): void;
  startWorker(): void;
}

/** An application with an empty database of its own for the tests of a file, which follow each other. */
export function ownApplication(name: string, isEmpty = false, environment: () => Record<string, string> = () => ({})) {
  test.describe.configure({ mode: 'serial' });
  const folder = mkdtempSync(join(tmpdir(), `wattograph-${name}-`));
  const own = {} as { running: Running; request: APIRequestContext; folder: string };
  test.beforeAll(async ({ playwright }) => {
    own.running = start(folder, isEmpty, environment());
    own.request = await playwright.request.newContext({ baseURL: own.running.address, storageState: storageOf('imke') });
  });
  test.afterAll(async () => {
    await own.request.dispose();
    own.running.kill();
    rmSync(folder, { recursive: true, force: true });
  });
  own.folder = folder;
  return own;
}

/** An application and a database of its own, to be killed. */
export function start(folder: string, isEmpty = false, environment: Record<string, string> = {}): Running {
  const printed = execFileSync('node', [join(__dirname, '../scripts/startRig.mjs'), folder, ...(isEmpty ? ['EMPTY'] : [])], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
    timeout: 300_000,
    env: { ...process.env, ...environment },
  });
  const { address, database, appDatabase, server, worker, postgres, program } = JSON.parse(printed.trim().split('\n').at(-1)!) as {
    address: string;
    database: string;
    appDatabase: string;
    server: number;
    worker: number;
    postgres: number;
    /** file of the worker */
    program: string;
  };
  const workers = [worker];
  return {
    address,
    database,
    appDatabase,
    server,
    kill: () => [server, ...workers, postgres].forEach(killHard),
    killWorker: () => workers.splice(0).forEach(killHard),
    startWorker: () => {
      const child = spawn('node', [program], {
        cwd: join(__dirname, '..'),
        stdio: 'ignore',
        env: { ...process.env, DATABASE_URL: database },
      });
      workers.push(child.pid!);
    },
  };
}

/** A port of this machine that nobody listens on. */
export const findPort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number };
      server.close(() => resolve(port));
    });
  });

/** End all that a start (npm start, npm run demo) has left running of a data folder. */
export function killStarted(folder: string): void {
  const file = join(folder, 'running.json');
  if (!existsSync(file)) return;
  const { application, worker, postgres } = JSON.parse(readFileSync(file, 'utf8')) as Record<string, number>;
  for (const pid of [application!, worker!, postgres!]) killHard(pid);
}

function killHard(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // it is gone already
  }
}
