import { existsSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { createDemoShop } from '../catalogue';
import { createCleanSkerry, createInlet, createSkerry } from '../demo';
import { readCsv, toJobFile } from '../exchange';
import { writeCsv } from '../exchange/toCsv';
import type { Job } from '../model';
import { createBench } from '../testing/createBench';
import { readXlsx } from '../exchange/xlsx';
import { runCli } from './runCli';

const folder = mkdtempSync(join(tmpdir(), 'wattograph-cli-'));
const file = (name: string, content: string) => {
  const path = join(folder, name);
  writeFileSync(path, content);
  return path;
};
async function call(...words: string[]) {
  let out = '';
  let error = '';
  const code = await runCli(words, {
    out: (text) => {
      out += text;
    },
    error: (text) => {
      error += text;
    },
  });
  return { code, out, error };
}
/** as the application exports it */
const jobFile = (name: string, job: Job) => file(name, JSON.stringify(toJobFile(job, createDemoShop())));
const skerry = jobFile('skerry.json', createInlet());
const bench = jobFile('bench.json', createBench());

test('plan prints the plan as JSON', async () => {
  const { code, out } = await call('plan', bench);
  expect(code).toBe(0);
  expect(JSON.parse(out)).toMatchObject({ looms: [{ loomId: 'bench', wires: expect.any(Array) }] });
});

test('check: exit code 1 where a stop is open, 0 where none is', async () => {
  const found = await call('check', skerry);
  expect(found.code).toBe(1);
  expect(found.out).toContain('stop CI1 charge pressure has no ground: cavity 2 is not connected. Fix: Join cavity 2 to sensor ground.');
  expect(await call('check', bench)).toEqual({ code: 0, out: 'no findings\n', error: '' });
});

test('sheets writes one sheet, or all of them, as DXF', async () => {
  const target = join(folder, 'ends.dxf');
  const { code, out } = await call('sheets', bench, '--dxf', target, '--sheet', 'Ends');
  expect([code, out]).toEqual([0, `${target}: 1 page\n`]);
  const ends = readFileSync(target, 'utf8');
  expect(ends).toContain('LWPOLYLINE');
  await call('sheets', bench, '--dxf', target);
  expect(readFileSync(target, 'utf8').length).toBeGreaterThan(2 * ends.length);
});
test('sheets writes a PDF', async () => {
  const target = join(folder, 'pack.pdf');
  const { code, out } = await call('sheets', bench, '--pdf', target, '--paper', 'Letter');
  expect(code).toBe(0);
  expect(out).toMatch(/pack\.pdf: \d+ pages/);
  expect(existsSync(target) && readFileSync(target).subarray(0, 5).toString()).toBe('%PDF-');
});

test('sheets writes the cards of one post, on A3 as well', async () => {
  const target = join(folder, 'crimp.pdf');
  const count = async (...words: string[]) =>
    Number(/: (\d+) pages?/.exec((await call('sheets', bench, '--pdf', target, ...words)).out)![1]);
  const all = await count();
  const [crew, ...others] = [
    await count('--post', 'crew'),
    await count('--post', 'wall'),
    await count('--post', 'pocket'),
    await count('--post', 'office'),
  ];
  expect(others.reduce((sum, one) => sum + one, crew!)).toBe(all);
  expect(await count('--post', 'crimp')).toBeLessThan(crew!);
  expect(await count('--paper', 'A3')).toBeLessThanOrEqual(all);
  const { code, error } = await call('sheets', bench, '--pdf', target, '--post', 'kitchen');
  expect([code, error]).toEqual([2, expect.stringContaining('--post: expected crew, kit, cut')]);
});

test('convert prints a list as CSV', async () => {
  const { code, out } = await call('convert', bench, '--csv', 'wires');
  expect(code).toBe(0);
  expect(out.split('\r\n')[0]).toBe('wire,circuit,from,from cavity,to,to cavity,colour,size,cut mm,rough mm,sigma mm,held');
});

test('convert writes the build as JSON and every list into one workbook', async () => {
  const { code, out } = await call('convert', bench, '--build');
  expect(code).toBe(0);
  expect(JSON.parse(out)).toMatchObject({ format: 'wattograph-build', formatVersion: 1, loom: { id: 'bench' }, revision: 'from file' });
  const target = join(folder, 'lists.xlsx');
  expect((await call('convert', bench, '--xlsx', target)).out).toMatch(/lists\.xlsx: \d+ lists/);
  const read = await readXlsx(readFileSync(target));
  expect(read.ok && read.value.columns.slice(0, 3)).toEqual(['wire', 'circuit', 'from']);
});

test('dress prints every run with what else would do, and every breakout and end with its pieces', async () => {
  const whole = jobFile('whole.json', createSkerry());
  const { code, out } = await call('dress', whole, '--loom', 'engine');
  const dress = JSON.parse(out) as {
    runs: { id: string; covering: string | null; options: { item: string | null; taken: boolean; whyNot: string }[] }[];
    breakouts: { pieces: { underMm: number; overMm: number }[] }[];
    ends: { end: string; pieces: { item: string; cutMm: number }[]; parking: { fits: boolean; needMm: number; roomMm: number } }[];
  };
  expect(code).toBe(0);
  for (const { covering, options } of dress.runs) {
    if (covering === null) continue;
    expect(options.filter(({ taken }) => taken).map(({ item }) => item)).toEqual([covering]);
    expect(options.every(({ taken, whyNot }) => taken === (whyNot === ''))).toBe(true);
  }
  expect(dress.ends.find(({ end }) => end === 'm-inlet-plug')!.pieces.map(({ item }) => item)).toEqual(['boot-28']);
  // each piece lies on what is over the one before it
  for (const { pieces } of dress.breakouts)
    pieces.slice(1).forEach(({ underMm }, at) => expect(underMm).toBeCloseTo(pieces[at]!.overMm, 2));
  for (const { parking } of dress.ends) expect(parking.fits).toBe(parking.needMm <= parking.roomMm);
  expect((await call('dress', whole, '--loom', 'nose')).error).toMatch(
    /--loom: expected one of chassis, engine, gearbox, inlet, got "nose"/,
  );
});

test('prove prints the measurements for a tester, and says of its readings what is wrong', async () => {
  const { code, out } = await call('prove', skerry, '--loom', 'inlet');
  expect(code).toBe(0);
  const [head, ...rows] = out.trimEnd().split('\r\n');
  expect(head).toBe('test,kind,from,from cavity,to,to cavity,net,wires,at A,at V,expected,least,most,unit,value');
  expect(rows.filter((row) => row.split(',')[1] === 'isolate')).toHaveLength(Object.keys(createInlet().looms.inlet!.circuits).length);
  // a loom of nothing but good readings, and one of which a wire is open
  const good = rows.map((row) => `${row}${row.split(',')[1] === 'isolate' ? 500 : 0}`);
  const sound = await call('prove', skerry, '--loom', 'inlet', '--readings', file('sound.csv', [head, ...good].join('\r\n')));
  expect(sound).toEqual({ code: 0, out: `${rows.length} measurements passed, 0 failed, 0 not made\n`, error: '' });
  const broken = good.map((row) => (row.includes('N-203') ? row.replace(/0$/, 'OL') : row));
  const asked = await call('prove', skerry, '--loom', 'inlet', '--readings', file('broken.csv', [head, ...broken].join('\r\n')));
  expect(asked.code).toBe(1);
  expect(asked.out).toContain('N-203 is open: injector 1 switch.');
  const some = await call('prove', skerry, '--loom', 'inlet', '--readings', file('some.csv', [head, ...good.slice(0, 5)].join('\r\n')));
  expect([some.code, some.out]).toEqual([3, `5 measurements passed, 0 failed, ${rows.length - 5} not made\n`]);
  const shipped = await call('prove', skerry, '--loom', 'inlet', '--stand-in', 'poor', '--seed', '4');
  const poor = await call('prove', skerry, '--loom', 'inlet', '--readings', file('poor.csv', shipped.out));
  expect([poor.code, poor.out]).toEqual([1, expect.stringMatching(/1 failed, 0 not made\n.*has a poor joint: 5\d\d mΩ where at most/)]);
  const none = await call('prove', skerry, '--loom', 'inlet', '--stand-in', 'screen');
  expect([none.code, none.error]).toEqual([2, '--stand-in: expected a fault that this loom has a place for, got "screen"\n']);
  const bad = await call('prove', skerry, '--loom', 'inlet', '--readings', file('bad.csv', 'test,value\nB1 99 inj1 2,1'));
  expect([bad.code, bad.error]).toEqual([2, expect.stringContaining('bad.csv line 2, test: expected a measurement of this loom')]);
});

test('prove --power prints the first power of the vehicle, and says of its readings where to look; --live what stays live', async () => {
  const whole = jobFile('power.json', createCleanSkerry());
  const { code, out } = await call('prove', whole, '--power');
  expect(code).toBe(0);
  const [head, ...rows] = out.trimEnd().split('\r\n');
  const columns = head!.split(',');
  const at = (name: string) => columns.indexOf(name);
  const table = readCsv(out);
  if (!table.ok) throw new Error('no table');
  const cells = table.value.rows.map((row) => row.cells);
  expect(new Set(cells.map((row) => row[at('part')])).size).toBe(14);
  const filled = (change: (row: string[]) => string) =>
    writeCsv(
      ['test', 'value'],
      cells.map((row) => [row[at('test')]!, change(row)]),
    );
  const good = (row: string[]) => (row[at('unit')] === '°C' ? '20' : row[at('part')] === 'bare' ? 'OL' : row[at('expected')] || '3');
  const sound = await call('prove', whole, '--power', '--readings', file('power.csv', filled(good)));
  expect(sound).toEqual({ code: 0, out: `${rows.length} readings passed, 0 failed, 0 not made\n`, error: '' });
  const dead = filled((row) => (row[at('what')]!.startsWith('red on module feed') ? '0.1' : good(row)));
  const broken = await call('prove', whole, '--power', '--readings', file('dead.csv', dead));
  expect([broken.code, broken.out]).toEqual([
    1,
    expect.stringMatching(/stop: red on module feed, black on battery negative: 0.1 V\n {2}Open on its way/),
  ]);
  const bad = await call('prove', whole, '--power', '--readings', file('bad.csv', 'test,value\nbare sky,2\nstart engine,maybe'));
  expect(bad.error).toContain('line 2, test: expected a reading of this vehicle’s first power');
  expect(bad.error).toContain('line 3, value: expected 1, 0, yes or no, got "maybe"');
  const live = await call('prove', whole, '--live');
  expect(live.out).toMatch(/isolator open,yes,main fuse to kill switch,live,main fuse,/);
  const none = await call('prove', bench, '--power');
  expect([none.code, none.error]).toEqual([2, 'expected a battery on a loom of this job: nothing is fed by it\n']);
});

test('layup prints the lay-up of a loom, the same for the same seed; every thread lies in one place of each section', async () => {
  const { code, out } = await call('layup', skerry, '--loom', 'inlet', '--seed', '4');
  expect(code).toBe(0);
  expect((await call('layup', skerry, '--loom', 'inlet', '--seed', '4')).out).toBe(out);
  const { seed, as, loom, strips } = JSON.parse(out) as {
    seed: number;
    as: string;
    loom: string;
    strips: {
      elements: { id: string; from: { mm: number }; to: { mm: number } }[];
      sections: {
        from: { mm: number };
        to: { mm: number };
        odMm: number;
        boundMm: number;
        layers: { elements: { id: string | null }[] }[];
      }[];
    }[];
  };
  expect([seed, as, loom]).toEqual([4, 'if all of it were twisted in layers', 'inlet']);
  for (const { elements, sections } of strips)
    for (const { from, to, odMm, boundMm, layers } of sections) {
      const here = elements.filter((one) => one.from.mm <= from.mm && to.mm <= one.to.mm).map(({ id }) => id);
      const laid = layers.flatMap((layer) => layer.elements.flatMap(({ id }) => (id === null ? [] : [id])));
      expect(laid.sort()).toEqual(here.sort());
      expect(odMm).toBeGreaterThanOrEqual(boundMm - 1e-3);
    }
});

describe('bad input ends with 2 and a located message, and writes nothing', () => {
  test.each<[string, string[], RegExp]>([
    ['no file', ['plan'], /expected a command and a file/],
    ['a command that is none', ['draw', bench], /expected plan, check, sheets, convert, layup, dress, board or prove, got "draw"/],
    ['a file that is not there', ['plan', join(folder, 'gone.json')], /gone\.json: expected a file that can be read/],
    [
      'cut-off JSON',
      ['plan', file('cut.json', JSON.stringify(createBench()).slice(0, 200))],
      /cut\.json line 1, column 201: expected more JSON/,
    ],
    [
      'a wrong type',
      ['plan', file('type.json', JSON.stringify(toJobFile(createBench(), createDemoShop())).replace('"lengthMm":300', '"lengthMm":"300"'))],
      /type\.json \/looms\/bench\/segments\/s1\/lengthMm: expected number, got "300"/,
    ],
    ['a wrong loom', ['convert', bench, '--csv', 'cuts', '--loom', 'x'], /--loom: expected one of bench, got "x"/],
    ['a list that is none', ['convert', bench, '--csv', 'xyz'], /--csv: expected wires, cuts, parts, labels or pins, got "xyz"/],
    ['no name for the board', ['board', bench], /--svg: expected the name of the file to write, or --dxf, --pdf with one, or --json/],
    [
      'a board of no size',
      ['board', bench, '--json', '--size', '2400'],
      /--size: expected width and height in mm as in 2400x1200, got "2400"/,
    ],
    ['no name for the PDF', ['sheets', bench], /--pdf: expected the name of the file to write, or --dxf with one/],
    ['a sheet that is none', ['sheets', bench, '--dxf', 'x.dxf', '--sheet', 'Nothing'], /--sheet: expected one of .*Ends.*, got "Nothing"/],
    ['a flag that is none', ['plan', bench, '--fast'], /Unknown option '--fast'/],
    ['a 50 MB file', ['plan', file('big.json', ' '.repeat(50 * 1024 * 1024))], /big\.json: expected at most 8 MB, got 50 MB/],
  ])('%s', async (_, words, expected) => {
    const { code, out, error } = await call(...words);
    expect(code).toBe(2);
    expect(out).toBe('');
    expect(error).toMatch(expected);
  });
});

describe('--shop: the shop’s own parts', () => {
  const write = (name: string, change: (shop: ReturnType<typeof createDemoShop>) => void) => {
    const shop = createDemoShop();
    change(shop);
    return file(name, JSON.stringify(shop));
  };

  test('a plan is made of the parts and standards of the shop given', async () => {
    const shop = write('coarse.json', ({ standards }) => {
      for (const one of Object.values(standards)) one.cutIncrementMm = 100;
    });
    const lengths = async (...words: string[]) =>
      (JSON.parse((await call('plan', bench, ...words)).out) as { looms: { wires: { cutMm: number }[] }[] }).looms[0]!.wires.map(
        ({ cutMm }) => cutMm,
      );
    expect((await lengths('--shop', shop)).every((cutMm) => cutMm % 100 === 0)).toBe(true);
    expect((await lengths()).some((cutMm) => cutMm % 100 !== 0)).toBe(true);
  });

  test('a shop that is none, and one that lacks what the job uses, are named with the place', async () => {
    const broken = write('broken.json', ({ contacts }) => {
      contacts[0]!.maxAreaMm2 = 0.01;
    });
    const first = await call('plan', bench, '--shop', broken);
    expect([first.code, first.error]).toEqual([
      2,
      expect.stringMatching(/broken\.json \/contacts\/0\/maxAreaMm2: expected at least the least area/),
    ]);
    const bare = write('bare.json', (shop) => {
      shop.families = {};
      shop.devices = {};
      shop.buying = {};
    });
    const second = await call('plan', bench, '--shop', bare);
    expect([second.code, second.error]).toEqual([2, expect.stringContaining('bench.json /looms/bench/ends/')]);
    expect((await call('plan', bench, '--shop', bench)).error).toContain('/format: expected "wattograph-shop", got "wattograph-job"');
  });
});

test('a job that carries no shop is planned with none that nobody named: the one that ships has to be asked for', async () => {
  const bare = file('bare-job.json', JSON.stringify(createBench()));
  expect(await call('plan', bare)).toEqual({
    code: 2,
    out: '',
    error: expect.stringContaining('bare-job.json /shop: expected the shop that it is planned with'),
  });
  expect(await call('plan', bare, '--shop', 'demo')).toEqual(await call('plan', bench));
});

test('a job file that carries its shop is planned with that; --shop goes before it, and a broken one is told with its place', async () => {
  const shop = createDemoShop();
  const standards = { larkhollow: { ...shop.standards.larkhollow!, cutIncrementMm: 100 } };
  const lengths = async (...words: string[]) => {
    const { out } = await call('plan', ...words);
    return (JSON.parse(out) as { looms: { wires: { cutMm: number }[] }[] }).looms[0]!.wires.map(({ cutMm }) => cutMm);
  };
  const carrying = file('carrying.json', JSON.stringify(toJobFile(createBench(), { ...shop, standards })));
  expect((await lengths(carrying)).every((cutMm) => cutMm % 100 === 0)).toBe(true);
  expect(await lengths(carrying, '--shop', file('own-shop.json', JSON.stringify(shop)))).toEqual(await lengths(bench));
  const broken = file('broken-carried.json', JSON.stringify({ ...createBench(), shop: { ...shop, people: [] } }));
  expect(await call('plan', broken)).toMatchObject({
    code: 2,
    error: expect.stringContaining('/shop/people: must NOT have fewer than 1 items'),
  });
});
