// Measures; asserts nothing. Medians on this machine, printed with the targets beside them.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensureBuild, ensureModules, ensurePackages, findPort, root, run } from './lib/machine.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';

ensurePackages(['postgresql', 'chromium']);
await ensureModules();
console.log(
  '── core (targets: 200 wires ≤ 50 ms full, ≤ 10 ms an edit; 3,200 ≤ 1,200 ms; exponent ≤ 1.2; demo job ≤ 150 ms, ≤ 20 ms an edit, assignment ≤ 300 ms)',
);
// bundled, so that no loader stands in the measurement
const bundle = join(mkdtempSync(join(tmpdir(), 'wattograph-bench-')), 'bench.cjs');
const { build } = await import('esbuild');
await build({
  entryPoints: [join(root, 'core/bench/planBench.ts')],
  bundle: true,
  platform: 'node',
  format: 'cjs',
  outfile: bundle,
  logLevel: 'error',
});
await run('node', ['--max-old-space-size=4096', bundle]);

await ensureBuild();
const folder = mkdtempSync(join(tmpdir(), 'wattograph-bench-'));
const postgres = await startPostgres(folder);
let server;
try {
  await prepareDatabase(postgres.url, { seed: true });
  console.log('\n── served (targets: first page within 2,000 ms of a warm start, interactive within 1,500 ms)');
  for (let round = 0; round < 3; round += 1) {
    server?.child.kill('SIGTERM');
    const started = performance.now();
    server = await startServer({ databaseUrl: postgres.url, port: await findPort(), stdio: ['ignore', 'ignore', 'ignore'] });
    await (await fetch(`${server.address}/`)).text();
    console.log(`start ${round + 1}: first page of the demo after ${Math.round(performance.now() - started)} ms`);
  }
  await run('node', ['node_modules/tsx/dist/cli.mjs', 'e2e/browserBench.ts'], {
    env: { ...process.env, BENCH_ADDRESS: server.address, WATTOGRAPH_ROOT: root },
  });
} finally {
  server?.child.kill('SIGTERM');
  postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}
