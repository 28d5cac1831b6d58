import type { Catalogue } from '../catalogue';
import { fromPowerReadings, toLiveCsv, toPowerCsv } from '../exchange';
import { createFirstPower, explainPower, judgePower } from '../make';
import type { Job } from '../model';
import { findStandard, plan } from '../plan';
import { toCount } from '../units';
import { BadInput, type Output } from './cliTypes';
import { readFile } from './writeProof';

/**
 * First power of the vehicle as CSV, or what its readings come to; or what is live in each mode.
 * @returns 0; with readings 1 where something surprised, 3 where nothing did and not all is read
 */
export function writePower(job: Job, shop: Catalogue, words: { live?: boolean; readings?: string }, output: Output): number {
  const planned = plan(job, shop);
  const sheet = createFirstPower(job, planned, shop);
  if (!sheet) throw new BadInput([{ path: '', message: 'expected a battery on a loom of this job: nothing is fed by it' }]);
  if (words.live === true) {
    output.out(toLiveCsv(job, planned, findStandard(job, shop)));
    return 0;
  }
  if (words.readings === undefined) {
    output.out(toPowerCsv(sheet));
    return 0;
  }
  const values = new Map(readFile(words.readings, (table) => fromPowerReadings(sheet, table)).map(({ test, value }) => [test, value]));
  const judged = judgePower(sheet, values);
  const passed = judged.tests.filter(({ verdict }) => verdict === 'passed').length;
  output.out(
    `${toCount(passed, 'reading')} passed, ${judged.failed.length} failed, ${judged.tests.length - passed - judged.failed.length} not made\n`,
  );
  for (const one of judged.failed) {
    output.out(`stop: ${one.test.words}: ${one.value} ${one.test.unit}\n`);
    for (const line of explainPower(sheet, judged, one, values)) output.out(`  ${line}\n`);
  }
  return judged.failed.length > 0 ? 1 : passed < judged.tests.length ? 3 : 0;
}
