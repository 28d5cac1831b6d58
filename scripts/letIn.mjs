// A code that lets somebody in, made on the machine itself: npm run let-in -- "NAME" [ROLE]
import { ensureModules, ensurePackages, run } from './lib/machine.mjs';
import { dataFolder, foreignDatabase, startPostgres } from './lib/postgres.mjs';

try {
  if (!process.env.DATABASE_URL) ensurePackages(['postgresql']);
  await ensureModules();
  const postgres = foreignDatabase() ?? (await startPostgres(dataFolder()));
  try {
    await run('node', ['--import', 'tsx', 'web/server/letIn.ts', ...process.argv.slice(2)], {
      env: { ...process.env, DATABASE_URL: postgres.url },
    });
  } finally {
    if (postgres.started) postgres.stop();
  }
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
