import { createHash } from 'node:crypto';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';

/**
 * What is made of a job by planning it, once for all the tests of a run: a hundred of them begin with the demo, and each file has modules of
 * its own. Without the folder that a run makes (web/testing/startRun.cjs) it is made each time.
 */
export function onceARun<T extends object>(name: string, job: object, make: () => T): T {
  const folder = process.env.WATTOGRAPH_TEST_FOLDER;
  if (folder === undefined) return make();
  const key = createHash('sha1')
    .update(`${name} ${JSON.stringify(job)}`)
    .digest('hex');
  const file = join(folder, `${key}.json`);
  if (!existsSync(file)) {
    const own = `${file}.${process.pid}`;
    writeFileSync(own, JSON.stringify(make()));
    // whole or not at all: another test may read it meanwhile
    renameSync(own, file);
  }
  return JSON.parse(readFileSync(file, 'utf8')) as T;
}
