import { execFileSync, spawn } from 'node:child_process';
import { join } from 'node:path';

export interface Running {
  address: string;
  /** of its own PostgreSQL */
  database: string;
  kill(): void;
  /** the worker only */
  killWorker(): void;
  startWorker(): void;
}

/** An application and a database of its own, to be killed. */
export function start(folder: string): Running {
  const printed = execFileSync('node', [join(__dirname, '../scripts/startRig.mjs'), folder], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
    timeout: 90_000,
  });
  const { address, database, server, worker, postgres } = JSON.parse(printed.trim().split('\n').at(-1)!) as {
    address: string;
    database: string;
    server: number;
    worker: number;
    postgres: number;
  };
  const workers = [worker];
  return {
    address,
    database,
    kill: () => [server, ...workers, postgres].forEach(killHard),
    killWorker: () => workers.splice(0).forEach(killHard),
    startWorker: () => {
      const child = spawn('node', ['--import', 'tsx', 'web/server/worker.ts'], {
        cwd: join(__dirname, '..'),
        stdio: 'ignore',
        env: { ...process.env, DATABASE_URL: database },
      });
      workers.push(child.pid!);
    },
  };
}

function killHard(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // it is gone already
  }
}
