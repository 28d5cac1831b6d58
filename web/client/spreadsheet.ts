import type { Checked, CsvTable } from 'wattograph-core';
import type { SpreadsheetAnswer, SpreadsheetQuestion } from '../workers/spreadsheet.worker';
import { runOnce } from './runOnce';
import { createSpreadsheetWorker } from './spreadsheetWorker';

/** one that takes longer is not a table that somebody works on, but may unpack without end */
const PATIENCE_MS = 30_000;

/** Read or make a spreadsheet in a worker of its own. */
const ask = (question: SpreadsheetQuestion): Promise<Exclude<SpreadsheetAnswer, { ok: false }> | Extract<Checked<never>, { ok: false }>> =>
  new Promise((resolve) => {
    const refuse = (message: string) => resolve({ ok: false, problems: [{ path: '', message }] });
    const giveUp = runOnce<SpreadsheetQuestion, SpreadsheetAnswer>(createSpreadsheetWorker(), question, (answer) => {
      clearTimeout(late);
      if ('failure' in answer) refuse(`the spreadsheet could not be worked on: ${answer.failure}`);
      else resolve(answer);
    });
    const late = setTimeout(() => {
      giveUp();
      refuse(`expected a spreadsheet that is worked through in ${PATIENCE_MS / 1000} s, got one that is not`);
    }, PATIENCE_MS);
  });

/** The first sheet of a spreadsheet (XLSX) as a table, refused with the sheet and cell where it is broken. */
export async function readSpreadsheet(bytes: Uint8Array): Promise<Checked<CsvTable>> {
  const answer = await ask({ kind: 'read', bytes });
  return answer.ok && 'table' in answer ? { ok: true, value: answer.table } : (answer as Extract<Checked<never>, { ok: false }>);
}

/** A table as a spreadsheet (XLSX). */
export async function writeSpreadsheet(name: string, columns: string[], rows: (string | number)[][]): Promise<Checked<Uint8Array>> {
  const answer = await ask({ kind: 'write', name, columns, rows });
  return answer.ok && 'bytes' in answer ? { ok: true, value: answer.bytes } : (answer as Extract<Checked<never>, { ok: false }>);
}
