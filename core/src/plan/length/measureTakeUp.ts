/** Distance of the axes across the middle of n equal wires twisted round each other, × d: 1 for two, 1.1547 for three, 1.4142 for four (calculations 1). */
export function measurePitchDiameter(wires: number, odMm: number): number {
  if (!(Number.isInteger(wires) && wires >= 2)) throw new RangeError(`take-up: expected two wires or more, got ${wires}`);
  return odMm / Math.sin(Math.PI / wires);
}

/**
 * Take-up of a helix: wire per length of axis, √(1 + (π · pitch diameter / lay)²).
 */
export function measureTakeUp(pitchDiameterMm: number, layMm: number): number {
  if (!(layMm > 0)) throw new RangeError(`take-up: expected a lay length above 0 mm, got ${layMm}`);
  return Math.sqrt(1 + ((Math.PI * pitchDiameterMm) / layMm) ** 2);
}
