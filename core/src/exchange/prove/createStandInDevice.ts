import { createStandInTester, isOpen, OPEN_MV, type Planted, type ProofTest, type RingOut } from '../../make';
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
      const test =
        byId.get(fromEscaped(cells[columns.indexOf('test')] ?? '')) ?? toUnlisted(fromEscaped(cells[columns.indexOf('test')] ?? ''));
      if (!test) return [];
      const value = measure(test);
      const isOver = test.unit === 'mV' ? value >= OPEN_MV : test.unit === 'Ω' && isOpen(value);
      return [[test.id, isOver ? 'OL' : Number(value.toPrecision(6)), test.unit, STAND_IN]];
    });
    return writeCsv(['test', 'value', 'unit', 'instrument'], readings);
  };
}

/** A measurement between two cavities that no table lists. */
function toUnlisted(id: string): ProofTest | null {
  const [fromEnd, from, toEnd, to, ...more] = id.split(' ');
  if (!fromEnd || !from || !toEnd || !to || more.length > 0) return null;
  return {
    ...{ id, kind: 'seek', netId: '', from: { endId: fromEnd, cavity: from }, to: { endId: toEnd, cavity: to }, wires: [] },
    ...{ unit: 'Ω', atA: null, expected: null, least: null, most: null },
  };
}
