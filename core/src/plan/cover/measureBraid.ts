/**
 * How much of its length an expandable braid keeps when it is opened: L/L₀ = tan θ₀ · √(1/sin²θ₀ − (D/D₀)²),
 * θ₀ the angle of the yarn to the axis when relaxed (a yarn keeps its length as the helix opens).
 *
 * @returns 1 at the relaxed bore, less when opened
 * @throws RangeError where the yarn is too short to open so far
 */
export function measureBraid(yarnAngleDeg: number, relaxedBoreMm: number, boreMm: number): number {
  const angle = (yarnAngleDeg * Math.PI) / 180;
  const squared = 1 / Math.sin(angle) ** 2 - (boreMm / relaxedBoreMm) ** 2;
  if (!(squared > 0)) throw new RangeError(`braid ${relaxedBoreMm}: cannot open to ${boreMm} mm`);
  return Math.tan(angle) * Math.sqrt(squared);
}
