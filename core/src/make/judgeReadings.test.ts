import { CATALOGUE } from '../catalogue';
import { createInlet } from '../demo';
import { plan } from '../plan';
import { createBuild, isPassing, listFailed, toLimitWords, type ExpectedReading } from './index';

const pull: ExpectedReading = { id: 'pull w', words: 'pull test of N-1', unit: 'N', least: 40, most: null };
const pair: ExpectedReading = { id: 'a b', words: 'a to b', unit: 'Ω', least: null, most: 0.2141 };

test('a reading passes up to its limit and on it', () => {
  expect([39.9, 40, 41].map((value) => isPassing(pull, value))).toEqual([false, true, true]);
  expect([0.2141, 0.2142].map((value) => isPassing(pair, value))).toEqual([true, false]);
  expect(isPassing({ least: null, most: null }, -5)).toBe(true);
  expect([
    toLimitWords(pull),
    toLimitWords(pair),
    toLimitWords({ unit: 'mV', least: 1, most: 2 }),
    toLimitWords({ unit: 'N', least: null, most: null }),
  ]).toEqual(['at least 40 N', 'at most 0.2141 Ω', 'at least 1 mV, at most 2 mV', '']);
});

test('of several readings the last counts; what was not read has not failed', () => {
  const read = (value: number) => ({ readId: pull.id, value });
  expect(listFailed([pull, pair], [read(45), read(31)])).toEqual([{ expected: pull, taken: read(31) }]);
  expect(listFailed([pull, pair], [read(31), read(45)])).toEqual([]);
  expect(listFailed([pull], [])).toEqual([]);
});

describe('the inlet', () => {
  const job = createInlet();
  const [loom] = plan(job, CATALOGUE).looms;
  const { steps, continuity } = createBuild(job, loom!, CATALOGUE);
  test('every crimp that has a pull-off force is pulled with that, each wire by itself', () => {
    const expected = loom!.terminations.flatMap(({ wireIds, pullOffsN }) =>
      wireIds.flatMap((id, at) => ((pullOffsN[at] ?? null) === null ? [] : [[`pull ${id}`, pullOffsN[at]]])),
    );
    const found = steps
      .filter(({ operation }) => operation === 'crimp')
      .flatMap(({ items }) => items.flatMap(({ reads }) => reads.map(({ id, least }) => [id, least])));
    expect(found.map(String).sort()).toEqual(expected.map(String).sort());
    expect(found.length).toBeGreaterThan(40);
  });
  test('the test reads every row of the continuity table, at most what that allows', () => {
    const { reads } = steps.find(({ operation }) => operation === 'test')!.items.find(({ id }) => id === 'pairs')!;
    expect(reads.map(({ most }) => most)).toEqual(continuity.map(({ mostOhm, millivolts }) => millivolts?.mostMv ?? mostOhm));
    expect(new Set(reads.map(({ id }) => id)).size).toBe(reads.length);
  });
});
