// A code that lets somebody in, made on the machine itself: npm run let-in -- "NAME" [ROLE]
import { ensurePackages, run } from './lib/machine.mjs';
import { ensureModules } from './lib/made.mjs';
import { ensurePrograms, toProgram } from './lib/programs.mjs';
import { dataFolder, foreignDatabase, startPostgres } from './lib/postgres.mjs';

try {
  if (!process.env.DATABASE_URL) ensurePackages(['postgresql']);
  await ensureModules();
  await ensurePrograms();
  const postgres = foreignDatabase() ?? (await startPostgres(dataFolder()));
  try {
    await run('node', [toProgram('letIn'), ...process.argv.slice(2)], {
      env: { ...process.env, DATABASE_URL: postgres.url },
    });
  } finally {
    if (postgres.started) postgres.stop();
  }
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
