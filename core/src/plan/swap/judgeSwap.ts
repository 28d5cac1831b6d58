/** How far an end reaches: its leg from a breakout that it shares with another, and the loop that is kept in it, mm. */
export interface Reach {
  legMm: number;
  loopMm: number;
}

/** swap: each reaches the other's device; mis-plug: one does; null: neither. */
export interface Swap {
  kind: 'swap' | 'mis-plug' | null;
  /** of a mis-plug, the one that reaches */
  reaches: 'a' | 'b' | null;
  /** by how much its leg is too long not to, mm */
  excessMm: number;
}

/**
 * Does A reach B's device, and B that of A (craft A6): leg A + loop A ≥ leg B − loop B, both from the breakout that they share? Where they leave
 * at two breakouts, betweenMm of clipped bundle lie between, which each has to bridge as well.
 */
export function judgeSwap(a: Reach, b: Reach, betweenMm = 0): Swap {
  const excessA = a.legMm + a.loopMm - (betweenMm + b.legMm - b.loopMm);
  const excessB = b.legMm + b.loopMm - (betweenMm + a.legMm - a.loopMm);
  const excessMm = Math.max(excessA, excessB, 0);
  if (excessA >= 0 && excessB >= 0) return { kind: 'swap', reaches: null, excessMm };
  if (excessA >= 0) return { kind: 'mis-plug', reaches: 'a', excessMm };
  if (excessB >= 0) return { kind: 'mis-plug', reaches: 'b', excessMm };
  return { kind: null, reaches: null, excessMm };
}
