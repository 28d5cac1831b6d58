import type { Catalogue, ShopStandard } from '../../catalogue';
import { isOffered, type LabelStock } from '../../model';
import { PASSES } from '../cover/measureCovering';
import { layoutLegend, type Legend } from './layoutLegend';

export interface ChosenLabel {
  stock: LabelStock;
  legend: Legend;
}

/**
 * The first marker sleeve that passes over and grips what is marked and carries the legend in letters that can be read; one that carries it smaller
 * where none does; null where none passes or grips.
 */
export function chooseLabel(
  catalogue: Catalogue,
  odMm: number,
  text: string,
  standard: Pick<ShopStandard, 'legendMm' | 'legendLeastMm'>,
): ChosenLabel | null {
  let first: ChosenLabel | null = null;
  for (const stock of catalogue.labels) {
    const isGripping = stock.suppliedBoreMm >= PASSES * odMm - 1e-9 && stock.recoveredBoreMm <= odMm + 1e-9;
    if (!isGripping || !isOffered(catalogue, 'labels', stock.id)) continue;
    const legend = layoutLegend(text, stock, standard);
    if (legend.fits) return { stock, legend };
    first ??= { stock, legend };
  }
  return first;
}
