// Puts everything back to what a backup holds: npm run restore -- FILE. Nothing may run on the database meanwhile.
import { countOthers, restore } from './lib/backup.mjs';
import { ensurePackages } from './lib/machine.mjs';
import { ensureModules } from './lib/made.mjs';
import { dataFolder, foreignDatabase, startPostgres } from './lib/postgres.mjs';
import { prepareDatabase } from './lib/server.mjs';

let postgres;
try {
  const file = process.argv[2];
  if (!file) throw new Error('expected a backup file: npm run restore -- FILE');
  ensurePackages(['postgresql']);
  await ensureModules();
  postgres = foreignDatabase() ?? (await startPostgres(dataFolder()));
  const others = await countOthers(postgres.url);
  if (others > 0) throw new Error(`${others} connections are open: end the application first. Nothing was changed.`);
  restore(postgres.url, file);
  await prepareDatabase(postgres.url, { seed: false, appUrl: postgres.appUrl });
  console.log(`Everything is as ${file} holds it. Start Wattograph as usual.`);
} catch (error) {
  console.error(error.message);
  process.exitCode = 1;
} finally {
  if (postgres?.started) postgres.stop();
}
