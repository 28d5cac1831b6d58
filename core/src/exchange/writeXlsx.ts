import ExcelJS from 'exceljs';

/** A table as a spreadsheet (XLSX, ISO/IEC 29500): the first row names the columns and stays in view; numbers are numbers. */
export async function writeXlsx(
  name: string,
  columns: readonly string[],
  rows: readonly (readonly (string | number)[])[],
): Promise<Uint8Array> {
  const workbook = new ExcelJS.Workbook();
  const sheet = workbook.addWorksheet(name.replace(/[\\/?*:[\]]/g, ' ').slice(0, 31), { views: [{ state: 'frozen', ySplit: 1 }] });
  sheet.addRow([...columns]).font = { bold: true };
  for (const cells of rows) sheet.addRow(cells.map((cell) => (cell === '' ? null : cell)));
  sheet.columns.forEach((column, index) => {
    const longest = Math.max(columns[index]!.length, ...rows.slice(0, 200).map((cells) => String(cells[index] ?? '').length));
    column.width = Math.min(40, longest + 2);
  });
  return new Uint8Array(await workbook.xlsx.writeBuffer());
}
