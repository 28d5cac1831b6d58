/** The least between two spots, mm; Infinity where there are not two. */
export const measureLeastPitch = (spots: readonly { xMm: number; yMm: number }[]): number =>
  Math.min(...spots.flatMap((a, at) => spots.slice(0, at).map((b) => Math.hypot(a.xMm - b.xMm, a.yMm - b.yMm))));
