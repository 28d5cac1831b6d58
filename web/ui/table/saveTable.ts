import type { Checked } from 'wattograph-core';
import { writeSpreadsheet } from '../../client/spreadsheet';
import { saveBlob } from '../../client/saveFile';

/** Hand a table to the reader as a spreadsheet (XLSX). */
export async function saveTable(
  name: string,
  { columns, rows }: { columns: string[]; rows: (string | number)[][] },
): Promise<Checked<null>> {
  const made = await writeSpreadsheet(name, columns, rows);
  if (!made.ok) return made;
  const type = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';
  saveBlob(`${name}.xlsx`, new Blob([made.value as Uint8Array<ArrayBuffer>], { type }));
  return { ok: true, value: null };
}
