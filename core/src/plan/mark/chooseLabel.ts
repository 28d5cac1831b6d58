import type { Catalogue, ShopStandard } from '../../catalogue';
import { isOffered, type LabelStock } from '../../model';
import { PASSES } from '../cover/measureCovering';
import { layoutLegend, type Legend } from './layoutLegend';

export interface ChosenLabel {
  stock: LabelStock;
  legend: Legend;
}

/**
 * The first marker sleeve that passes over and grips what is marked, stands how hot it gets there and carries the legend in letters that can be
 * read; where none does all of that, one that stands the heat before one that does not; null where none passes or grips.
 *
 * @param ambientC hottest where it lies, °C; null: not known, and none is passed over for it
 */
export function chooseLabel(
  catalogue: Catalogue,
  odMm: number,
  text: string,
  standard: Pick<ShopStandard, 'legendMm' | 'legendLeastMm'>,
  ambientC: number | null,
): ChosenLabel | null {
  let best: ChosenLabel | null = null;
  let bestRank = -1;
  for (const stock of catalogue.labels) {
    const isGripping = stock.suppliedBoreMm >= PASSES * odMm - 1e-9 && stock.recoveredBoreMm <= odMm + 1e-9;
    if (!isGripping || !isOffered(catalogue, 'labels', stock.id)) continue;
    const legend = layoutLegend(text, stock, standard);
    const isStanding = ambientC === null || stock.limitC === null || stock.limitC >= ambientC;
    if (legend.fits && isStanding) return { stock, legend };
    const rank = isStanding ? 1 : 0;
    if (rank > bestRank) [best, bestRank] = [{ stock, legend }, rank];
  }
  return best;
}
