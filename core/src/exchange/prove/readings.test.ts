import { CATALOGUE } from '../../catalogue';
import { createCleanSkerry } from '../../demo/createSkerry';
import { createBuild, createRingOut, createStandInTester, examine } from '../../make';
import { plan } from '../../plan';
import { readCsv } from '../readCsv';
import { fromReadings } from './fromReadings';
import { toTestsCsv } from './toTestsCsv';

const job = createCleanSkerry();
const loom = plan(job, CATALOGUE).looms.find(({ loomId }) => loomId === 'chassis')!;
const ringOut = createRingOut(job, CATALOGUE, loom, createBuild(job, loom, CATALOGUE).continuity);
const read = (text: string) => {
  const table = readCsv(text);
  if (!table.ok) throw new Error(JSON.stringify(table.problems));
  return fromReadings(ringOut, table.value);
};
const lines = (text: string) => {
  const checked = read(text);
  return checked.ok ? [] : checked.problems.map(({ path, message }) => `${path}: ${message}`);
};

test('the list that a tester is given comes back with its values, and says the same of the loom as the tester did', () => {
  const tester = createStandInTester(ringOut, [{ kind: 'open', wireId: ringOut.copper[3]!.wireId }], 4);
  const values = new Map(ringOut.tests.map((test) => [test.id, tester(test)]));
  const [head, ...rows] = toTestsCsv(ringOut).trimEnd().split('\r\n');
  expect(rows).toHaveLength(ringOut.tests.length);
  const filled = [
    head,
    ...rows.map((row, at) => `${row}${values.get(ringOut.tests[at]!.id)! >= 1e6 ? 'OL' : values.get(ringOut.tests[at]!.id)}`),
  ];
  const checked = read(filled.join('\r\n'));
  if (!checked.ok) throw new Error(JSON.stringify(checked.problems));
  const back = new Map(checked.value.map(({ test, value }) => [test, value]));
  expect(examine(ringOut, back).failed).toEqual(examine(ringOut, values).failed);
  expect(examine(ringOut, back).failed).not.toEqual([]);
});

test('what was not measured is left out; units are brought to those of the test; what no table asks for is taken between known cavities', () => {
  const [join] = ringOut.tests.filter(({ unit }) => unit === 'Ω');
  const volts = ringOut.tests.find(({ unit }) => unit === 'mV')!;
  const isolation = ringOut.tests.find(({ unit }) => unit === 'MΩ')!;
  const end = ringOut.ends.find(({ cavities }) => cavities.length > 2)!;
  const seek = `${end.id} ${end.cavities[0]} ${end.id} ${end.cavities[2]}`;
  const rows = [`${join!.id},"18,5",mΩ`, `${volts.id},0.02,V`, `${isolation.id},2,GΩ`, `${seek},OL,`, `${ringOut.tests.at(-1)!.id},,`];
  const checked = read(['test,value,unit,instrument', ...rows.map((row, at) => `${row},${at === 0 ? 'ohmmeter 3' : ''}`)].join('\n'));
  expect(checked).toEqual({
    ok: true,
    value: [
      { test: join!.id, unit: 'Ω', value: 0.0185, instrument: 'ohmmeter 3' },
      { test: volts.id, unit: 'mV', value: 20, instrument: null },
      { test: isolation.id, unit: 'MΩ', value: 2000, instrument: null },
      { test: seek, unit: 'Ω', value: 1_000_000, instrument: null },
    ],
  });
});

test('what cannot be a reading is named with its line', () => {
  const [one] = ringOut.tests.filter(({ unit }) => unit === 'Ω');
  expect(lines('measurement,value\nx,1')).toEqual([': expected a column test, got measurement, value']);
  expect(
    lines(`test,value,unit\nnowhere 1 nowhere 2,1,Ω\n${one!.id},much,Ω\n${one!.id},1,V\n${one!.id},-1,Ω\n__proto__ 1 toString 2,1,`),
  ).toEqual([
    'line 2, test: expected a measurement of this loom, got "nowhere 1 nowhere 2"',
    'line 3, value: expected a number or OL, got "much"',
    expect.stringMatching(/^line 4, unit: expected one of .*mΩ.*, got "V"$/),
    'line 5, value: expected a number or OL, got "-1"',
    'line 6, test: expected a measurement of this loom, got "__proto__ 1 toString 2"',
  ]);
});
