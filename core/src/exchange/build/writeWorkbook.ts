import ExcelJS from 'exceljs';
import type { DataTable } from './dataTable';

const WIDEST = 60;
/** a code of ISO/IEC 29500-1, 18.8.30: so many digits after the point */
const toFormat = (digits: number) => (digits === 0 ? '0' : `0.${'0'.repeat(digits)}`);

/**
 * Lists as a workbook (XLSX, ISO/IEC 29500), a sheet each: names of the columns stay in view and filter, numbers are numbers, yes and no are
 * booleans. Words stay words, whatever a spreadsheet would make of them.
 */
export async function writeWorkbook(tables: readonly DataTable[], title: string): Promise<Uint8Array> {
  const workbook = new ExcelJS.Workbook();
  workbook.title = title;
  for (const { name, columns, rows } of tables) {
    const sheet = workbook.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
    sheet.addRow(columns.map((column) => column.name)).font = { bold: true };
    for (const cells of rows) sheet.addRow(cells);
    columns.forEach(({ name: head, kind, digits = 0 }, at) => {
      const column = sheet.getColumn(at + 1);
      if (kind === 'number') column.numFmt = toFormat(digits);
      if (kind === 'text') column.numFmt = '@';
      const longest = Math.max(head.length, ...rows.slice(0, 200).map((cells) => String(cells[at] ?? '').length));
      column.width = Math.min(WIDEST, kind === 'number' ? head.length + 4 : longest + 2);
    });
    sheet.autoFilter = { from: { row: 1, column: 1 }, to: { row: 1, column: columns.length } };
  }
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}
