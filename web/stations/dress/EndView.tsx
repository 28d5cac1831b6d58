import { drawEndStack, isOffered, isShrink, setBoot, toStackedRun } from 'wattograph-core';
import { useFindings, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { FindingLines } from '../../ui/findings/FindingLine';
import styles from './Dress.module.css';
import { ParkingBar } from './ParkingBar';
import { PartPick } from './PartPick';
import { PieceList } from './PieceList';
import { StackPicture } from '../../ui/StackPicture';

/** One end from the wire outwards: drawn, its pieces in their order, and whether they have room to stand back. */
export function EndView({ planned, endId }: { planned: PlannedLoom; endId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const { loom, loomId, plan } = planned;
  const dress = plan.endDress.find((one) => one.endId === endId)!;
  const { name, bootPin } = loom.ends[endId]!;
  const drawing = drawEndStack(dress, toStackedRun(plan, dress.segmentId));
  const findings = useFindings().filter(
    (one) => one.loomId === loomId && one.places.some(({ kind, id }) => kind === 'end' && id === endId) && one.code.startsWith('DR'),
  );
  const parts = [
    ...shop.boots.filter(({ id }) => id === bootPin?.itemId || isOffered(shop, 'boots', id)),
    ...shop.coverings.filter(isShrink).filter(({ id }) => id === bootPin?.itemId || isOffered(shop, 'coverings', id)),
  ];
  return (
    <>
      <h2>{name}</h2>
      <div className={styles.lead}>
        Leg {dress.leadMm.toFixed(1)} mm over its covering,{' '}
        {dress.bodyMm === null ? 'nothing at the rear of its housing holds a boot' : `rear of its housing ${dress.bodyMm} mm`}.{' '}
        {dress.bodyMm !== null && (
          <>
            Closed by{' '}
            <PartPick
              label={`What closes ${name}`}
              pin={bootPin}
              parts={parts}
              onPin={(pin) => store.edit(setBoot({ loomId, endId, name }, pin))}
            />{' '}
            ({dress.ruledBy === 'pinned' ? 'pinned' : `by the ${dress.ruledBy}`}: {dress.because})
          </>
        )}
      </div>
      <FindingLines findings={findings} />
      {dress.problem && (
        <p className={styles.alarm}>
          Nothing of the shop closes from {dress.bodyMm} mm onto {dress.leadMm.toFixed(1)} mm.
        </p>
      )}
      <StackPicture drawing={drawing} words={`${name} cut lengthwise, ${dress.pieces.length} pieces over the leg`} />
      {dress.pieces.length > 0 && (
        <PieceList pieces={dress.pieces} from="its rear" label={`Pieces of ${name} in the order they slide on`} />
      )}
      <ParkingBar parking={dress.parking} legMm={plan.tree.segments[dress.segmentId]!.lengthMm} />
    </>
  );
}
