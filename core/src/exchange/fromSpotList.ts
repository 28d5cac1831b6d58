import Papa from 'papaparse';
import { CAVITY_NAME, type Checked, type Problem } from '../model';

const MOST_ROWS = 320;
const MOST_LETTERS = 40_000;

/** A cavity as a drawing lists it: mm from the middle of the housing seen from the wire side, x to the right, y down. */
export interface ListedSpot {
  name: string;
  xMm: number;
  yMm: number;
  /** null: as most are */
  size: string | null;
}

/**
 * Cavities pasted from a spreadsheet or a drawing's table: name, x, y and perhaps a cavity size, a row each. A line of headings is passed
 * over; decimals with a point, or with a comma where no comma parts the fields.
 */
export function fromSpotList(text: string): Checked<ListedSpot[]> {
  if (text.length > MOST_LETTERS)
    return { ok: false, problems: [{ path: '', message: `expected at most ${MOST_LETTERS} letters, got ${text.length}` }] };
  const delimiter = ['\t', ';', ','].find((one) => text.includes(one)) ?? '\t';
  const rows = Papa.parse<string[]>(text, { delimiter, skipEmptyLines: false }).data.map((cells, index) => ({
    line: index + 1,
    cells: cells.map((cell) => cell.trim()),
  }));
  const filled = rows.filter(({ cells }) => cells.some((cell) => cell !== ''));
  const first = filled[0];
  const listed = first && toNumber(first.cells[1] ?? '') === null && toNumber(first.cells[2] ?? '') === null ? filled.slice(1) : filled;
  if (listed.length === 0)
    return { ok: false, problems: [{ path: '', message: 'expected a row for each cavity: name, x, y in mm, got none' }] };
  if (listed.length > MOST_ROWS)
    return { ok: false, problems: [{ path: '', message: `expected at most ${MOST_ROWS} cavities, got ${listed.length}` }] };
  const problems: Problem[] = [];
  const spots = listed.map(({ line, cells }): ListedSpot => {
    const [name = '', x = '', y = '', size = ''] = cells;
    const [xMm, yMm] = [toNumber(x), toNumber(y)];
    const refuse = (field: 'name' | 'x' | 'y' | 'size', expected: string, got: string) =>
      problems.push({ path: `line ${line}, ${field}`, message: `expected ${expected}, got ${JSON.stringify(got)}` });
    if (!CAVITY_NAME.test(name)) refuse('name', '1 to 6 letters or digits', name);
    if (xMm === null || Math.abs(xMm) > 100) refuse('x', 'millimetres from -100 to 100', x);
    if (yMm === null || Math.abs(yMm) > 100) refuse('y', 'millimetres from -100 to 100', y);
    if (size.length > 12) refuse('size', 'a cavity size of at most 12 letters', size);
    return { name, xMm: xMm ?? 0, yMm: yMm ?? 0, size: size === '' ? null : size };
  });
  return problems.length > 0 ? { ok: false, problems: problems.slice(0, 20) } : { ok: true, value: spots };
}

function toNumber(text: string): number | null {
  const plain = text.replace('−', '-').replace(',', '.');
  return /^-?\d+(\.\d*)?$|^-?\.\d+$/.test(plain) ? Number(plain) : null;
}
