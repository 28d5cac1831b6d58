import { drawBreakoutStack, isOffered, isShrink, setTransition, toCount, toStackedRun } from 'wattograph-core';
import { useFindings, useJobStore, type PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';
import { FindingLines } from '../../ui/findings/FindingLine';
import styles from './Dress.module.css';
import { ParkingBar } from './ParkingBar';
import { PartPick } from './PartPick';
import { PieceList } from './PieceList';
import { StackPicture } from '../../ui/StackPicture';

/** One breakout from the wire outwards: trunk, legs, and what goes over them. */
export function BreakoutView({ planned, nodeId }: { planned: PlannedLoom; nodeId: string }) {
  const shop = useShop();
  const store = useJobStore();
  const { loom, loomId, plan } = planned;
  const dress = plan.breakoutDress.find((one) => one.nodeId === nodeId)!;
  const { trunkSegmentId, legsMm } = dress;
  const { name, transitionPin } = loom.nodes[nodeId]!;
  const toRun = (id: string) => toStackedRun(plan, id);
  const drawing = drawBreakoutStack(dress, toRun(dress.trunkSegmentId), dress.legSegmentIds.map(toRun));
  const findings = useFindings().filter(
    (one) => one.loomId === loomId && ['DR4', 'DR5'].includes(one.code) && one.places.some(({ id }) => id === trunkSegmentId),
  );
  const parts = [
    ...shop.transitions.filter(
      ({ id, legs }) => id === transitionPin?.itemId || (legs === legsMm.length && isOffered(shop, 'transitions', id)),
    ),
    ...shop.coverings.filter(isShrink).filter(({ id }) => id === transitionPin?.itemId || isOffered(shop, 'coverings', id)),
  ];
  return (
    <>
      <h2>{name}</h2>
      <div className={styles.lead}>
        {Math.round(plan.tree.nodes[nodeId]!.distanceMm)} mm from the datum; trunk {dress.trunkMm.toFixed(1)} mm,{' '}
        {toCount(legsMm.length, 'leg')} of {legsMm.map((mm) => mm.toFixed(1)).join(', ')} mm, {dress.togetherMm.toFixed(1)} mm together.
        Over it{' '}
        <PartPick
          label={`What goes over ${name}`}
          pin={transitionPin}
          parts={parts}
          onPin={(pin) => store.edit(setTransition({ loomId, nodeId, name }, pin))}
        />{' '}
        ({dress.ruledBy === 'pinned' ? 'pinned' : `by the ${dress.ruledBy}`}: {dress.because})
      </div>
      <FindingLines findings={findings} />
      {dress.problem && <p className={styles.alarm}>Nothing of the shop goes over all of it and grips.</p>}
      <StackPicture drawing={drawing} words={`${name} cut lengthwise, ${dress.pieces.length} pieces over it`} />
      {dress.pieces.length > 0 && (
        <PieceList pieces={dress.pieces} from="its middle" label={`Pieces of ${name} in the order they slide on`} />
      )}
      {dress.parking && <ParkingBar isBreakout parking={dress.parking} legMm={plan.tree.segments[trunkSegmentId]!.lengthMm} />}
    </>
  );
}
