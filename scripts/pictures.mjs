// Takes the pictures of docs/screenshots anew, from the demo jobs in a database that is thrown away afterwards. With names: only those are kept.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, findPort, root, run } from './lib/machine.mjs';
import { ensureBuild, ensureModules } from './lib/made.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';
import testPeople from './lib/testPeople.cjs';

ensurePackages(['postgresql', 'chromium']);
await ensureModules();
await ensureBuild();
const folder = mkdtempSync(join(tmpdir(), 'wattograph-pictures-'));
const postgres = await startPostgres(folder);
let server;
try {
  await prepareDatabase(postgres.url, { seed: true, quiet: true, appUrl: postgres.appUrl });
  await testPeople.addTestPeople(postgres.url);
  server = await startServer({
    databaseUrl: postgres.appUrl,
    port: await findPort(),
    stdio: ['ignore', 'ignore', 'ignore'],
    env: testPeople.TEST_ENVIRONMENT,
  });
  await run('node', ['node_modules/tsx/dist/cli.mjs', 'e2e/pictures.ts', join(root, 'docs/screenshots'), ...process.argv.slice(2)], {
    env: { ...process.env, BENCH_ADDRESS: server.address },
  });
} finally {
  server?.stop();
  postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}
