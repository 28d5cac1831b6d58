/** What a worker sees to now and then, at once: DATABASE_URL=… tsx operateProbe.ts compact JOB EDITS | move | bin */
import { compactJob, readSnapshot } from '../web/server/jobs/compact';
import { emptyBin } from '../web/server/jobs/bin';
import { movePhotos } from '../web/server/photos';

const [what, id, edits] = process.argv.slice(2) as [string, string, string];

async function act(): Promise<unknown> {
  if (what === 'move') return movePhotos();
  if (what === 'bin') return emptyBin();
  const version = await compactJob(id, { edits: Number(edits), days: 0, least: 1 });
  return { version, snapshot: await readSnapshot(id) };
}

act()
  .then((all) => {
    process.stdout.write(`\n${JSON.stringify(all ?? null)}`, () => process.exit(0));
  })
  .catch((error: unknown) => {
    console.error(error);
    process.exit(1);
  });
