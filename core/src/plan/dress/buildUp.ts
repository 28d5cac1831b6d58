import type { Shrink } from '../../model';
import { GRIPS, measureShrunkOutside, PASSES } from '../cover/measureCovering';

/** A sleeve of a build-up: what it shrinks on, and over it. */
export interface BuiltPiece {
  sleeve: Shrink;
  underMm: number;
  overMm: number;
}

const MOST_PIECES = 4;

/**
 * Sleeves one over the other until the leg is thick enough for what goes over it (craft A3): as few as do; of those the widest that grips
 * the leg first, the narrowest that is enough last, each wider than the one beneath. From the wire outwards; null: no four of them do.
 *
 * @param sleeves what may be taken
 * @param atMostMm what goes over them does not pass more
 */
export function buildUp(sleeves: readonly Shrink[], odMm: number, atLeastMm: number, atMostMm = Infinity): BuiltPiece[] | null {
  if (odMm >= atLeastMm - 1e-9) return [];
  const bySize = [...sleeves].sort((a, b) => a.suppliedBoreMm - b.suppliedBoreMm);
  for (let pieces = 1; pieces <= MOST_PIECES; pieces += 1) {
    const found = stack(bySize, { odMm, wider: 0, pieces }, atLeastMm, atMostMm);
    if (found) return found;
  }
  return null;
}

function stack(
  sleeves: readonly Shrink[],
  { odMm, wider, pieces }: { odMm: number; wider: number; pieces: number },
  atLeastMm: number,
  atMostMm: number,
): BuiltPiece[] | null {
  const gripping = sleeves
    .filter(({ suppliedBoreMm, recoveredBoreMm }) => suppliedBoreMm > wider && isGripping(suppliedBoreMm, recoveredBoreMm, odMm))
    .map((sleeve) => ({ sleeve, underMm: odMm, overMm: measureShrunkOutside(sleeve, odMm) }));
  if (pieces === 1) {
    const last = gripping.find(({ overMm }) => overMm >= atLeastMm - 1e-9 && overMm <= atMostMm + 1e-9);
    return last ? [last] : null;
  }
  for (const piece of gripping.reverse()) {
    const rest = stack(sleeves, { odMm: piece.overMm, wider: piece.sleeve.suppliedBoreMm, pieces: pieces - 1 }, atLeastMm, atMostMm);
    if (rest) return [piece, ...rest];
  }
  return null;
}

/** Does a bore go over this diameter as supplied and close on it? */
export const isGripping = (suppliedMm: number, recoveredMm: number, odMm: number): boolean =>
  suppliedMm >= PASSES * odMm - 1e-9 && recoveredMm <= GRIPS * odMm + 1e-9;
