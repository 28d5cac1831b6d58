// Starts an application and a database of their own in a folder and leaves them running; prints how to reach and end them.
// For tests that kill them: node scripts/startRig.mjs FOLDER
import { findPort } from './lib/machine.mjs';
import { startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';

const postgres = await startPostgres(process.argv[2]);
await prepareDatabase(postgres.url, { seed: false });
const server = await startServer({ databaseUrl: postgres.url, port: await findPort(), stdio: ['ignore', 'ignore', 'ignore'] });
console.log(JSON.stringify({ address: server.address, database: postgres.url, ...server.pids(), postgres: postgres.pid }));
process.exit(0);
