import { readCsv, type Checked, type CsvTable } from 'wattograph-core';
import { readSpreadsheet } from '../../client/spreadsheet';

const MOST_BYTES = 8 * 1024 * 1024;

/** A table from a chosen file: CSV, or the first sheet of a spreadsheet (XLSX). */
export async function readTable(file: File): Promise<Checked<CsvTable>> {
  if (file.size > MOST_BYTES)
    return { ok: false, problems: [{ path: '', message: `expected at most 8 MB, got ${(file.size / 1024 / 1024).toFixed(0)} MB` }] };
  return /\.xlsx$/i.test(file.name) ? readSpreadsheet(new Uint8Array(await file.arrayBuffer())) : readCsv(await file.text());
}
