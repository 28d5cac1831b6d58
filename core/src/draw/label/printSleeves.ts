import type { Catalogue } from '../../catalogue';
import type { LabelStock } from '../../model';
import type { LabelOrder } from '../../plan';
import { pushTo, roundTo } from '../../units';
import { measureText } from '../measureText';

/** Height of a capital letter of the face that is printed with, of its size: from the font that ships. */
const CAP_SHARE = 0.686;

export const toLetterSize = (capMm: number): number => capMm / CAP_SHARE;

/** One sleeve as it leaves the printer. */
export interface PrintedSleeve extends Pick<LabelOrder, 'lines' | 'capMm'> {
  /** its longest line is longer than can be printed by so much, mm; 0: all of it is there */
  cutOffMm: number;
}

/** What is printed on one stock before the next is put in. */
export interface PrintedStock {
  stock: LabelStock;
  sleeves: PrintedSleeve[];
  /** packs that are opened, and sleeves left of the last; null: the shop does not say how many are in one */
  packs: { opened: number; left: number } | null;
}

/**
 * Sleeves as they come out, stock by stock, the narrowest first, within a stock in the order asked for. How long a line gets is measured with the face
 * that it is printed in, not with the rule that the plan goes by. A stock that the shop has not is left out.
 */
export function printSleeves(orders: readonly LabelOrder[], { labels, buying }: Pick<Catalogue, 'labels' | 'buying'>): PrintedStock[] {
  const byStock = new Map<string, PrintedSleeve[]>();
  const stocks = new Map(labels.map((stock) => [stock.id, stock]));
  for (const { stockId, lines, capMm, pieces } of orders) {
    const stock = stocks.get(stockId);
    if (!stock) continue;
    const longest = Math.max(...lines.map((one) => measureText(one, toLetterSize(capMm), 'narrow')));
    const sleeve = { lines, capMm, cutOffMm: roundTo(Math.max(0, longest - stock.printableMm), 2) };
    for (let piece = 0; piece < pieces; piece += 1) pushTo(byStock, stockId, sleeve);
  }
  return [...byStock]
    .map(([id, sleeves]) => ({
      stock: stocks.get(id)!,
      sleeves,
      packs: countPacks(sleeves.length, buying[`labels/${id}`]?.packOf ?? null),
    }))
    .sort((one, other) => one.stock.suppliedBoreMm - other.stock.suppliedBoreMm);
}

function countPacks(pieces: number, packOf: number | null): PrintedStock['packs'] {
  if (packOf === null) return null;
  const opened = Math.ceil(pieces / packOf);
  return { opened, left: opened * packOf - pieces };
}
