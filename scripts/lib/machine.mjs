// What the machine must have before anything runs: Debian packages, npm packages, a build. Plain Node, no packages.
import { execFileSync, spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
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

/** Hold a lock folder while working, so that two commands beside each other do not install or build at once. */
export async function withLock(name, work) {
  const folder = join(root, '.build-lock');
  mkdirSync(folder, { recursive: true });
  const lock = join(folder, name);
  for (;;) {
    try {
      mkdirSync(lock);
      break;
    } catch {
      const owner = existsSync(join(lock, 'pid')) ? Number(readFileSync(join(lock, 'pid'), 'utf8')) : 0;
      const isStale = owner ? !isAlive(owner) : Date.now() - statSync(lock, { throwIfNoEntry: false })?.mtimeMs > 10_000;
      if (isStale) rmSync(lock, { recursive: true, force: true });
      else await sleep(500);
    }
  }
  writeFileSync(join(lock, 'pid'), String(process.pid));
  try {
    return await work();
  } finally {
    rmSync(lock, { recursive: true, force: true });
  }
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

export const hashFile = (hash, path) => hash.update(path.slice(root.length)).update(readFileSync(path));

/** npm packages as the lock file says, installed once for each lock file. */
export async function ensureModules() {
  const stamp = createHash('sha256')
    .update(readFileSync(join(root, 'package-lock.json')))
    .digest('hex');
  const mark = join(root, 'node_modules/.wattograph-lock');
  const isReady = () => existsSync(mark) && readFileSync(mark, 'utf8') === stamp;
  if (isReady()) return;
  await withLock('modules', async () => {
    if (isReady()) return;
    console.log('installing npm packages …');
    await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
    writeFileSync(mark, stamp);
  });
}

/** Files that a build is made of. */
export function listSources(folder, found = []) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) {
      if (!/^(node_modules|\.next.*|test-results)$/.test(entry.name)) listSources(path, found);
    } else if (!/\.test\.tsx?$|tsbuildinfo$|next-env\.d\.ts$|^\.tsconfig-path/.test(entry.name)) found.push(path);
  }
  return found;
}

/** Path that the application is served under, as /loom; empty: at the root of its name. It is part of the build. */
export const subPath = process.env.WATTOGRAPH_PATH ?? '';

/** The built application, built anew only where a source changed since. */
export async function ensureBuild() {
  const hash = createHash('sha256');
  for (const path of [
    join(root, 'package-lock.json'),
    ...['core/src', 'core/assets', 'web'].flatMap((folder) => listSources(join(root, folder))),
  ].sort())
    hashFile(hash, path);
  const stamp = hash.digest('hex');
  const mark = join(root, `web/.next${subPath.replaceAll('/', '-')}/wattograph-build`);
  const isReady = () => existsSync(mark) && readFileSync(mark, 'utf8') === stamp;
  await withLock('build', async () => {
    if (isReady()) return;
    console.log('building the application (about a minute and a half) …');
    // a build writes its folder into the settings of the compiler: those of this one are its own
    if (subPath) writeFileSync(join(root, 'web/.tsconfig-path.json'), '{ "extends": "./tsconfig.json" }\n');
    await run('node', ['node_modules/next/dist/bin/next', 'build', 'web'], {
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    });
    writeFileSync(mark, stamp);
  });
}

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
