import type { Catalogue } from '../../catalogue';
import { isOffered, isShrink, type Ring } from '../../model';
import { GRIPS, PASSES } from '../cover/measureCovering';

/** What goes over all of a blade that is bought bare. */
export interface BladeSleeve {
  itemId: string;
  itemName: string;
  cutMm: number;
}

/** so much of the wire behind its barrel lies under the sleeve as well, mm */
const ONTO_WIRE_MM = 8;

/**
 * The narrowest sleeve that passes over a bare blade and grips it, as long as the blade and some wire behind it once it is shrunk (craft A5).
 * null: the blade is insulated as it is bought, or no sleeve of the shop does both.
 */
export function chooseBladeSleeve(
  catalogue: Pick<Catalogue, 'coverings' | 'buying'>,
  { insulated, lengthMm, widthMm }: Pick<Ring, 'insulated' | 'lengthMm' | 'widthMm'>,
): BladeSleeve | null {
  if (insulated || lengthMm === null || widthMm === null) return null;
  const sleeve = catalogue.coverings
    .filter(isShrink)
    .filter(({ id, kind }) => kind !== 'clear-shrink' && isOffered(catalogue, 'coverings', id))
    .sort((a, b) => a.suppliedBoreMm - b.suppliedBoreMm)
    .find(({ suppliedBoreMm, recoveredBoreMm }) => suppliedBoreMm >= PASSES * widthMm && recoveredBoreMm <= GRIPS * widthMm);
  if (!sleeve) return null;
  return { itemId: sleeve.id, itemName: sleeve.name, cutMm: Math.ceil((lengthMm + ONTO_WIRE_MM) / (1 - sleeve.longitudinalChange) - 1e-9) };
}

/** The same of what a cavity gets; null: it is no blade, too. */
export function findBladeSleeve(
  catalogue: Pick<Catalogue, 'rings' | 'coverings' | 'buying'>,
  contactId: string | null,
): BladeSleeve | null {
  const blade = catalogue.rings.find(({ id, tongueMm }) => id === contactId && tongueMm !== null);
  return blade ? chooseBladeSleeve(catalogue, blade) : null;
}
