import { measurePackingBound } from '../bundle/packCircles';
import type { LayupRules, LayupStrip } from './layupTypes';

/** of a strip lies beyond the breakout at which it is laid anew, on average */
const BEYOND = 0.5;

/**
 * What a millimetre less of diameter is worth from a mark to the next, in the shop's money: the shop lays anew at a breakout where that takes a
 * share off the diameter of what is left, so that share over what is left is worth as much as laying anew. Measured against the least diameter
 * there could be.
 */
export function measureOdWorth({ marks, threads }: LayupStrip, mark: number, { relayCost, relayThinner }: LayupRules): number {
  const here = threads.filter(({ from, to }) => from.mark <= mark && mark < to.mark);
  if (here.length === 0) return 0;
  const share = (marks[mark + 1]!.mm - marks[mark]!.mm) / marks.at(-1)!.mm;
  return ((relayCost / relayThinner) * share) / BEYOND / measurePackingBound(here.map(({ odMm }) => odMm));
}
