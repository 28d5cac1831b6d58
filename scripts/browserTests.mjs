// Browser and HTTP tests on the built application with a PostgreSQL of its own that is thrown away afterwards.
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { ensurePackages, findPort, run } from './lib/machine.mjs';
import { ensureBuild, ensureModules } from './lib/made.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';
import testPeople from './lib/testPeople.cjs';

ensurePackages(['postgresql', 'chromium-headless-shell']);
// one of the tests starts it as a person would, which would install what is missing under the others
await ensureModules();
await ensureBuild();
const folder = mkdtempSync(join(tmpdir(), 'wattograph-tests-'));
const postgres = await startPostgres(folder);
let server;
let failed = false;
try {
  await prepareDatabase(postgres.url, { seed: true, quiet: true, appUrl: postgres.appUrl });
  await testPeople.addTestPeople(postgres.url);
  server = await startServer({
    databaseUrl: postgres.appUrl,
    port: await findPort(),
    stdio: ['ignore', 'ignore', 'ignore'],
    // lines of the wall are counted where a test asks for them, on an application of its own
    env: { ...testPeople.TEST_ENVIRONMENT, WATTOGRAPH_REST_SECONDS: '1800' },
  });
  await run('node', ['node_modules/@playwright/test/cli.js', 'test', ...process.argv.slice(2)], {
    env: { ...process.env, E2E_ADDRESS: server.address, E2E_DATABASE: postgres.url },
  });
} catch (error) {
  failed = true;
  console.error(error.message);
} finally {
  server?.stop();
  postgres.stop();
  rmSync(folder, { recursive: true, force: true });
}
process.exit(failed ? 1 : 0);
