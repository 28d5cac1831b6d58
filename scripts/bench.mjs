// Measures; asserts nothing. Medians on this machine, printed with the targets beside them.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { ensurePackages, findPort, root, run } from './lib/machine.mjs';
import { ensureBuild, ensureModules } from './lib/made.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';
import testPeople from './lib/testPeople.cjs';

ensurePackages(['postgresql', 'chromium']);
await ensureModules();
console.log(
  '── core (targets: 200 wires ≤ 50 ms full, ≤ 10 ms an edit; 3,200 ≤ 1,200 ms; exponent ≤ 1.2; demo job ≤ 150 ms, ≤ 20 ms an edit, assignment ≤ 300 ms)',
);
const folder = mkdtempSync(join(tmpdir(), 'wattograph-bench-'));
const { build } = await import('esbuild');
/** Bundled, so that no loader stands in the measurement. */
async function bundle(entry) {
  const outfile = join(folder, `${basename(entry, '.ts')}.cjs`);
  const outside = ['@playwright/test'];
  await build({
    entryPoints: [join(root, entry)],
    bundle: true,
    platform: 'node',
    format: 'cjs',
    outfile,
    external: outside,
    logLevel: 'error',
  });
  return outfile;
}
await run('node', ['--max-old-space-size=4096', await bundle('core/bench/planBench.ts')]);

await ensureBuild();
const postgres = await startPostgres(folder);
let server;
try {
  await prepareDatabase(postgres.url, { seed: true, quiet: true, appUrl: postgres.appUrl });
  await testPeople.addTestPeople(postgres.url);
  console.log('\n── served (targets: first page within 2,000 ms of a warm start, interactive within 1,500 ms)');
  for (let round = 0; round < 3; round += 1) {
    server?.stop();
    const started = performance.now();
    server = await startServer({
      databaseUrl: postgres.appUrl,
      port: await findPort(),
      stdio: ['ignore', 'ignore', 'ignore'],
      env: testPeople.TEST_ENVIRONMENT,
    });
    await (await fetch(`${server.address}/`, { headers: { cookie: testPeople.cookieOf('imke') } })).text();
    console.log(`start ${round + 1}: first page of the demo after ${Math.round(performance.now() - started)} ms`);
  }
  await run('node', [await bundle('e2e/browserBench.ts')], {
    env: { ...process.env, BENCH_ADDRESS: server.address, WATTOGRAPH_ROOT: root, NODE_PATH: join(root, 'node_modules') },
  });
} finally {
  server?.stop();
  postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}
