import { listMarks, toLabelOrders } from '../../plan';
import { toCount } from '../../units';
import { drawSleeves } from '../label/drawSleeves';
import { printSleeves, type PrintedStock } from '../label/printSleeves';
import type { SheetContext } from './sheetContext';

/** What one row of sleeves takes, so that a heading does not stand alone at the foot of a page, mm. */
const KEEP_MM = 20;
/** sleeves in one picture, which is not parted between pages */
const MOST_TOGETHER = 60;

/** The labels of a loom at their true size, stock by stock, as the printer gives them out: the order in which they go on. */
export function addLabels({ job, plan, catalogue, flow }: SheetContext): void {
  const marks = listMarks(job, plan, catalogue);
  const stocks = printSleeves(toLabelOrders(marks), catalogue);
  const bare = marks.filter(({ stockId }) => stockId === null);
  if (stocks.length + bare.length === 0) return;
  const tagged = bare.filter(({ kind }) => kind !== 'device');
  const stuck = bare.filter(({ kind }) => kind === 'device');
  flow.sheet(
    'Labels',
    'office',
    'At true size, as they are printed: in the order in which wires are cut, twice each, then ends. A mark at a rough end is cut off with what is trimmed: that piece goes on after the trim.',
  );
  for (const stock of stocks) {
    flow.heading(toStockWords(stock), KEEP_MM);
    for (let from = 0; from < stock.sleeves.length; from += MOST_TOGETHER)
      flow.picture(drawSleeves({ ...stock, sleeves: stock.sleeves.slice(from, from + MOST_TOGETHER) }, flow.widthMm));
  }
  if (tagged.length > 0) flow.paragraph(`No sleeve goes over these, they get a tag: ${tagged.map(({ text }) => text).join(', ')}.`);
  if (stuck.length > 0) flow.paragraph(`For devices, stuck on where they sit: ${stuck.map(({ text }) => text).join('; ')}.`);
}

const toStockWords = ({ stock, sleeves, packs }: PrintedStock): string =>
  [stock.name, toCount(sleeves.length, 'piece'), ...(packs ? [`${toCount(packs.opened, 'pack')} opened, ${packs.left} left`] : [])].join(
    ', ',
  );
