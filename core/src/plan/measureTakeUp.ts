/**
 * Take-up of a helix: wire per length of axis, √(1 + (π · pitch diameter / lay)²). For a twisted pair the pitch
 * diameter is the distance between the two axes, so d for equal wires.
 */
export function measureTakeUp(pitchDiameterMm: number, layMm: number): number {
  if (!(layMm > 0)) throw new RangeError(`take-up: expected a lay length above 0 mm, got ${layMm}`);
  return Math.sqrt(1 + ((Math.PI * pitchDiameterMm) / layMm) ** 2);
}
