import ExcelJS from 'exceljs';
import type { Checked, Problem } from '../model';
import type { CsvTable } from './readCsv';

const MOST_ROWS = 20_000;

/**
 * Read the first sheet of a spreadsheet (XLSX) as a table: the first row that is not empty names the columns. Merged cells,
 * broken formulas and unnamed columns are refused with their sheet and cell.
 */
export async function readXlsx(bytes: Uint8Array): Promise<Checked<CsvTable>> {
  const fail = (path: string, message: string): Checked<CsvTable> => ({ ok: false, problems: [{ path, message }] });
  const workbook = new ExcelJS.Workbook();
  try {
    await workbook.xlsx.load(bytes as unknown as ExcelJS.Buffer);
  } catch {
    return fail('', 'expected a spreadsheet (XLSX), got a file that is none or is cut short');
  }
  const sheet = workbook.worksheets[0];
  if (!sheet || sheet.actualRowCount === 0)
    return fail(sheet?.name ?? '', 'expected a sheet with the names of the columns, got an empty one');
  const merged = listMerged(sheet);
  if (merged.length)
    return {
      ok: false,
      problems: merged.slice(0, 20).map((range) => ({
        path: `${sheet.name}!${range}`,
        message: 'expected single cells, got merged ones: unmerge them and repeat what they say in each row',
      })),
    };
  if (sheet.actualRowCount > MOST_ROWS) return fail(sheet.name, `expected at most ${MOST_ROWS} rows, got ${sheet.actualRowCount}`);
  const problems: Problem[] = [];
  const rows: CsvTable['rows'] = [];
  let columns: string[] | null = null;
  sheet.eachRow((row, line) => {
    const cells = Array.from({ length: sheet.columnCount }, (_, index) => toText(sheet.name, row.getCell(index + 1), problems));
    if (columns === null) columns = trimEnd(cells);
    else rows.push({ line, cells: columns.map((_, index) => cells[index] ?? '') });
  });
  const names: string[] = columns ?? [];
  names.forEach((name, index) => {
    const path = `${sheet.name}, column ${index + 1}`;
    if (name === '') problems.push({ path, message: 'expected a name for this column, got nothing' });
    else if (names.indexOf(name) !== index) problems.push({ path, message: `expected a column name of its own, got "${name}" twice` });
  });
  if (rows.length === 0) problems.push({ path: sheet.name, message: 'expected at least one row under the column names, got none' });
  return problems.length
    ? { ok: false, problems: problems.slice(0, 20) }
    : { ok: true, value: { columns: names, rows, delimiter: 'xlsx' } };
}

function listMerged(sheet: ExcelJS.Worksheet): string[] {
  return (sheet.model as { merges?: string[] }).merges ?? [];
}

function toText(sheetName: string, cell: ExcelJS.Cell, problems: Problem[]): string {
  const { value } = cell;
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') {
    const shown: unknown =
      'result' in value
        ? value.result
        : 'richText' in value
          ? value.richText.map(({ text }) => text).join('')
          : 'text' in value
            ? value.text
            : null;
    if (shown !== null && typeof shown !== 'object') return String(shown).trim();
    problems.push({
      path: `${sheetName}!${cell.address}`,
      message: 'expected words or a number, got a formula without a result, an error or a date',
    });
    return '';
  }
  return String(value).trim();
}

const trimEnd = (cells: readonly string[]): string[] => {
  const last = cells.findLastIndex((cell) => cell !== '');
  return cells.slice(0, last + 1);
};
