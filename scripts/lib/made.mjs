// What is made of the sources, anew only where one of them changed since: npm packages, the build. Plain Node, no packages.
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { isAlive, root, run, subPath } from './machine.mjs';

export const lockFile = join(root, 'package-lock.json');

/** Hold a lock folder while working, so that two commands beside each other do not install or build at once. */
async function withLock(name, work) {
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

/** Files of a folder that something is made of: no tests, nothing that was made. */
export function listSources(folder, found = []) {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) {
      if (!/^(node_modules|\.next.*|test-results)$/.test(entry.name)) listSources(path, found);
    } else if (!/\.test\.tsx?$|tsbuildinfo$|next-env\.d\.ts$|^\.tsconfig-path/.test(entry.name)) found.push(path);
  }
  return found;
}

/**
 * Make something where it is not there or one of its sources changed since. name: of its lock; mark: file that is written once it is made,
 * beside it, and says of what; sources: the files.
 */
export async function ensureMade({ name, mark, sources }, make) {
  const hash = createHash('sha256');
  for (const path of [...sources].sort()) hash.update(path.slice(root.length)).update(readFileSync(path));
  const stamp = hash.digest('hex');
  const isReady = () => existsSync(mark) && readFileSync(mark, 'utf8') === stamp;
  if (isReady()) return;
  await withLock(name, async () => {
    // another command may have made it meanwhile
    if (isReady()) return;
    await make();
    writeFileSync(mark, stamp);
  });
}

/** npm packages as the lock file says, installed once for each lock file. */
export const ensureModules = () =>
  ensureMade({ name: 'modules', mark: join(root, 'node_modules/.wattograph-lock'), sources: [lockFile] }, async () => {
    console.log('installing npm packages …');
    await run('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error']);
  });

/** The built application. */
export async function ensureBuild() {
  const sources = [lockFile, ...['core/src', 'core/assets', 'web'].flatMap((folder) => listSources(join(root, folder)))];
  await ensureMade({ name: 'build', mark: join(root, `web/.next${subPath.replaceAll('/', '-')}/wattograph-build`), sources }, async () => {
    console.log('building the application (about a minute and a half) …');
    // a build writes its folder into the settings of the compiler: those of this one are its own
    if (subPath) writeFileSync(join(root, 'web/.tsconfig-path.json'), '{ "extends": "./tsconfig.json" }\n');
    await run('node', ['node_modules/next/dist/bin/next', 'build', 'web'], {
      env: { ...process.env, NEXT_TELEMETRY_DISABLED: '1', NODE_ENV: 'production' },
    });
  });
}
