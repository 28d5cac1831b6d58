// Prepares a database and starts the built application on it.
import { spawn } from 'node:child_process';
import { setTimeout as sleep } from 'node:timers/promises';
import { root, run } from './machine.mjs';

/** Bring the tables up to date and, where asked, put the demo job in if it is not there. */
export function prepareDatabase(databaseUrl, { seed }) {
  return run('node', ['node_modules/tsx/dist/cli.mjs', 'web/server/prepare.ts', ...(seed ? ['--seed'] : [])], {
    env: { ...process.env, DATABASE_URL: databaseUrl },
  });
}

// Longer than a browser keeps a connection that rests (Chromium: 300 s): the side that asks must be the one to hang up,
// else a request and the end of its connection cross on the way and the request is lost.
const KEPT_ALIVE_MS = 305_000;

/** A process that does what takes long: plans for the wall, releases, sheets. Any number may run; killed, its work goes to the next one. */
function startWorker(databaseUrl, { stdio, env }) {
  return spawn('node', ['--import', 'tsx', 'web/server/worker.ts'], {
    cwd: root,
    stdio,
    env: { ...process.env, NODE_ENV: 'production', WATTOGRAPH_FONTS: `${root}core/assets/fonts`, ...env, DATABASE_URL: databaseUrl },
  });
}

/** Start the built application and its worker; resolves when it answers. */
export async function startServer({ databaseUrl, port, host = '127.0.0.1', stdio = 'inherit', env = {} }) {
  const flags = ['-p', String(port), '-H', host, '--keepAliveTimeout', String(KEPT_ALIVE_MS)];
  const child = spawn('node', ['node_modules/next/dist/bin/next', 'start', 'web', ...flags], {
    cwd: root,
    stdio,
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NEXT_TELEMETRY_DISABLED: '1',
      WATTOGRAPH_FONTS: `${root}core/assets/fonts`,
      ...env,
      DATABASE_URL: databaseUrl,
    },
  });
  let worker = startWorker(databaseUrl, { stdio, env });
  let isStopping = false;
  const renew = () => {
    if (isStopping) return;
    setTimeout(() => {
      if (isStopping) return;
      worker = startWorker(databaseUrl, { stdio, env });
      worker.on('exit', renew);
    }, 1000).unref();
  };
  worker.on('exit', renew);
  const stop = (signal = 'SIGTERM') => {
    isStopping = true;
    worker.kill(signal);
    child.kill(signal);
  };
  child.on('exit', () => {
    isStopping = true;
    worker.kill('SIGTERM');
  });
  const address = `http://${host.includes(':') ? `[${host}]` : host === '0.0.0.0' ? '127.0.0.1' : host}:${port}`;
  let ended = false;
  child.on('exit', () => {
    ended = true;
  });
  for (let attempt = 0; attempt < 300; attempt += 1) {
    if (ended) throw new Error('the application ended before it answered');
    try {
      const response = await fetch(`${address}/api/health`);
      if (response.ok) return { child, address, stop, pids: () => ({ server: child.pid, worker: worker.pid }) };
    } catch {
      // not listening yet
    }
    await sleep(100);
  }
  stop('SIGKILL');
  throw new Error('the application did not answer within 30 s');
}
