import { readFileSync } from 'node:fs';
import { join as joinPath } from 'node:path';
import Papa from 'papaparse';
import { CATALOGUE, createLookup } from '../catalogue';
import { createInlet } from '../demo';
import { createBuild } from '../make';
import { checkJob, createJob, type Loom } from '../model';
import { plan } from '../plan';
import { fromJsonText, fromWireList, readCsv, toCutListCsv, toMapping, toWireListCsv, type WireListMapping } from './index';

const MAPPING: WireListMapping = {
  fromEnd: 'from',
  fromCavity: 'from pin',
  toEnd: 'to',
  toCavity: 'to pin',
  circuit: 'circuit',
  colour: 'colour',
  size: 'size',
};
const HEAD = 'from,from pin,to,to pin,circuit,colour,size';
const job = createJob('x', 'y');

function convert(text: string, joinShared = false) {
  const table = readCsv(text);
  if (!table.ok) return table;
  return fromWireList(job, table.value, MAPPING, { name: 'imported', prefix: 'I', joinShared, families: {} }, CATALOGUE);
}
const problemsOf = (text: string, joinShared = false) => {
  const made = convert(text, joinShared);
  return made.ok ? [] : made.problems.map(({ path, message }) => `${path}: ${message}`);
};

describe('readCsv', () => {
  test.each([
    ['commas', 'a,b\n1,2\n', ','],
    ['semicolons', 'a;b\n1;2\n', ';'],
    ['tabs', 'a\tb\n1\t2\n', '\t'],
    ['a byte-order mark', '\ufeffa,b\n1,2', ','],
    ['Windows line ends', 'a,b\r\n1,2\r\n', ','],
  ])('reads %s', (_, text, delimiter) => {
    expect(readCsv(text)).toEqual({ ok: true, value: { columns: ['a', 'b'], rows: [{ line: 2, cells: ['1', '2'] }], delimiter } });
  });
  test('quotes keep delimiters, quotes and line breaks; lines are counted as an editor shows them', () => {
    const table = readCsv('a,b\n"x, ""y""\nz",2\n3,4\n');
    expect(table).toMatchObject({
      ok: true,
      value: {
        rows: [
          { line: 2, cells: ['x, "y"\nz', '2'] },
          { line: 4, cells: ['3', '4'] },
        ],
      },
    });
  });
  test.each([
    ['an empty file', '', 'line 1: expected a line with the names of the columns, got an empty file'],
    ['a name twice', 'a,b,a\n1,2,3', 'line 1, column 3: expected a column name of its own, got "a" twice'],
    ['a name missing', 'a,,c\n1,2,3', 'line 1, column 2: expected a name for this column, got nothing'],
    ['a short row', 'a,b,c\n1,2,3\n4,5\n', 'line 3: expected 3 fields as in the first line, got 2'],
    ['no rows', 'a,b\n', 'line 2: expected at least one row under the column names, got none'],
    [
      'an open quote',
      'a,b\n"1,2\n',
      'line 2: expected a closing quote, got the end of the field: a quote is left open or stands in the middle',
    ],
  ])('%s is refused with its place', (_, text, expected) => {
    const table = readCsv(text);
    expect(table.ok ? [] : table.problems.map(({ path, message }) => `${path}: ${message}`)).toContain(expected);
  });
  test('more than 8 MB is refused', () =>
    expect(readCsv('a,b\n' + '1,2\n'.repeat(2_200_000))).toMatchObject({
      ok: false,
      problems: [{ message: 'expected at most 8 MB, got 8 MB' }],
    }));
});

describe('fromWireList', () => {
  test('the end with most wires is the anchor, legs are guessed, the loom passes the gate', () => {
    const made = convert(`${HEAD}\nECU,1,lamp,1,lamp feed,red,22\nECU,2,lamp,2,lamp return,black,\nECU,3,pump,1,pump,blue/white,AWG 20\n`);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const loom: Loom = made.value;
    expect(Object.values(loom.ends).find(({ nodeId }) => nodeId === 'datum')!.name).toBe('ECU');
    expect(Object.values(loom.segments).every(({ status }) => status === 'guessed')).toBe(true);
    expect(Object.values(loom.circuits).map(({ name, sizePin }) => [name, sizePin?.size ?? null])).toEqual([
      ['lamp feed', '22'],
      ['lamp return', null],
      ['pump', '20'],
    ]);
    const whole = { ...job, looms: { i: loom } };
    expect(checkJob(whole, createLookup(CATALOGUE))).toMatchObject({ ok: true });
    expect(plan(whole, CATALOGUE).looms[0]!.wires.every(({ heldBy }) => heldBy.length > 0)).toBe(true);
  });
  test('rows that meet in a cavity are refused with both lines, or joined where asked', () => {
    const text = `${HEAD}\nECU,1,inj1,1,feed,red,22\nECU,1,inj2,1,feed,red,22\nECU,1,inj3,1,feed,red,22\n`;
    expect(problemsOf(text)[0]).toBe(
      'line 3: expected one wire in a cavity, got a second in ECU 1 (first in line 2); tick "join rows that share a cavity" to splice them',
    );
    const made = convert(text, true);
    expect(made).toMatchObject({ ok: true, value: { circuits: { c1: { terminations: [{ cavity: '1' }, {}, {}, {}] } } } });
  });
  test.each([
    [
      'a colour',
      `${HEAD}\nECU,1,lamp,1,x,mauve,22`,
      /^line 2, colour: expected colours such as "red" or "red\/black" of black, .* got "mauve"$/,
    ],
    ['a size', `${HEAD}\nECU,1,lamp,1,x,red,23`, /^line 2, size: expected one of AWG 26, .* got "23"$/],
    ['a cavity', `${HEAD}\nECU,1,lamp,,x,red,22`, /^line 2, to pin: expected a cavity of 1 to 6 letters or digits, got ""$/],
    ['an end', `${HEAD}\n,1,lamp,1,x,red,22`, /^line 2, from: expected the name of an end, got nothing$/],
    [
      'a cavity no housing has',
      `${HEAD}\nECU,900,lamp,1,x,red,22`,
      /^line 2: expected a cavity that a housing of the catalogue has, got ECU cavity 900$/,
    ],
  ])('%s that cannot be is named with its line', (_, text, expected) => expect(problemsOf(text)[0]).toMatch(expected));
  test('columns are guessed by their names', () => {
    expect(toMapping(['Signal', 'From', 'From pin', 'To', 'To pin', 'Color', 'AWG'])).toEqual({
      circuit: 'Signal',
      fromEnd: 'From',
      fromCavity: 'From pin',
      toEnd: 'To',
      toCavity: 'To pin',
      colour: 'Color',
      size: 'AWG',
    });
  });
});

describe('CSV out', () => {
  const skerry = createInlet();
  const loom = plan(skerry, CATALOGUE).looms[0]!;
  test('the wire list reads back with every wire and its length', () => {
    const rows = Papa.parse<Record<string, string>>(toWireListCsv(skerry, loom), { header: true, skipEmptyLines: true }).data;
    expect(rows.map((row) => [row.wire, Number(row['cut mm'])])).toEqual(loom.wires.map(({ number, cutMm }) => [number, cutMm]));
    expect(rows.find((row) => row.wire === 'N-222')!.held).toBe('yes');
  });
  test('the cut list too', () => {
    const rows = Papa.parse<Record<string, string>>(toCutListCsv(createBuild(skerry, loom, CATALOGUE)), {
      header: true,
      skipEmptyLines: true,
    }).data;
    expect(rows).toHaveLength(loom.wires.length);
  });
  test('a name that a spreadsheet would run is made text', () => {
    const sly = {
      ...skerry,
      looms: {
        inlet: {
          ...skerry.looms.inlet!,
          circuits: { ...skerry.looms.inlet!.circuits, c203: { ...skerry.looms.inlet!.circuits.c203!, name: '=1+1' } },
        },
      },
    };
    expect(toWireListCsv(sly, plan(sly, CATALOGUE).looms[0]!)).toContain("'=1+1");
  });
});

describe('fromJsonText', () => {
  test.each([
    ['', 'line 1', 'expected JSON, got an empty file'],
    ['{"a": 1,\n "b": ', 'line 2, column 7', 'expected more JSON, got the end of the file: it is cut short'],
    ['{"a": 1,\n  b: 2}', 'line 2, column 3', 'expected JSON, got "b: 2}"'],
  ])('%j', (text, path, message) => expect(fromJsonText(text)).toEqual({ ok: false, problems: [{ path, message }] }));
  test('a byte-order mark is passed over', () => expect(fromJsonText('\ufeff{"a":1}')).toEqual({ ok: true, value: { a: 1 } }));
});

test('the job in docs/format.md passes the gate and plans', () => {
  const page = readFileSync(joinPath(__dirname, '../../../docs/format.md'), 'utf8');
  const example: unknown = JSON.parse(/```json\n([\s\S]*?)```/.exec(page)![1]!);
  const checked = checkJob(example, createLookup(CATALOGUE));
  if (!checked.ok) throw new Error(checked.problems.map(({ path, message }) => `${path}: ${message}`).join('\n'));
  expect(plan(checked.value, CATALOGUE).looms[0]!.wires).toHaveLength(2);
});
