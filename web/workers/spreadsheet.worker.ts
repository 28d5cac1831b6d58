import type { CsvTable, Problem } from 'wattograph-core';
import { readXlsx, writeXlsx } from 'wattograph-core/xlsx';

/** A spreadsheet to read, or one to make. */
export type SpreadsheetQuestion =
  { kind: 'read'; bytes: Uint8Array } | { kind: 'write'; name: string; columns: string[]; rows: (string | number)[][] };

export type SpreadsheetAnswer = { ok: true; table: CsvTable } | { ok: true; bytes: Uint8Array } | { ok: false; problems: Problem[] };

const answer = async (question: SpreadsheetQuestion): Promise<SpreadsheetAnswer> => {
  if (question.kind === 'write') return { ok: true, bytes: await writeXlsx(question.name, question.columns, question.rows) };
  const read = await readXlsx(question.bytes);
  return read.ok ? { ok: true, table: read.value } : read;
};

self.onmessage = ({ data }: MessageEvent<SpreadsheetQuestion>) => {
  // what is thrown reaches the page as the error of this worker
  void answer(data).then(self.postMessage, (error: unknown) =>
    setTimeout(() => {
      throw error;
    }),
  );
};
