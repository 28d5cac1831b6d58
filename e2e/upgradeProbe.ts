/** Works with every job of a database as the server does, for a test that made it as an older Wattograph left it: DATABASE_URL=… tsx upgradeProbe.ts */
import { randomUUID } from 'node:crypto';
import { countLine, listJobSummaries } from '../web/server/jobSummaries';
import { readJob, takeEdit, takeHistory } from '../web/server/documents';
import { listPhotos } from '../web/server/photos';
import { listFloorEvents, listReleases, readRelease } from '../web/server/releases';
import { readShop } from '../web/server/shop';

const AUTHOR = 'Jun Okafor';

async function work(id: string) {
  const before = await readJob(id, AUTHOR);
  const at = (job: typeof before.document) => [job.notes, job.looms.rear!.segments.s1!.lengthMm];
  const edit = { id: randomUUID(), base: before.version, author: AUTHOR, label: 'note' };
  await takeEdit(id, { ...edit, patch: [{ op: 'replace', path: '/notes', value: 'made now' }] });
  const edited = (await readJob(id, AUTHOR)).document;
  const undo = () => takeHistory(id, { id: randomUUID(), author: AUTHOR, direction: 'undo' });
  await undo();
  const undone = (await readJob(id, AUTHOR)).document;
  // and the one of the older Wattograph
  await undo();
  const old = (await readJob(id, AUTHOR)).document;
  await countLine(id);
  const [release] = await listReleases(id);
  return {
    formatVersion: before.document.formatVersion,
    places: [before.document, edited, undone, old].map(at),
    release: [release?.note, (await readRelease(id, 1)).document.formatVersion],
    events: (await listFloorEvents(id, 1)).map(({ words, author }) => [words, author]),
    photos: (await listPhotos(id)).map(({ caption }) => caption),
  };
}

async function read() {
  const jobs: Record<string, unknown> = {};
  for (const { id, name } of await listJobSummaries()) jobs[name] = await work(id);
  const wall = await listJobSummaries();
  return {
    jobs,
    counted: wall.map(({ counted }) => counted && [counted.looms, counted.problem]),
    shop: (await readShop()).shop.formatVersion,
  };
}

read()
  .then((all) => {
    process.stdout.write(`\n${JSON.stringify(all)}`, () => process.exit(0));
  })
  .catch((error: unknown) => {
    console.error(error);
    process.exit(1);
  });
