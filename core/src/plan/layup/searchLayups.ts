import type { ShopStandard } from '../../catalogue';
import type { Loom } from '../../model';
import type { PackingStore } from '../bundle/findPacking';
import type { LoomPlan } from '../types';
import { addCosts, type StripCost } from './chooseStretches';
import { listLayupStrips, toLayerPins, toLayupRules } from './planLayups';
import { searchLayup } from './searchLayup';
import { toKept } from './takeDecision';

/** How a loom is searched. */
export interface LoomSearch {
  /** the same seed gives the same lay-up */
  seed: number;
  /** orders tried in all, spread over the strips by how many threads lie in them */
  tries: number;
  /**
   * Share that is done, and what asks for the best so far: as the loom would keep it, strips that are not reached yet left out. true: stop,
   * the best so far stands.
   */
  progress?(done: number, toBest: () => Loom['laidUp']): boolean;
}

/** Orders that are tried where nobody says how many: a second or two for sixty wires. */
export const USUAL_TRIES = 400;
const BEAM = 6;

/**
 * Lay-up of every strip of a loom by search, as the loom keeps it (laidUp), and what it comes to. plan: of the loom as it is; its bundles say what
 * lies where. Empty where nothing is laid in layers.
 */
export function searchLayups(
  loom: Loom,
  plan: Pick<LoomPlan, 'tree' | 'wires' | 'bundles' | 'splices'>,
  standard: ShopStandard,
  { seed, tries, progress }: LoomSearch,
): { laidUp: Loom['laidUp']; cost: StripCost | null } {
  const strips = listLayupStrips({ loom, standard, ...plan });
  const wires = new Map(plan.wires.map((wire) => [wire.id, wire]));
  const packings: PackingStore = new Map();
  const pins = toLayerPins(loom);
  const weigh = (threads: number, marks: number) => threads * marks;
  const whole = strips.reduce((sum, { threads, marks }) => sum + weigh(threads.length, marks.length), 0);
  const laidUp: Loom['laidUp'] = {};
  let cost: StripCost | null = null;
  let before = 0;
  for (const strip of strips) {
    const share = weigh(strip.threads.length, strip.marks.length) / whole;
    const found = searchLayup(strip, toLayupRules(standard, strip, wires), {
      ...{ beam: BEAM, pins, packings, seed, tries: Math.ceil(tries * share) },
      progress: (done, best) =>
        progress?.(before + share * done, () => (best ? { ...laidUp, [strip.id]: toKept(strip, best, pins) } : { ...laidUp })) ?? false,
    });
    before += share;
    laidUp[strip.id] = toKept(strip, found.decision, pins);
    cost = cost === null ? found.cost : addCosts(cost, found.cost);
  }
  return { laidUp, cost };
}
