import { execFileSync } from 'node:child_process';
import { join } from 'node:path';

export interface Running {
  address: string;
  /** of its own PostgreSQL */
  database: string;
  kill(): void;
}

/** An application and a database of its own, to be killed. */
export function start(folder: string): Running {
  const printed = execFileSync('node', [join(__dirname, '../scripts/startRig.mjs'), folder], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'inherit'],
    timeout: 90_000,
  });
  const { address, database, pids } = JSON.parse(printed.trim().split('\n').at(-1)!) as {
    address: string;
    database: string;
    pids: number[];
  };
  return { address, database, kill: () => pids.forEach(killHard) };
}

function killHard(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL');
  } catch {
    // it is gone already
  }
}
