import type { Catalogue, ShopStandard } from '../../catalogue';
import { isOffered, type LabelStock } from '../../model';
import { PASSES } from '../cover/measureCovering';

/** A clear sleeve over a label, cut to length. */
export interface ClearSleeve {
  itemId: string;
  itemName: string;
  cutMm: number;
}

/**
 * The first clear sleeve of the shop that passes over what is labelled, and grips it; cut so that it covers the label and goes beyond it on
 * either side once it is shrunk; one that is shrunk no hotter than the label stands first. odMm: under the label, which is thin against what a
 * sleeve passes over. null: none does.
 */
export function chooseClear(
  catalogue: Catalogue,
  odMm: number,
  { lengthMm: labelMm, shortC }: Pick<LabelStock, 'lengthMm' | 'shortC'>,
  standard: Pick<ShopStandard, 'clearBeyondMm'>,
): ClearSleeve | null {
  let first: ClearSleeve | null = null;
  for (const item of catalogue.coverings) {
    if (item.kind !== 'clear-shrink' || !isOffered(catalogue, 'coverings', item.id)) continue;
    if (item.suppliedBoreMm < PASSES * odMm - 1e-9 || item.recoveredBoreMm > odMm + 1e-9) continue;
    const cutMm = Math.ceil((labelMm + 2 * standard.clearBeyondMm) / (1 - item.longitudinalChange) - 1e-9);
    const clear = { itemId: item.id, itemName: item.name, cutMm };
    if (item.shrinkC === null || shortC === null || item.shrinkC <= shortC) return clear;
    first ??= clear;
  }
  return first;
}
