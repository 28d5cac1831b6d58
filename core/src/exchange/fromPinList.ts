import {
  CAPABILITIES,
  CAVITY_NAME,
  createPinNeed,
  createPinOffer,
  type Capability,
  type Checked,
  type DeviceTemplate,
  type Problem,
} from '../model';
import { describeCell, fromEscaped, readCell } from './cells';
import { NEED_FIELDS, OFFER_FIELDS, PIN_COLUMNS } from './pinColumns';
import type { CsvTable } from './readCsv';

/** pins of one plug; the largest there are stay well below */
const MOST_PINS = 400;
const MOST_PROBLEMS = 20;

/**
 * The pins of a kind of device from a list of its maker: a row a pin, `can` for what one gives, `kind` and `function` for what one needs. A
 * column that is left out, and an empty cell, say that it is not known. Every problem names its line and column.
 */
export function fromPinList({ columns, rows }: CsvTable): Checked<Pick<DeviceTemplate, 'pins' | 'offers'>> {
  const strange = columns.find((name) => !PIN_COLUMNS.includes(name));
  const refuse = (path: string, message: string): { ok: false; problems: Problem[] } => ({ ok: false, problems: [{ path, message }] });
  if (strange !== undefined) return refuse(`column ${strange}`, `expected one of ${PIN_COLUMNS.join(', ')}, got "${strange}"`);
  if (!columns.includes('pin')) return refuse('', `expected a column pin, got ${columns.join(', ')}`);
  if (rows.length > MOST_PINS) return refuse('', `expected at most ${MOST_PINS} pins, got ${rows.length}`);
  const problems: Problem[] = [];
  const made: Pick<DeviceTemplate, 'pins' | 'offers'> = { pins: {}, offers: {} };
  for (const { line, cells } of rows) {
    const cell = (name: string) => fromEscaped(cells[columns.indexOf(name)] ?? '');
    const pin = cell('pin');
    const say = (path: string, expected: string, got: string) =>
      problems.push({ path: path === '' ? `line ${line}` : `line ${line}, ${path}`, message: `expected ${expected}, got ${got}` });
    if (!CAVITY_NAME.test(pin)) say('pin', '1 to 6 letters or digits', JSON.stringify(pin));
    else if (Object.hasOwn(made.pins, pin) || Object.hasOwn(made.offers, pin)) say('pin', 'a pin of its own', `"${pin}" twice`);
    const isOffer = cell('can') !== '';
    if (isOffer === (cell('kind') !== '')) {
      say('', 'what it gives (can) or what it needs (kind)', isOffer ? 'both' : 'neither');
      continue;
    }
    const fields = readFields(isOffer ? OFFER_FIELDS : NEED_FIELDS, cell, say);
    if (isOffer) made.offers[pin] = { ...createPinOffer('', []), ...fields };
    else made.pins[pin] = { ...createPinNeed('', 'signal'), ...fields };
    if (problems.length >= MOST_PROBLEMS) break;
  }
  if (problems.length > 0) return { ok: false, problems: problems.slice(0, MOST_PROBLEMS) };
  return { ok: true, value: made };
}

function readFields(
  schemas: typeof NEED_FIELDS,
  cell: (name: string) => string,
  say: (path: string, expected: string, got: string) => void,
): Record<string, unknown> {
  return Object.fromEntries(
    Object.entries(schemas).flatMap(([key, schema]): [string, unknown][] => {
      const text = cell(key);
      if (key === 'can') {
        const can = text.split(/[\s,;/]+/).filter(Boolean) as Capability[];
        const unknown = can.find((one) => !CAPABILITIES.includes(one));
        if (unknown !== undefined) say(key, `words of ${CAPABILITIES.join(', ')}`, JSON.stringify(unknown));
        return [[key, can]];
      }
      const isName = key === 'function' || key === 'name';
      if (text === '' && !isName) return [];
      const read = isName && text === '' ? undefined : readCell(text, [schema]);
      if (read !== undefined) return [[key, read.value]];
      say(key, isName ? 'what it is called' : describeCell(schema), JSON.stringify(text.slice(0, 60)));
      return [];
    }),
  );
}
