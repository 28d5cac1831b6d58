// Starts an application and a database of their own in a folder and leaves them running; prints how to reach and end them.
// For tests that kill them: node scripts/startRig.mjs FOLDER [EMPTY]
import { findPort } from './lib/machine.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { toProgram } from './lib/programs.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';
import testPeople from './lib/testPeople.cjs';

const postgres = await startPostgres(process.argv[2]);
await prepareDatabase(postgres.url, { seed: false, quiet: true, appUrl: postgres.appUrl });
// with EMPTY nobody is there yet, as after a first start
if (process.argv[3] !== 'EMPTY') await testPeople.addTestPeople(postgres.url);
const server = await startServer({
  databaseUrl: postgres.appUrl,
  port: await findPort(),
  stdio: ['ignore', 'ignore', 'ignore'],
  env: testPeople.TEST_ENVIRONMENT,
});
console.log(
  JSON.stringify({
    address: server.address,
    database: postgres.url,
    appDatabase: postgres.appUrl,
    ...server.pids(),
    postgres: postgres.pid,
    program: toProgram('worker'),
  }),
);
process.exit(0);
