import { toWokenId, type FirstPower, type PowerUnit } from '../../make';
import type { Checked, Problem } from '../../model';
import { fromEscaped } from '../cells';
import type { CsvTable } from '../readCsv';

/** A reading of first power, in the unit of its test. */
export interface PowerReading {
  test: string;
  unit: PowerUnit;
  value: number;
  instrument: string | null;
}

const MOST_PROBLEMS = 20;
const MOST_READINGS = 20_000;
const MOST_VALUE = 1_000_000;
const MOST_NAME = 80;
const OPEN = /^(ol|o\.l\.?|open|inf|infinity|∞|overload)$/i;
/** how a unit may be written, and what one of it is in the unit of the test */
const UNITS: Readonly<Record<PowerUnit, Readonly<Record<string, number>>>> = {
  V: { V: 1, mV: 1e-3 },
  A: { A: 1, mA: 1e-3 },
  Ω: { Ω: 1, '\u2126': 1, ohm: 1, kΩ: 1e3, kohm: 1e3, MΩ: 1e6, mΩ: 1e-3 },
  mΩ: { mΩ: 1, mohm: 1, Ω: 1e3, ohm: 1e3 },
  '°C': { '°C': 1, C: 1 },
  look: { look: 1 },
};
const LOOKS: Readonly<Record<string, number>> = { '1': 1, yes: 1, '0': 0, no: 0 };

/**
 * Readings of first power: a row with `test`, as in the sheet that was written for it, and `value`; `unit` where it is another one, `OL` for an
 * open circuit, 1 or yes and 0 or no for what is looked at; `woke TEST DEVICE` for a device that woke with a feed and should not. Rows without a
 * value are not read yet. Every problem names its line.
 */
export function fromPowerReadings({ tests, devices }: FirstPower, { columns, rows }: CsvTable): Checked<PowerReading[]> {
  const refuse = (path: string, message: string): { ok: false; problems: Problem[] } => ({ ok: false, problems: [{ path, message }] });
  for (const name of ['test', 'value'])
    if (!columns.includes(name)) return refuse('', `expected a column ${name}, got ${columns.join(', ')}`);
  if (rows.length > MOST_READINGS) return refuse('', `expected at most ${MOST_READINGS} readings, got ${rows.length}`);
  const units = new Map<string, PowerUnit>(tests.map(({ id, unit }) => [id, unit]));
  for (const test of tests) if (test.part === 'feeds') for (const id of Object.keys(devices)) units.set(toWokenId(test, id), 'look');
  const problems: Problem[] = [];
  const readings: PowerReading[] = [];
  for (const { line, cells } of rows) {
    if (problems.length >= MOST_PROBLEMS) break;
    const cell = (name: string) => (columns.includes(name) ? fromEscaped(cells[columns.indexOf(name)] ?? '') : '');
    const say = (path: string, expected: string, got: string) =>
      problems.push({ path: `line ${line}, ${path}`, message: `expected ${expected}, got ${JSON.stringify(got)}` });
    const [test, text, written] = [cell('test'), cell('value').trim(), cell('unit').trim()];
    if (text === '') continue;
    const unit = units.get(test);
    if (unit === undefined) say('test', 'a reading of this vehicle’s first power', test);
    else if (written !== '' && !Object.hasOwn(UNITS[unit], written)) say('unit', `one of ${Object.keys(UNITS[unit]).join(', ')}`, written);
    else {
      const value = toValue(text, unit, written);
      if (value === null) say('value', unit === 'look' ? '1, 0, yes or no' : 'a number', text);
      else readings.push({ test, unit, value, instrument: cell('instrument').trim().slice(0, MOST_NAME) || null });
    }
  }
  return problems.length > 0 ? { ok: false, problems } : { ok: true, value: readings };
}

function toValue(text: string, unit: PowerUnit, written: string): number | null {
  if (unit === 'look') return Object.hasOwn(LOOKS, text.toLowerCase()) ? LOOKS[text.toLowerCase()]! : null;
  if ((unit === 'Ω' || unit === 'mΩ') && OPEN.test(text)) return MOST_VALUE;
  const value = Number(text.replace(',', '.')) * (written === '' ? 1 : UNITS[unit][written]!);
  return Number.isFinite(value) && Math.abs(value) <= MOST_VALUE ? value : null;
}
