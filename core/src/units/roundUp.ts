/** Round a length up to the next multiple of the step, both mm. A hair (1e-6 mm) over a multiple does not cost a step. */
export function roundUp(lengthMm: number, stepMm: number): number {
  if (!(stepMm > 0)) throw new RangeError(`cutting increment: expected more than 0 mm, got ${stepMm}`);
  return Math.max(0, Math.ceil((lengthMm - 1e-6) / stepMm) * stepMm);
}
