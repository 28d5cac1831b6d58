import Papa from 'papaparse';
import type { Checked, Problem } from '../model';

/** A table read from a file: the names of its columns, and rows with the line that each began on. */
export interface CsvTable {
  columns: string[];
  rows: { line: number; cells: string[] }[];
  delimiter: string;
}

const MOST_ROWS = 20_000;
const MOST_BYTES = 8 * 1024 * 1024;

/** Read a CSV table: comma, semicolon or tab, quotes and line breaks inside them, a byte-order mark. Refused with its line where it is broken. */
export function readCsv(source: string): Checked<CsvTable> {
  const fail = (path: string, message: string): Checked<CsvTable> => ({ ok: false, problems: [{ path, message }] });
  if (source.length > MOST_BYTES)
    return fail('', `expected at most ${MOST_BYTES / 1024 / 1024} MB, got ${(source.length / 1024 / 1024).toFixed(0)} MB`);
  const text = source.startsWith('\ufeff') ? source.slice(1) : source;
  const parsed = Papa.parse<string[]>(text, { delimiter: chooseDelimiter(text), skipEmptyLines: false });
  const broken = parsed.errors.find(({ type }) => type === 'Quotes');
  if (broken)
    return fail(
      `line ${lineOf(text, broken.index ?? 0)}`,
      'expected a closing quote, got the end of the field: a quote is left open or stands in the middle',
    );
  const lines = numberLines(parsed.data).filter(({ cells }) => cells.some((cell) => cell.trim() !== ''));
  const [head, ...rows] = lines;
  if (!head) return fail('line 1', 'expected a line with the names of the columns, got an empty file');
  const columns = head.cells.map((cell) => cell.trim());
  const problems: Problem[] = [];
  columns.forEach((name, index) => {
    if (name === '')
      problems.push({ path: `line ${head.line}, column ${index + 1}`, message: 'expected a name for this column, got nothing' });
    else if (columns.indexOf(name) !== index)
      problems.push({ path: `line ${head.line}, column ${index + 1}`, message: `expected a column name of its own, got "${name}" twice` });
  });
  const uneven = rows.find(({ cells }) => cells.length !== columns.length);
  if (uneven)
    problems.push({
      path: `line ${uneven.line}`,
      message: `expected ${columns.length} fields as in the first line, got ${uneven.cells.length}`,
    });
  if (rows.length === 0)
    problems.push({ path: `line ${head.line + 1}`, message: 'expected at least one row under the column names, got none' });
  if (rows.length > MOST_ROWS) problems.push({ path: '', message: `expected at most ${MOST_ROWS} rows, got ${rows.length}` });
  return problems.length ? { ok: false, problems } : { ok: true, value: { columns, rows, delimiter: parsed.meta.delimiter } };
}

/** What parts the fields: of comma, semicolon and tab the one that the first line has most of, outside quotes. */
function chooseDelimiter(text: string): string {
  const head = (text.split(/\r?\n/, 1)[0] ?? '').replace(/"[^"]*"/g, '');
  const count = (delimiter: string) => head.split(delimiter).length;
  return [',', ';', '\t'].reduce((best, one) => (count(one) > count(best) ? one : best));
}

const lineOf = (text: string, index: number) => text.slice(0, index).split('\n').length;

/** Line numbers as an editor shows them: a field with line breaks in it makes its row longer than one. */
function numberLines(data: readonly string[][]): { line: number; cells: string[] }[] {
  let line = 1;
  return data.map((cells) => {
    const at = line;
    line += 1 + cells.reduce((sum, cell) => sum + cell.split('\n').length - 1, 0);
    return { line: at, cells };
  });
}
