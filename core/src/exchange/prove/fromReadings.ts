import { OPEN_MV, OPEN_OHM, type ProofTest, type ProofUnit, type RingOut } from '../../make';
import type { Checked, Problem } from '../../model';
import { fromEscaped } from '../cells';
import type { CsvTable } from '../readCsv';

/** A reading as it comes from a tester, in the unit of its test. */
export interface TesterReading {
  test: string;
  unit: ProofUnit;
  value: number;
  /** what it was read with, where the file says so */
  instrument: string | null;
}

const MOST_PROBLEMS = 20;
const MOST_READINGS = 20_000;
/** more is beyond what any meter shows */
const MOST_VALUE = 1_000_000;
const OPEN = /^(ol|o\.l\.?|open|inf|infinity|∞|overload|>.*)$/i;
/** how a unit may be written, and what one of it is in the unit of the test */
const UNITS: Readonly<Record<ProofUnit, Readonly<Record<string, number>>>> = {
  Ω: { Ω: 1, '\u2126': 1, ohm: 1, mΩ: 1e-3, mohm: 1e-3, kΩ: 1e3, kohm: 1e3, MΩ: 1e6 },
  mV: { mV: 1, V: 1e3, µV: 1e-3, uV: 1e-3 },
  MΩ: { MΩ: 1, Mohm: 1, GΩ: 1e3, kΩ: 1e-3, Ω: 1e-6 },
};

/**
 * Readings of a tester: a row a measurement with `test`, as in the list that was written for it, and `value`; `unit` where it is another one;
 * `OL` and the like for an open circuit; `instrument` where the file says what it was read with. Rows without a value are not measured yet. Other columns are let be. Every problem names its line.
 */
export function fromReadings(ringOut: RingOut, { columns, rows }: CsvTable): Checked<TesterReading[]> {
  const refuse = (path: string, message: string): { ok: false; problems: Problem[] } => ({ ok: false, problems: [{ path, message }] });
  for (const name of ['test', 'value'])
    if (!columns.includes(name)) return refuse('', `expected a column ${name}, got ${columns.join(', ')}`);
  if (rows.length > MOST_READINGS) return refuse('', `expected at most ${MOST_READINGS} readings, got ${rows.length}`);
  const known = new Map<string, ProofTest>(ringOut.tests.map((test) => [test.id, test]));
  const probes = new Set(ringOut.ends.flatMap(({ id, cavities }) => cavities.map((cavity) => `${id} ${cavity}`)));
  const problems: Problem[] = [];
  const readings: TesterReading[] = [];
  for (const { line, cells } of rows) {
    if (problems.length >= MOST_PROBLEMS) break;
    const cell = (name: string) => fromEscaped(cells[columns.indexOf(name)] ?? '');
    const say = (path: string, expected: string, got: string) =>
      problems.push({ path: `line ${line}, ${path}`, message: `expected ${expected}, got ${JSON.stringify(got)}` });
    const [test, text] = [cell('test'), cell('value')];
    if (text === '') continue;
    const words = test.split(' ');
    const isPair = words.length === 4 && probes.has(`${words[0]} ${words[1]}`) && probes.has(`${words[2]} ${words[3]}`);
    if (!known.has(test) && !isPair) {
      say('test', 'a measurement of this loom', test);
      continue;
    }
    const unit = known.get(test)?.unit ?? 'Ω';
    const value = toValue(text, columns.includes('unit') ? cell('unit') : '', unit);
    if (value === 'unit') say('unit', `one of ${Object.keys(UNITS[unit]).join(', ')}`, cell('unit'));
    else if (value === 'value') say('value', 'a number or OL', text);
    else readings.push({ test, unit, value, instrument: toInstrument(columns.includes('instrument') ? cell('instrument') : '') });
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: readings };
}

/** longer names are cut: they are only shown */
const MOST_NAME = 80;
const toInstrument = (text: string): string | null => text.trim().slice(0, MOST_NAME).trim() || null;

function toValue(text: string, written: string, unit: ProofUnit): number | 'unit' | 'value' {
  const factors = UNITS[unit];
  if (written !== '' && !Object.hasOwn(factors, written)) return 'unit';
  if (OPEN.test(text)) return unit === 'mV' ? OPEN_MV : OPEN_OHM;
  const value = Number(text.replace(',', '.')) * (written === '' ? 1 : factors[written]!);
  if (!Number.isFinite(value) || value < 0) return 'value';
  return Math.min(value, MOST_VALUE);
}
