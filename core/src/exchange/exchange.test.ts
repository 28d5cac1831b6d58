import { readFileSync } from 'node:fs';
import Papa from 'papaparse';
import { createDemoStart, CATALOGUE, createLookup, type Catalogue } from '../catalogue';
import { createInlet } from '../demo';
import { createBuild, listFindings } from '../make';
import { applyEdit, checkJob, createJob, type Job, type Loom } from '../model';
import { plan } from '../plan';
import { fromJsonText, fromWireList, listListedEnds, readCsv, toCutListCsv, toMapping, toWireListCsv, type WireListMapping } from './index';

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
const job = createJob('x', 'y', 'larkhollow', createDemoStart());

function convert(text: string, joinShared = false, wireTable = 'etfe') {
  const table = readCsv(text);
  if (!table.ok) return table;
  return fromWireList(job, table.value, MAPPING, { name: 'imported', prefix: 'I', joinShared, families: {}, wireTable }, CATALOGUE);
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
  ])('%s that cannot be is named with its line', (_, text, expected) => expect(problemsOf(text)[0]).toMatch(expected));
  const RELAY = `${HEAD}\nECU,1,relay,85,coil,red,\nECU,2,relay,86,coil return,black,\nECU,A,relay,30,feed,blue,\nECU,J,relay,87,load,blue/white,\n`;
  test('ends whose housing nobody chose keep their cavities, and a finding leads to the housings that have them', () => {
    const made = convert(RELAY);
    if (!made.ok) throw new Error(made.problems[0]!.message);
    const whole: Job = { ...job, looms: { i: made.value } };
    expect(checkJob(whole, createLookup(CATALOGUE))).toMatchObject({ ok: true });
    const relay = Object.keys(made.value.ends).find((id) => made.value.ends[id]!.name === 'relay')!;
    expect(made.value.ends[relay]).toMatchObject({ kind: 'connector', familyId: null });
    const planned = plan(whole, CATALOGUE);
    const open = listFindings(whole, planned, CATALOGUE, null).filter(({ code }) => code === 'EN6');
    expect(open.map(({ measured }) => measured).sort()).toEqual([4, 4]);
    const ofRelay = open.find(({ places }) => places[0]!.id === relay)!;
    expect(ofRelay.sentence).toContain('relay has no housing yet (cavities 30, 85, 86, 87)');
    expect(ofRelay).toMatchObject({ grade: 'stop', fix: null });
    // nothing is made up for it: no contact, no depth, and the why of the length says so
    const wire = planned.looms[0]!.wires[0]!;
    expect(wire.addends.filter(({ kind }) => kind === 'entry').map(({ mm, words }) => [mm, /still to be chosen/.test(words)])).toEqual([
      [0, true],
      [0, true],
    ]);
    // a shop that has the socket offers it; taking it settles the finding and the wires stay where they are
    const families = {
      ...CATALOGUE.families,
      base: { ...CATALOGUE.families['pellow-4']!, name: 'Pellow relay base', cavityNames: ['30', '85', '86', '87'], keys: [] },
    };
    const shop: Catalogue = { ...CATALOGUE, families };
    const find = (now: Job) =>
      listFindings(now, plan(now, shop), shop, null).filter(({ code, places }) => code === 'EN6' && places[0]!.id === relay);
    const [offered] = find(whole);
    expect(offered!.fix!.label).toBe('Take a Pellow relay base');
    const taken = applyEdit(whole, offered!.fix!.patch);
    if (!taken.ok) throw new Error(taken.problems[0]!.message);
    expect(checkJob(taken.value, createLookup(shop))).toMatchObject({ ok: true });
    expect(find(taken.value)).toEqual([]);
    expect(taken.value.looms.i!.circuits).toEqual(made.value.circuits);
  });
  test('a housing that is chosen has to have the cavities', () => {
    const table = readCsv(RELAY);
    if (!table.ok) throw new Error('expected a table');
    const options = { name: 'imported', prefix: 'I', joinShared: false, wireTable: 'etfe' };
    const lines = (families: Record<string, string>) => {
      const made = fromWireList(job, table.value, MAPPING, { ...options, families }, CATALOGUE);
      return made.ok ? [] : made.problems.map(({ path, message }) => `${path}: ${message}`);
    };
    expect(lines({ relay: 'pellow-4' })).toEqual(['line 4: expected a cavity of Pellow 4 (1 to 4), got relay cavity 30']);
    expect(lines({ relay: 'none-such' })).toEqual(['relay: expected a family of the shop, got "none-such"']);
    expect(listListedEnds(table.value, MAPPING)).toEqual([
      { name: 'ECU', cavities: ['1', '2', 'A', 'J'] },
      { name: 'relay', cavities: ['30', '85', '86', '87'] },
    ]);
  });
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
  const page = readFileSync(new URL('../../../docs/format.md', import.meta.url), 'utf8');
  const example: unknown = JSON.parse(/```json\n([\s\S]*?)```/.exec(page)![1]!);
  const checked = checkJob(example, createLookup(CATALOGUE));
  if (!checked.ok) throw new Error(checked.problems.map(({ path, message }) => `${path}: ${message}`).join('\n'));
  expect(plan(checked.value, CATALOGUE).looms[0]!.wires).toHaveLength(2);
});
