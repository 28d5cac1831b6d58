// Prepares a database and starts the built application on it.
import { spawn } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { root, run, subPath } from './machine.mjs';
import { ensurePrograms, toProgram } from './programs.mjs';

const MIGRATIONS = join(root, 'web/server/migrations');

/**
 * Bring the tables up to date and, where asked, put the demo jobs and people in if they are not there.
 * quiet: say nothing of who may come in. appUrl: address with the role that the application works with, which gets its rights.
 */
export async function prepareDatabase(databaseUrl, { seed, quiet = false, appUrl = '' }) {
  await ensurePrograms();
  await run('node', [toProgram('prepare'), ...(seed ? ['--seed'] : []), ...(quiet ? ['--quiet'] : [])], {
    env: { ...process.env, DATABASE_URL: databaseUrl, WATTOGRAPH_APP_URL: appUrl, WATTOGRAPH_MIGRATIONS: MIGRATIONS },
  });
}

// Longer than a browser keeps a connection that rests (Chromium: 300 s): the side that asks must be the one to hang up,
// else a request and the end of its connection cross on the way and the request is lost.
const KEPT_ALIVE_MS = 305_000;

const load = (file) => ['--import', new URL(file, import.meta.url).href];
const IMPORTS = { withParent: load('endWithParent.mjs'), peer: load('peer.mjs') };

/** A process of this checkout. withParent: it ends when this one does, however that happens. */
function spawnHere(args, { databaseUrl, stdio = 'inherit', env = {}, withParent = false }) {
  const streams = Array.isArray(stdio) ? stdio : [stdio, stdio, stdio];
  return spawn('node', [...(withParent ? IMPORTS.withParent : []), ...args], {
    cwd: root,
    stdio: withParent ? [...streams, 'ipc'] : streams,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      WATTOGRAPH_FONTS: `${root}core/assets/fonts`,
      ...env,
      DATABASE_URL: databaseUrl,
    },
  });
}

/** A process that does what takes long: plans for the wall, releases, sheets. Any number may run; killed, its work goes to the next one. */
export const spawnWorker = (options) => spawnHere([toProgram('worker')], options);

/** The built application. */
export const spawnApplication = ({ port, host = '127.0.0.1', ...options }) =>
  spawnHere(
    [
      ...IMPORTS.peer,
      'node_modules/next/dist/bin/next',
      'start',
      'web',
      '-p',
      String(port),
      '-H',
      host,
      '--keepAliveTimeout',
      String(KEPT_ALIVE_MS),
    ],
    options,
  );

export const isLoopback = (host) => ['127.0.0.1', 'localhost', '::1'].includes(host);

/** Where a browser of this machine reaches what is served on a host. */
export const toAddress = (host, port) =>
  `http://${['0.0.0.0', '::'].includes(host) ? '127.0.0.1' : host.includes(':') ? `[${host}]` : host}:${port}${subPath}`;

/** Resolves when the application answers; throws where it has not within 30 s, or has ended. */
export async function waitUntilUp(address, hasEnded) {
  for (let attempt = 0; attempt < 300; attempt += 1) {
    if (hasEnded()) throw new Error('the application ended before it answered');
    try {
      if ((await fetch(`${address}/api/health`)).ok) return;
    } catch {
      // not listening yet
    }
    await sleep(100);
  }
  throw new Error('the application did not answer within 30 s');
}

/** the way in counts who asks too often, a stream does not end */
const NOT_WARMED = /^\/(api\/(accounts|live|metrics|health)|_|icon|serwist)/;
const NOBODY = '00000000-0000-4000-8000-000000000000';
const WARM_MS = 10_000;

/**
 * Ask once for every page and route, as nobody: what answers it is read and made ready by the first request, up to a second for some, and nobody else is
 * answered meanwhile. Nothing comes of it, for nobody is signed in; what fails is left to the first who asks.
 */
export async function warmUp(address) {
  const file = join(root, `web/.next${subPath.replaceAll('/', '-')}/app-path-routes-manifest.json`);
  const paths = Object.values(JSON.parse(readFileSync(file, 'utf8'))).filter((path) => !NOT_WARMED.test(path));
  for (const path of paths) {
    const url = `${address}${path.replace('[number]', '1').replace(/\[\w+\]/g, NOBODY)}`;
    const controller = new AbortController();
    const timer = setTimeout(() => controller.abort(), WARM_MS);
    const ask = async () => (await fetch(url, { redirect: 'manual', signal: controller.signal })).arrayBuffer();
    await ask().catch(() => {});
    clearTimeout(timer);
  }
}

/** Start the built application and its worker once, for tests and measurements; resolves when it answers. */
export async function startServer({ databaseUrl, port, host = '127.0.0.1', stdio = 'inherit', env = {} }) {
  const options = { databaseUrl, port, host, stdio, env };
  const child = spawnApplication(options);
  const worker = spawnWorker(options);
  const stop = (signal = 'SIGTERM') => {
    worker.kill(signal);
    child.kill(signal);
  };
  child.on('exit', () => worker.kill('SIGTERM'));
  const address = toAddress(host, port);
  try {
    await waitUntilUp(address, () => child.exitCode !== null);
  } catch (error) {
    stop('SIGKILL');
    throw error;
  }
  return { child, address, stop, pids: () => ({ server: child.pid, worker: worker.pid }) };
}
