// The machine that this runs on: its Debian packages, its ports, its processes. Plain Node, no packages.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { existsSync, readdirSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const root = fileURLToPath(new URL('../../', import.meta.url));
export const isRoot = process.getuid?.() === 0;

/** Run a command with its output shown; throws with its name where it fails. */
export function run(command, args, options = {}) {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', ...options });
    child.on('error', reject);
    child.on('exit', (code, signal) =>
      code === 0 ? resolve() : reject(new Error(`${command} ${args.slice(0, 3).join(' ')} ended with ${signal ?? code}`)),
    );
  });
}

export function isAlive(pid) {
  try {
    process.kill(pid, 0);
    return true;
  } catch (error) {
    return error.code === 'EPERM';
  }
}

/** Folder with initdb and pg_ctl, newest version first; undefined where PostgreSQL's server is not installed. */
export function findPostgres() {
  const base = '/usr/lib/postgresql';
  if (!existsSync(base)) return undefined;
  const versions = readdirSync(base)
    .filter((version) => existsSync(join(base, version, 'bin/initdb')))
    .sort((a, b) => Number(b) - Number(a));
  return versions[0] && join(base, versions[0], 'bin');
}

const PACKAGES = {
  postgresql: () => findPostgres() !== undefined,
  chromium: () => existsSync('/usr/bin/chromium'),
  'chromium-headless-shell': () => existsSync('/usr/bin/chromium-headless-shell'),
};

/** Install Debian packages that are missing, or say in one line what to run. */
export function ensurePackages(names) {
  const missing = names.filter((name) => !PACKAGES[name]());
  if (missing.length === 0) return;
  const line = `apt-get install -y --no-install-recommends ${missing.join(' ')}`;
  if (!isRoot) throw new Error(`These Debian packages are missing. Run this, then start again:\n\n  sudo ${line}\n`);
  console.log(`installing ${missing.join(', ')} …`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  const wait = ['-o', 'DPkg::Lock::Timeout=300', '-o', 'APT::Update::Lock::Timeout=300'];
  const quiet = { env, stdio: ['ignore', 'ignore', 'inherit'] };
  spawnSync('apt-get', [...wait, 'update', '-q'], quiet);
  execFileSync('apt-get', [...wait, 'install', '-y', '--no-install-recommends', ...missing], quiet);
}

/** Path that the application is served under, as /loom; empty: at the root of its name. It is part of the build. */
export const subPath = process.env.WATTOGRAPH_PATH ?? '';

/** Does nobody listen on this port of loopback? */
export function isPortFree(port) {
  return new Promise((resolve) => {
    const server = createServer();
    server.on('error', () => resolve(false));
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)));
  });
}

/** A port on loopback that nobody listens on: the one wished for, or any. */
export function findPort(wished = 0) {
  return new Promise((resolve, reject) => {
    const server = createServer();
    server.on('error', (error) => (wished ? resolve(findPort(0)) : reject(error)));
    server.listen(wished, '127.0.0.1', () => {
      const { port } = server.address();
      server.close(() => resolve(port));
    });
  });
}
