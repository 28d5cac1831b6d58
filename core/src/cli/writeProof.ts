import { readFileSync, statSync } from 'node:fs';
import type { Catalogue } from '../catalogue';
import { createStandInDevice, fromReadings, readCsv, toTestsCsv, type CsvTable } from '../exchange';
import {
  createBuild,
  createRingOut,
  examine,
  nameProbe,
  plantFault,
  PLANTED_KINDS,
  toFaultWords,
  type PlantedKind,
  type RingOut,
} from '../make';
import type { Checked, Job } from '../model';
import { plan } from '../plan';
import { toCount } from '../units';
import { BadInput, findLoom, type Output } from './cliTypes';

const MOST_BYTES = 8 * 1024 * 1024;
const MOST_SEEKS = 20;

/** What may be asked for with the command. */
export interface ProofWords {
  loom?: string;
  readings?: string;
  'stand-in'?: string;
  seed?: string;
}

/** Readings of the tester that ships, of a loom with a fault of this kind at a place that the seed chooses. */
function standIn(ringOut: RingOut, kind: string, seed: string): string {
  if (!/^\d{1,9}$/.test(seed)) throw new BadInput([{ path: '--seed', message: `expected a whole number up to 999999999, got "${seed}"` }]);
  if (kind !== 'sound' && !PLANTED_KINDS.includes(kind as PlantedKind))
    throw new BadInput([{ path: '--stand-in', message: `expected sound, ${PLANTED_KINDS.join(', ')}, got "${kind}"` }]);
  const planted = kind === 'sound' ? null : plantFault(ringOut, kind as PlantedKind, Number(seed));
  if (kind !== 'sound' && planted === null)
    throw new BadInput([{ path: '--stand-in', message: `expected a fault that this loom has a place for, got "${kind}"` }]);
  return createStandInDevice(ringOut, planted ? [planted] : [], Number(seed))(toTestsCsv(ringOut));
}

/**
 * The measurements of a loom for a tester, as CSV; with readings what is wrong with it.
 * @returns 0; with readings 1 where something is wrong, 3 where nothing is and not all is measured
 */
export function writeProof(job: Job, shop: Catalogue, words: ProofWords, output: Output): number {
  const loom = findLoom(plan(job, shop), words.loom);
  const ringOut = createRingOut(job, shop, loom, createBuild(job, loom, shop).continuity);
  if (words['stand-in'] !== undefined) {
    output.out(standIn(ringOut, words['stand-in'], words.seed ?? '1'));
    return 0;
  }
  if (words.readings === undefined) {
    output.out(toTestsCsv(ringOut));
    return 0;
  }
  const values = new Map(readFile(words.readings, (table) => fromReadings(ringOut, table)).map(({ test, value }) => [test, value]));
  const { passed, failed, unread, faults, seeks } = examine(ringOut, values);
  output.out(`${toCount(passed, 'measurement')} passed, ${failed.length} failed, ${unread.length} not made\n`);
  for (const fault of faults) {
    const { what, look } = toFaultWords(ringOut, fault);
    output.out(`${what} ${look}\n`);
  }
  if (seeks.length > 0) {
    const would = faults.length > 0 ? 'would tell more' : 'would tell what is wrong';
    output.out(`${toCount(seeks.length, 'more measurement')} ${would}, the likeliest first:\n`);
    for (const { id, from, to } of seeks.slice(0, MOST_SEEKS))
      output.out(`${id}: ${nameProbe(ringOut, from)} to ${nameProbe(ringOut, to!)}\n`);
  }
  return failed.length > 0 ? 1 : unread.length > 0 ? 3 : 0;
}

/** Readings of a CSV file, as one of the readers takes them. Throws BadInput with the file's name. */
export function readFile<T>(file: string, read: (table: CsvTable) => Checked<T>): T {
  let text: string;
  try {
    if (statSync(file).size > MOST_BYTES) throw new Error('expected at most 8 MB');
    text = readFileSync(file, 'utf8');
  } catch (error) {
    throw new BadInput([
      { path: file, message: `expected a file that can be read: ${error instanceof Error ? error.message : String(error)}` },
    ]);
  }
  const take = <V>(checked: Checked<V>): V => {
    if (!checked.ok) throw new BadInput(checked.problems.map(({ path, message }) => ({ path: `${file} ${path}`.trim(), message })));
    return checked.value;
  };
  return take(read(take(readCsv(text))));
}
