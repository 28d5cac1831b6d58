import { readXlsx } from 'wattograph-core/xlsx';
import { Refusal } from '../../../server/refusal';
import { readBytes, respond } from '../../../server/respond';

const MOST_BYTES = 8 * 1024 * 1024;

/** A spreadsheet (XLSX) as a table; refused with the sheet and cell where it is broken. Nothing is stored. */
export const POST = respond<object>(async (request) => {
  const table = await readXlsx(await readBytes(request, MOST_BYTES));
  if (!table.ok) throw new Refusal(422, table.problems);
  return Response.json(table.value);
});
