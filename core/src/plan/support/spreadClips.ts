/** How a run ends, for what holds it. */
export interface HeldRun {
  lengthMm: number;
  /** most from one clip to the next */
  everyMm: number;
  /** a clip within this of a connector, a hole or a breakout */
  firstMm: number;
  /** it begins at a connector or a hole: one clip near it; else it begins at a breakout, which is held already */
  isHeldNear: boolean;
  /** moves in use: held where it begins and ends to move, and not between */
  moves: boolean;
}

/** Clips between two fixed ends that are no further apart than given (craft A7): 1,850 mm at 200 take 9. */
export const countBetween = (lengthMm: number, everyMm: number): number => Math.max(0, Math.ceil(lengthMm / everyMm - 1e-9) - 1);

/** Where a run is held, mm from where it begins: as few clips as will do, evenly between the first and the last. */
export function spreadClips({ lengthMm, everyMm, firstMm, isHeldNear, moves }: HeldRun): number[] {
  // as near to a connector or a hole as the first would be
  if (lengthMm <= firstMm) return [];
  const edge = Math.min(firstMm, everyMm, moves ? lengthMm / 4 : Infinity);
  const last = lengthMm - edge;
  if (moves) return [edge, last];
  const start = isHeldNear ? edge : 0;
  if (start >= last) return [lengthMm / 2];
  const between = countBetween(last - start, everyMm);
  const step = (last - start) / (between + 1);
  const inner = Array.from({ length: between }, (_, at) => start + step * (at + 1));
  return [...(isHeldNear ? [start] : []), ...inner, last];
}

/** The longest that hangs free beyond what is asked, of a run that is clipped at these places; null: nowhere too long. What moves hangs free by intent. */
export function findFree(
  { lengthMm, everyMm, firstMm, isHeldNear, moves }: HeldRun,
  atMm: readonly number[],
): { fromMm: number; toMm: number; mostMm: number } | null {
  if (lengthMm <= firstMm || moves) return null;
  const first = Math.min(firstMm, everyMm);
  const places = [0, ...atMm, lengthMm];
  const gaps = places.slice(1).map((toMm, at) => {
    const isFirst = at === 0 && isHeldNear;
    return { fromMm: places[at]!, toMm, mostMm: isFirst || at === atMm.length ? first : everyMm };
  });
  const over = ({ fromMm, toMm, mostMm }: (typeof gaps)[number]) => toMm - fromMm - mostMm;
  const worst = gaps.reduce((most, gap) => (over(gap) > over(most) ? gap : most));
  return over(worst) > 1e-6 ? worst : null;
}
