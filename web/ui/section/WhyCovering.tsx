import { COVERING_WORDS, isShrink, isTape, isTube, isWrap, measureBraid, type CoveringItem, type PlannedBundle } from 'wattograph-core';
import type { PlannedLoom } from '../../client/jobContext';
import { useShop } from '../../client/shopContext';

/** Why this size: what it grips, and what it has to pass. */
function toSizeWhy(item: CoveringItem, odMm: number, mustPassMm: number, isBefore: boolean): string {
  const od = odMm.toFixed(2);
  const passes = `the largest thing it has to pass (${isBefore ? 'it goes on before the ends are closed' : 'it goes on after the ends are closed'})`;
  if (item.kind === 'braid') return `relaxed bore ≤ ${od} ≤ 0.9 × expanded bore`;
  if (isShrink(item)) return `recovered bore ≤ 0.9 × ${od} and supplied bore ≥ 1.1 × ${mustPassMm.toFixed(1)}, ${passes}`;
  if (isTube(item))
    return `${item.leastOdMm.toFixed(1)} ≤ ${od} ≤ ${item.fillMost} × its bore of ${item.boreMm}${item.slit ? '; slit, so it passes anything' : ''}`;
  if (isWrap(item)) return `${item.leastOdMm} ≤ ${od} ≤ ${item.mostOdMm}; it goes on from the side`;
  return `it is wound, ${Math.round(item.overlap * 100)} % of its width on the turn before`;
}

/** Why so much is cut. */
function toCutWhy(item: CoveringItem, odMm: number): string {
  if (item.kind === 'braid')
    return `for braid opened to ${odMm.toFixed(1)} keeps ${measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, odMm).toFixed(4)} of its length (yarn at ${item.yarnAngleDeg}°)`;
  if (isShrink(item)) return `for it loses ${(item.longitudinalChange * 100).toFixed(0)} % in shrinking, and overlaps its neighbour`;
  if (isTape(item))
    return `of tape: π × (${odMm.toFixed(1)} + ${item.thicknessMm}) a turn, a turn every ${(item.widthMm * (1 - item.overlap)).toFixed(1)} mm`;
  return isWrap(item) && item.lengthPerRun > 1 ? `${item.lengthPerRun} × the run, for it winds` : 'as long as the run';
}

/** Why this covering and this cut length. */
export function WhyCovering({ planned, bundle }: { planned: PlannedLoom; bundle: PlannedBundle }) {
  const shop = useShop();
  const { plan, loom } = planned;
  const covering = plan.coverings.find(({ segmentId }) => segmentId === bundle.segmentId)!;
  const { lengthMm } = plan.tree.segments[bundle.segmentId]!;
  if (covering.kind === 'none') return <>{covering.because}</>;
  const item = shop.coverings.find(({ id }) => id === covering.itemId);
  const { slideOn } = loom.segments[bundle.segmentId]!;
  return (
    <>
      <b>{COVERING_WORDS[covering.kind]}</b>, {covering.ruledBy === 'pinned' ? 'pinned' : `by the ${covering.ruledBy}`}: {covering.because}.
      {covering.runnerUp && (
        <>
          {' '}
          Next would be {covering.runnerUp.itemName}: {covering.runnerUp.whyNot}.
        </>
      )}
      <br />
      {item && `Size: ${toSizeWhy(item, bundle.odMm, covering.mustPassMm, slideOn === 'before-ends')}.`}
      <br />
      Cut for {Math.round(lengthMm)} mm: <b>{covering.cutMm} mm</b>
      {item && `, ${toCutWhy(item, bundle.odMm)}`}.
      {covering.alsoFits.length > 0 && (
        <>
          <br />
          Also fits: {covering.alsoFits.join(', ')}.
        </>
      )}
    </>
  );
}
