import type { ShopStandard } from '../../catalogue';
import { isFromTheSide, isShrink, isTape, isTube, isWrap, type CoveringItem, type Shrink, type Tape } from '../../model';
import { measureBraid } from './measureBraid';

const SLIGHT = 1e-9;
/** what shrinks is taken from a bore so much wider than what it passes to one so much tighter than what it grips (calculations 7) */
export const PASSES = 1.1;
export const GRIPS = 0.9;

/** What a size takes: bundles that it grips, thinnest and thickest, and the largest thing that it goes over; mm. */
export interface CoveringWindow {
  leastMm: number;
  mostMm: number;
  passMm: number;
}

export const measureWindow = (item: CoveringItem, standard: Pick<ShopStandard, 'braidGrip'>): CoveringWindow => ({
  ...measureGrip(item, standard),
  passMm: measurePass(item),
});

export const isGripped = ({ leastMm, mostMm }: CoveringWindow, odMm: number): boolean =>
  leastMm <= odMm + SLIGHT && odMm <= mostMm + SLIGHT;
export const isPassed = ({ passMm }: CoveringWindow, mustPassMm: number): boolean => mustPassMm <= passMm + SLIGHT;

/** Does this size grip the bundle and yet go over what it has to pass? Diameters in mm. Braid at its relaxed bore does not grip (calculations 7). */
export function isCoveringFit(
  item: CoveringItem,
  odMm: number,
  mustPassMm: number,
  standard: Pick<ShopStandard, 'braidGrip'>,
): { grips: boolean; passes: boolean } {
  const window = measureWindow(item, standard);
  return { grips: isGripped(window, odMm), passes: isPassed(window, mustPassMm) };
}

/** Bundles that this size grips, thinnest and thickest, mm. */
export function measureGrip(item: CoveringItem, { braidGrip }: Pick<ShopStandard, 'braidGrip'>): { leastMm: number; mostMm: number } {
  if (item.kind === 'braid') return { leastMm: braidGrip * item.relaxedBoreMm, mostMm: GRIPS * item.expandedBoreMm };
  if (isShrink(item)) return { leastMm: item.recoveredBoreMm / GRIPS, mostMm: item.suppliedBoreMm / PASSES };
  if (isTape(item)) return { leastMm: item.leastOdMm, mostMm: TAPED_MOST_MM };
  if (isWrap(item)) return { leastMm: item.leastOdMm, mostMm: item.mostOdMm };
  return { leastMm: item.leastOdMm, mostMm: item.fillMost * item.boreMm };
}

/** no bundle is thicker (as the schema of bores has it) */
const TAPED_MOST_MM = 300;

/** The largest thing that it goes over, mm; anything where it goes on from the side. */
function measurePass(item: CoveringItem): number {
  if (isFromTheSide(item)) return Infinity;
  if (item.kind === 'braid') return GRIPS * item.expandedBoreMm;
  if (isShrink(item)) return item.suppliedBoreMm / PASSES;
  return isTube(item) ? item.boreMm / PASSES : Infinity;
}

/**
 * Diameter over a covering on a bundle, mm. Shrink keeps the volume of its wall: the less it has to recover, the thinner it is. A tube stands
 * off; tape has as many layers as turns lie on one another; the rest adds its wall twice (calculations 7).
 */
export function measureCoveringOutside(item: CoveringItem, odMm: number): number {
  if (isShrink(item)) return measureShrunkOutside(item, odMm);
  if (isTape(item)) return odMm + (2 * item.thicknessMm) / (1 - item.overlap);
  if (isTube(item)) return item.boreMm + 2 * item.wallMm;
  return odMm + 2 * item.wallMm;
}

/** Over shrink, mm, by volume: A = π w (d + w), outside = √(OD² + 4 A / π) (craft A2). */
export const measureShrunkOutside = ({ wallMm, recoveredBoreMm }: Pick<Shrink, 'wallMm' | 'recoveredBoreMm'>, odMm: number): number =>
  Math.sqrt(odMm ** 2 + 4 * wallMm * (recoveredBoreMm + wallMm));

/** Tape for a run, mm: π (OD + t) · run / (width · (1 − overlap)) (craft A2). */
export const measureTape = (
  { widthMm, thicknessMm, overlap }: Pick<Tape, 'widthMm' | 'thicknessMm' | 'overlap'>,
  odMm: number,
  runMm: number,
) => (Math.PI * (odMm + thicknessMm) * runMm) / (widthMm * (1 - overlap));

/** Length to cut for a run so long, mm: braid shortens as it opens, shrink as it recovers and overlaps its neighbour. Whole mm, rounded up. */
export function measureCoveringCut(item: CoveringItem, runMm: number, odMm: number, overlapMm: number): number {
  const toRaw = () => {
    if (item.kind === 'braid') return runMm / measureBraid(item.yarnAngleDeg, item.relaxedBoreMm, odMm);
    if (isShrink(item)) return runMm / (1 - item.longitudinalChange) + overlapMm;
    if (isTape(item)) return measureTape(item, odMm, runMm);
    return isWrap(item) ? runMm * item.lengthPerRun : runMm;
  };
  return Math.ceil(toRaw() - 1e-6);
}
