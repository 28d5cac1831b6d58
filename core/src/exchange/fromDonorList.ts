import type { Checked, Donor, DonorWire, Problem } from '../model';
import type { CsvTable } from './readCsv';

/** Which column of a pinout holds what; left out where it does not say. */
export interface DonorMapping {
  from: string;
  to: string;
  number?: string;
  fromPin?: string;
  toPin?: string;
  functions?: string;
  colour?: string;
  size?: string;
  lengthMm?: string;
}

const HINTS: Record<keyof DonorMapping, RegExp> = {
  number: /^(wire|no|number|nr|#)\b/i,
  fromPin: /^from.*(pin|cavity)|^pin$/i,
  toPin: /^to.*(pin|cavity)/i,
  from: /^from|^source|^device$/i,
  to: /^to\b|^target|^goes/i,
  functions: /function|purpose|circuit|signal/i,
  colour: /colou?r/i,
  size: /size|awg|mm2|mm²|section/i,
  lengthMm: /length|^mm$/i,
};

/** The columns that most likely hold each thing, by their names. */
export function toDonorMapping(columns: readonly string[]): Partial<DonorMapping> {
  const found: Partial<DonorMapping> = {};
  const taken = new Set<string>();
  for (const [field, hint] of Object.entries(HINTS) as [keyof DonorMapping, RegExp][]) {
    const column = columns.find((name) => !taken.has(name) && hint.test(name.trim()));
    if (column === undefined) continue;
    taken.add(column);
    found[field] = column;
  }
  return found;
}

/** A donor loom from its pinout, nothing decided yet. Several functions of one wire are parted by commas, semicolons or strokes. Every problem names its line. */
export function fromDonorList(name: string, table: CsvTable, mapping: DonorMapping): Checked<Donor> {
  const problems: Problem[] = [];
  const wires: Record<string, DonorWire> = {};
  for (const { line, cells } of table.rows) {
    const cell = (column: string | undefined, most: number) =>
      (column === undefined ? '' : (cells[table.columns.indexOf(column)] ?? '').trim()).slice(0, most);
    const need = (column: string) => {
      const text = cell(column, 80);
      if (text === '') problems.push({ path: `line ${line}, ${column}`, message: 'expected the name of a device or plug, got nothing' });
      return text;
    };
    const written = cell(mapping.lengthMm, 20).replace(',', '.').replace(/ ?mm$/i, '');
    const lengthMm = written === '' ? null : Number(written);
    if (lengthMm !== null && !(lengthMm > 0 && lengthMm <= 20000))
      problems.push({
        path: `line ${line}, ${mapping.lengthMm}`,
        message: `expected a length above 0 and at most 20000 mm, got ${JSON.stringify(written)}`,
      });
    wires[`w${Object.keys(wires).length + 1}`] = {
      number: cell(mapping.number, 40),
      from: need(mapping.from),
      fromPin: cell(mapping.fromPin, 12),
      to: need(mapping.to),
      toPin: cell(mapping.toPin, 12),
      functions: cell(mapping.functions, 400)
        .split(/[,;|]/)
        .map((one) => one.trim().slice(0, 80))
        .filter(Boolean)
        .slice(0, 12),
      colour: cell(mapping.colour, 40),
      size: cell(mapping.size, 20),
      lengthMm,
      decision: null,
      newLengthMm: null,
      newName: '',
      note: '',
    };
  }
  return problems.length ? { ok: false, problems: problems.slice(0, 20) } : { ok: true, value: { name, wires } };
}
