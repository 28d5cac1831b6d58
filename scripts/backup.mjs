// Writes a backup of all that is stored, reads it back, and says where it is: npm run backup [-- FOLDER]
import { backUp, backupFolder } from './lib/backup.mjs';
import { ensurePackages } from './lib/machine.mjs';
import { ensureModules } from './lib/made.mjs';
import { dataFolder, foreignDatabase, startPostgres } from './lib/postgres.mjs';

try {
  ensurePackages(['postgresql']);
  await ensureModules();
  const postgres = foreignDatabase() ?? (await startPostgres(dataFolder()));
  const { file, bytes, rows } = await backUp(postgres.url, process.argv[2] ?? backupFolder(dataFolder()));
  if (postgres.started) postgres.stop();
  const held = ['jobs', 'edits', 'releases', 'floor_events', 'photos', 'shop_versions'].map(
    (table) => `${rows[`"public"."${table}"`] ?? 0} ${table.replace('_', ' ')}`,
  );
  console.log(`${file}: ${(bytes / 1024 / 1024).toFixed(1)} MB, read back; ${held.join(', ')}`);
} catch (error) {
  console.error(error.message);
  process.exit(1);
}
