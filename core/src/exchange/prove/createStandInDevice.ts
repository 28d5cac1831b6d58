import { createStandInTester, isOpenReading, toUnlisted, type Planted, type RingOut } from '../../make';
import { fromEscaped } from '../cells';
import { readCsv } from '../readCsv';
import { writeCsv } from '../toCsv';

/** The device answers a list of measurements with a list of readings; what it does not know it leaves out. */
export type TesterDevice = (listCsv: string) => string;

/** name under which its readings are kept: nobody takes them for those of a loom of copper */
export const STAND_IN = 'stand-in tester (not a real loom)';

/**
 * The harness tester that ships: a loom with faults in it, behind the two files that a real tester would be driven by. It knows nothing of the
 * page that asks it.
 */
export function createStandInDevice(ringOut: RingOut, planted: readonly Planted[], seed: number): TesterDevice {
  const measure = createStandInTester(ringOut, planted, seed);
  const byId = new Map(ringOut.tests.map((test) => [test.id, test]));
  return (listCsv) => {
    const table = readCsv(listCsv);
    if (!table.ok) throw new Error(`tester: ${table.problems[0]!.path} ${table.problems[0]!.message}`);
    const { columns, rows } = table.value;
    const readings = rows.flatMap(({ cells }): [string, string | number, string, string][] => {
      const id = fromEscaped(cells[columns.indexOf('test')] ?? '');
      const test = byId.get(id) ?? toUnlisted(id);
      if (!test) return [];
      const value = measure(test);
      return [[test.id, isOpenReading(test, value) ? 'OL' : Number(value.toPrecision(6)), test.unit, STAND_IN]];
    });
    return writeCsv(['test', 'value', 'unit', 'instrument'], readings);
  };
}
