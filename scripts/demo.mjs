// One command from a fresh clone to a running application with demo data.
import { ensureBuild, ensureModules, ensurePackages, findPort } from './lib/machine.mjs';
import { dataFolder, startPostgres } from './lib/postgres.mjs';
import { prepareDatabase, startServer } from './lib/server.mjs';

async function start() {
  const host = process.env.HOST ?? '127.0.0.1';
  if (!process.env.DATABASE_URL) ensurePackages(['postgresql']);
  await ensureModules();
  await ensureBuild();
  const postgres = process.env.DATABASE_URL ? { url: process.env.DATABASE_URL, stop: () => {} } : await startPostgres(dataFolder());
  let server;
  let stopping = false;
  const stop = (code) => {
    if (stopping) return;
    stopping = true;
    const finish = () => {
      postgres.stop();
      process.exit(code);
    };
    if (!server || server.child.exitCode !== null) finish();
    else {
      server.child.on('exit', finish);
      server.stop();
      setTimeout(() => server.stop('SIGKILL'), 8000).unref();
    }
  };
  process.on('SIGINT', () => stop(0));
  process.on('SIGTERM', () => stop(0));
  try {
    await prepareDatabase(postgres.url, { seed: true });
    server = await startServer({ databaseUrl: postgres.url, host, port: await findPort(Number(process.env.PORT ?? 4640)) });
    server.child.on('exit', () => stop(1));
    console.log(
      `\n  Wattograph is at ${server.address}\n  Data: ${process.env.DATABASE_URL ? 'the database of DATABASE_URL' : dataFolder()}\n  Stop with Ctrl-C.\n`,
    );
  } catch (error) {
    console.error(error.message);
    stop(1);
  }
}

start().catch((error) => {
  console.error(`\n${error.message}`);
  process.exit(1);
});
