import type { LabelStock, Problem } from '../model';
import type { LabelOrder } from '../plan';
import { readCsv } from './readCsv';
import { LABEL_COLUMNS } from './toLabelsCsv';

const MOST_PIECES = 200;
const MOST_SLEEVES = 20_000;
const NEEDED = 4;
/** as high as a shop may want them */
const HIGHEST_MM = 100;

/**
 * What a label printer is asked for by the list that it is fed with as a file (toLabelsCsv); it knows nothing else of the loom. What cannot be printed is
 * named with its line, the rest is printed.
 */
export function fromLabelList(csv: string, labels: readonly LabelStock[]): { orders: LabelOrder[]; problems: Problem[] } {
  const read = readCsv(csv);
  if (!read.ok) return { orders: [], problems: read.problems };
  const at = LABEL_COLUMNS.slice(0, NEEDED).map((name) => read.value.columns.indexOf(name));
  const problems: Problem[] = at.flatMap((place, nth) =>
    place === -1 ? [{ path: 'line 1', message: `expected a column ${LABEL_COLUMNS[nth]}` }] : [],
  );
  if (problems.length > 0) return { orders: [], problems };
  const known = new Set(labels.map(({ id }) => id));
  const orders: LabelOrder[] = [];
  let count = 0;
  for (const { line, cells } of read.value.rows) {
    const order = readOrder(
      at.map((place) => cells[place]!),
      known,
    );
    if (typeof order === 'string') problems.push({ path: `line ${line}`, message: order });
    else if ((count += order.pieces) > MOST_SLEEVES)
      return { orders: [], problems: [{ path: `line ${line}`, message: `expected at most ${MOST_SLEEVES} sleeves in all` }] };
    else orders.push(order);
  }
  return { orders, problems };
}

/** What a line asks for, or what was expected of it. */
function readOrder([stockId, legend, cap, count]: readonly string[], known: ReadonlySet<string>): LabelOrder | string {
  if (!known.has(stockId!)) return `expected a marker sleeve of the shop, got "${stockId}"`;
  const capMm = Number(cap);
  if (!(capMm > 0 && capMm <= HIGHEST_MM)) return `expected letters of more than 0 and up to ${HIGHEST_MM} mm, got "${cap}"`;
  if (!/^\d{1,3}$/.test(count!) || Number(count) > MOST_PIECES) return `expected up to ${MOST_PIECES} pieces, got "${count}"`;
  // what kept a spreadsheet from taking it for a formula is not printed
  return { stockId: stockId!, lines: legend!.replace(/^'(?=[=+\-@])/, '').split(/\r?\n/), capMm, pieces: Number(count) };
}
