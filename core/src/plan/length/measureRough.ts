import type { MeasureMethod } from '../../model';

/** Spread of one run by the way it was read: what each reading has of its own, and what all readings of that way share; one sigma, mm. */
export interface RunSpread {
  method: MeasureMethod;
  ownMm: number;
  sharedMm: number;
}

/**
 * Spread of a path, mm (calculations 1). The share of the length is a fault of the tape or of the way it is held: within one method it
 * adds up from run to run, while what each reading has of its own adds as squares; methods add as squares.
 */
export function measurePathSigma(runs: readonly RunSpread[]): number {
  const shared = new Map<MeasureMethod, number>();
  let squares = 0;
  for (const { method, ownMm, sharedMm } of runs) {
    squares += ownMm * ownMm;
    shared.set(method, (shared.get(method) ?? 0) + sharedMm);
  }
  for (const sumMm of shared.values()) squares += sumMm * sumMm;
  return Math.sqrt(squares);
}

/** Length to cut before the trial fit, mm: the final length and room for what the tape may be wrong by. */
export function measureRough(lengthMm: number, pathSigmaMm: number, leastExtraMm: number): number {
  return lengthMm + Math.max(leastExtraMm, 2 * pathSigmaMm);
}
