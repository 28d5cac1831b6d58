import type { Catalogue, ShopStandard } from '../../catalogue';
import { isOffered } from '../../model';
import { PASSES } from '../cover/measureCovering';

/** A clear sleeve over a label, cut to length. */
export interface ClearSleeve {
  itemId: string;
  itemName: string;
  cutMm: number;
}

/**
 * The first clear sleeve of the shop that passes over what is labelled, and grips it; cut so that it covers the label and goes beyond it on
 * either side once it is shrunk. odMm: under the label, which is thin against what a sleeve passes over. null: none does.
 */
export function chooseClear(
  catalogue: Catalogue,
  odMm: number,
  labelMm: number,
  standard: Pick<ShopStandard, 'clearBeyondMm'>,
): ClearSleeve | null {
  for (const item of catalogue.coverings) {
    if (item.kind !== 'clear-shrink' || !isOffered(catalogue, 'coverings', item.id)) continue;
    if (item.suppliedBoreMm < PASSES * odMm - 1e-9 || item.recoveredBoreMm > odMm + 1e-9) continue;
    const cutMm = Math.ceil((labelMm + 2 * standard.clearBeyondMm) / (1 - item.longitudinalChange) - 1e-9);
    return { itemId: item.id, itemName: item.name, cutMm };
  }
  return null;
}
