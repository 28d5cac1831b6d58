import type { Catalogue, ShopStandard } from '../../catalogue';
import { isFromTheSide, isOffered, isTape } from '../../model';
import { isGripped, measureCoveringCut, measureCoveringOutside, measureWindow } from '../cover/measureCovering';
import type { DressNeeds } from './chooseDressParts';
import type { DressPiece } from './dressTypes';

/**
 * What is laid round a joint that has to be opened again: from the side, and off it without being destroyed (craft A3). Of what holds both
 * sides of the joint the first in the order of the shop, then the lightest; null: the shop has nothing that does.
 */
export function chooseOpeningPieces(
  catalogue: Catalogue,
  standard: ShopStandard,
  { ambientC }: Pick<DressNeeds, 'ambientC'>,
  [oneMm, otherMm]: readonly [number, number],
): DressPiece[] | null {
  const [thinMm, wideMm] = [Math.min(oneMm, otherMm), Math.max(oneMm, otherMm)];
  const order = [standard.covering, ...standard.coveringOrder];
  const rank = (kind: (typeof order)[number]) => (order.includes(kind) ? order.indexOf(kind) : order.length);
  const found = catalogue.coverings
    .filter((item) => item.opens && isFromTheSide(item) && !(isTape(item) && item.endsOnly))
    .filter(({ id, limitC }) => limitC >= ambientC && isOffered(catalogue, 'coverings', id))
    .filter((item) => [thinMm, wideMm].every((mm) => isGripped(measureWindow(item, standard), mm)))
    .sort((a, b) => rank(a.kind) - rank(b.kind) || a.massGPerM - b.massGPerM || (a.id < b.id ? -1 : 1))[0];
  if (!found) return null;
  const grip = standard.bootOverlapMm;
  const cutMm = measureCoveringCut(found, 2 * grip, wideMm, 0);
  return [
    {
      ...{ role: 'wrap', table: 'coverings', itemId: found.id, itemName: found.name, cutMm, fromMm: -grip, toMm: grip },
      ...{ underMm: thinMm, overMm: measureCoveringOutside(found, wideMm), isLined: false, massG: (found.massGPerM * cutMm) / 1000 },
    },
  ];
}
