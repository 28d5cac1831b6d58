import ExcelJS from 'exceljs';
import { fromDonorList, toDonorMapping, type DonorMapping } from './fromDonorList';
import { readCsv } from './readCsv';
import { readXlsx } from './readXlsx';

const read = (text: string, mapping: Partial<DonorMapping> = {}) => {
  const table = readCsv(text);
  if (!table.ok) throw new Error('the table is broken');
  return fromDonorList('old', table.value, { from: '', to: '', ...toDonorMapping(table.value.columns), ...mapping });
};

describe('donor pinout', () => {
  test('columns are met by their names', () => {
    expect(toDonorMapping(['Wire no', 'From', 'From pin', 'To', 'To pin', 'Function', 'Colour', 'mm²', 'Length mm'])).toEqual({
      number: 'Wire no',
      from: 'From',
      fromPin: 'From pin',
      to: 'To',
      toPin: 'To pin',
      functions: 'Function',
      colour: 'Colour',
      size: 'mm²',
      lengthMm: 'Length mm',
    });
    expect(toDonorMapping(['a', 'b'])).toEqual({});
  });
  test('a row becomes a wire with nothing decided; several functions are parted', () => {
    const donor = read('wire,from,from pin,to,function,length\n7,lamp,2,box,"dip; park | plate",1 200\n'.replace('1 200', '1200 mm'));
    expect(donor).toEqual({
      ok: true,
      value: {
        name: 'old',
        wires: {
          w1: {
            number: '7',
            from: 'lamp',
            fromPin: '2',
            to: 'box',
            toPin: '',
            functions: ['dip', 'park', 'plate'],
            colour: '',
            size: '',
            lengthMm: 1200,
            decision: null,
            newLengthMm: null,
            newName: '',
            note: '',
          },
        },
      },
    });
  });
  test('a length with a decimal comma is read, an empty one is not known', () => {
    const donor = read('from;to;length\na;b;12,5\nc;d;\n');
    expect(donor.ok && Object.values(donor.value.wires).map(({ lengthMm }) => lengthMm)).toEqual([12.5, null]);
  });
  test.each([
    ['from,to,length\na,b,0\n', 'line 2, length', 'expected a length above 0 and at most 20000 mm, got "0"'],
    ['from,to,length\na,b,long\n', 'line 2, length', 'expected a length above 0 and at most 20000 mm, got "long"'],
    ['from,to,length\na,,10\n', 'line 2, to', 'expected the name of a device or plug, got nothing'],
  ])('%j is refused with its line', (text, path, message) => expect(read(text)).toEqual({ ok: false, problems: [{ path, message }] }));
});

describe('spreadsheet', () => {
  const book = async (fill: (sheet: ExcelJS.Worksheet) => void, head: unknown[] = ['from', 'to', 'mm']) => {
    const made = new ExcelJS.Workbook();
    const sheet = made.addWorksheet('pins');
    if (head.length) sheet.addRow(head);
    fill(sheet);
    return new Uint8Array(await made.xlsx.writeBuffer());
  };
  const problems = async (bytes: Uint8Array) => {
    const table = await readXlsx(bytes);
    return table.ok ? [] : table.problems.map(({ path, message }) => `${path}: ${message}`);
  };
  test('words, numbers, formulas with a result and rich text are read with their line', async () => {
    const table = await readXlsx(
      await book((sheet) => {
        sheet.addRow(['lamp', 'box', 700]);
        sheet.addRow([]);
        sheet.addRow([{ richText: [{ text: 'brake ' }, { text: 'lamp' }] }, 'box', { formula: 'A1', result: 5 }]);
      }),
    );
    expect(table).toEqual({
      ok: true,
      value: {
        columns: ['from', 'to', 'mm'],
        delimiter: 'xlsx',
        rows: [
          { line: 2, cells: ['lamp', 'box', '700'] },
          { line: 4, cells: ['brake lamp', 'box', '5'] },
        ],
      },
    });
  });
  test('merged cells are named', async () => {
    expect(
      await problems(
        await book((sheet) => {
          sheet.addRow(['a', 'b', 1]);
          sheet.addRow(['a', 'b', 1]);
          sheet.mergeCells('A2:A3');
        }),
      ),
    ).toEqual(['pins!A2:A3: expected single cells, got merged ones: unmerge them and repeat what they say in each row']);
  });
  test.each<[string, (sheet: ExcelJS.Worksheet) => void, unknown[], string]>([
    [
      'a formula without a result',
      (sheet) => sheet.addRow(['a', { formula: 'B9' }, 1]),
      ['from', 'to', 'mm'],
      'pins!B2: expected words or a number, got a formula without a result, an error or a date',
    ],
    [
      'a column without a name',
      (sheet) => sheet.addRow(['a', 'b', 1]),
      ['from', '', 'mm'],
      'pins, column 2: expected a name for this column, got nothing',
    ],
    [
      'a column named twice',
      (sheet) => sheet.addRow(['a', 'b', 1]),
      ['from', 'from', 'mm'],
      'pins, column 2: expected a column name of its own, got "from" twice',
    ],
    ['no rows', () => undefined, ['from', 'to'], 'pins: expected at least one row under the column names, got none'],
    ['nothing at all', () => undefined, [], 'pins: expected a sheet with the names of the columns, got an empty one'],
  ])('%s is refused', async (_, fill, head, expected) => expect(await problems(await book(fill, head))).toContain(expected));
  test('what is no spreadsheet is refused', async () => {
    expect(await problems(new TextEncoder().encode('from,to\na,b\n'))).toEqual([
      ': expected a spreadsheet (XLSX), got a file that is none or is cut short',
    ]);
    expect(await problems((await book((sheet) => sheet.addRow(['a', 'b', 1]))).subarray(0, 500))).toHaveLength(1);
  });
});
