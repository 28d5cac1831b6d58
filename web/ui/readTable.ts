import { readCsv, type CsvTable, type Problem } from 'wattograph-core';

const MOST_BYTES = 8 * 1024 * 1024;

type ReadTable = { ok: true; value: CsvTable } | { ok: false; problems: Problem[] };

/** A table from a chosen file: CSV here, a spreadsheet (XLSX) by the server. */
export async function readTable(file: File): Promise<ReadTable> {
  const refuse = (message: string): ReadTable => ({ ok: false, problems: [{ path: '', message }] });
  if (file.size > MOST_BYTES) return refuse(`expected at most 8 MB, got ${(file.size / 1024 / 1024).toFixed(0)} MB`);
  if (!/\.xlsx$/i.test(file.name)) return readCsv(await file.text());
  try {
    const response = await fetch('/api/tables', { method: 'POST', body: file });
    const answer = (await response.json()) as CsvTable & { problems?: Problem[] };
    if (response.ok) return { ok: true, value: answer };
    return answer.problems ? { ok: false, problems: answer.problems } : refuse(`the server answered ${response.status}`);
  } catch {
    return refuse('The server does not answer; a spreadsheet is read there. Try again, or use CSV.');
  }
}
