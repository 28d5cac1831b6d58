/** Spread of a path, mm: root of the sum of squares of the spreads of its runs. */
export function measurePathSigma(sigmasMm: readonly number[]): number {
  return Math.sqrt(sigmasMm.reduce((sum, sigma) => sum + sigma * sigma, 0));
}

/** Length to cut before the trial fit, mm: the final length and room for what the tape may be wrong by. */
export function measureRough(lengthMm: number, pathSigmaMm: number, leastExtraMm: number): number {
  return lengthMm + Math.max(leastExtraMm, 2 * pathSigmaMm);
}
