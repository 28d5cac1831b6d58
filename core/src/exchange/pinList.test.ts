import ExcelJS from 'exceljs';
import { CATALOGUE, createDemoShop } from '../catalogue';
import { fromPinList, fromShopTable, readCsv, toPinListCsv, toShopTable } from './index';
import { readXlsx, writeXlsx } from './xlsx';
import { compareShops } from '../model';

const read = (text: string) => {
  const parsed = readCsv(text);
  if (!parsed.ok) throw new Error(parsed.problems[0]!.message);
  return fromPinList(parsed.value);
};
const lines = (text: string) => {
  const made = read(text);
  return made.ok ? [] : made.problems.map(({ path, message }) => (path === '' ? message : `${path}: ${message}`));
};

describe('pins of a kind of device from a list', () => {
  test.each(Object.keys(CATALOGUE.devices))('%s: written and read again its pins are as they were', (id) => {
    const { pins, offers } = CATALOGUE.devices[id]!;
    const made = read(toPinListCsv({ pins, offers }));
    expect(made).toEqual({ ok: true, value: { pins, offers } });
  });
  test('a controller as its maker lists it: what is not said is not known', () => {
    const made = read(
      'pin,name,can,limitA,pwmHz,kind,function,volts\nA1,injector 1,low-side ignition,"2,5",1000,,,\nA2,5 V,sensor-supply,,,,,5\nB1,,,,,supply,ignition feed,12\n',
    );
    if (!made.ok) throw new Error(made.problems[0]!.message);
    expect(made.value.offers).toMatchObject({
      A1: { name: 'injector 1', can: ['low-side', 'ignition'], limitA: 2.5, pwmHz: 1000, volts: null, group: null },
      A2: { can: ['sensor-supply'], volts: 5, limitA: null },
    });
    expect(made.value.pins).toMatchObject({ B1: { function: 'ignition feed', kind: 'supply', volts: 12, currentA: null, evidence: null } });
  });
  test.each([
    ['a column nobody knows', 'pin,colour\n1,red\n', /^column colour: expected one of pin, function, kind, .*got "colour"$/],
    ['no column of pins', 'name,can\nx,feed\n', /^expected a column pin, got name, can$/],
    ['a pin twice', 'pin,name,can\n1,a,feed\n1,b,feed\n', /^line 3, pin: expected a pin of its own, got "1" twice$/],
    ['a pin with a name of eight', 'pin,name,can\nABCDEFGH,a,feed\n', /^line 2, pin: expected 1 to 6 letters or digits, got "ABCDEFGH"$/],
    [
      'a pin that gives and needs',
      'pin,name,can,kind,function\n1,a,feed,supply,b\n',
      /^line 2: expected what it gives \(can\) or .*, got both$/,
    ],
    ['a pin that does neither', 'pin,name,can\n1,a,\n', /^line 2: expected what it gives \(can\) or what it needs \(kind\), got neither$/],
    ['a word nobody knows', 'pin,name,can\n1,a,feed fly\n', /^line 2, can: expected words of analogue, .*, got "fly"$/],
    ['a limit in words', 'pin,name,can,limitA\n1,a,feed,lots\n', /^line 2, limitA: expected a number or nothing, got "lots"$/],
    ['nothing that it is called', 'pin,name,can\n1,,feed\n', /^line 2, name: expected what it is called, got ""$/],
  ])('%s is refused where it stands', (_, text, words) => expect(lines(text)).toEqual([expect.stringMatching(words)]));
  test('more than 400 pins are no plug', () => {
    const rows = Array.from({ length: 401 }, (_, at) => `${at},a,feed`).join('\n');
    expect(lines(`pin,name,can\n${rows}\n`)).toEqual(['expected at most 400 pins, got 401']);
  });
});

describe('spreadsheets out', () => {
  const shop = createDemoShop();
  test.each(['contacts', 'families', 'coverings', 'devices'] as const)('%s as XLSX and read again: nothing differs', async (table) => {
    const { columns, rows } = toShopTable(shop, table);
    const back = await readXlsx(await writeXlsx(table, columns, rows));
    if (!back.ok) throw new Error(back.problems[0]!.message);
    const made = fromShopTable(shop, table, back.value);
    expect(made.ok && compareShops(shop, made.value)).toEqual([]);
  });
  test('numbers are numbers, the names of the columns stay in view, and what a formula could be is text', async () => {
    const book = new ExcelJS.Workbook();
    await book.xlsx.load(
      Buffer.from(
        await writeXlsx(
          'a/b',
          ['id', 'mm'],
          [
            ['=1+1', 2.5],
            ['07', ''],
          ],
        ),
      ) as unknown as ExcelJS.Buffer,
    );
    const sheet = book.worksheets[0]!;
    expect([
      sheet.name,
      sheet.getCell('A2').value,
      sheet.getCell('B2').value,
      sheet.getCell('A3').value,
      sheet.getCell('B3').value,
    ]).toEqual(['a b', '=1+1', 2.5, '07', null]);
    expect(sheet.getCell('A2').formula).toBeUndefined();
    expect(sheet.views[0]).toMatchObject({ state: 'frozen', ySplit: 1 });
  });
});
