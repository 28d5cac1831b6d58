import { createRandom } from '../../units/createRandom';
import {
  addCosts,
  chooseStretches,
  compareStrips,
  createStretchChooser,
  type StretchChooser,
  type StretchOptions,
  type StripCost,
} from './chooseStretches';
import type { LayupDecision, LayupRules, LayupStrip, Stretch } from './layupTypes';
import { listPresent, type Present } from './listPresent';
import { listClasses, orderThreads } from './orderThreads';

export interface SearchOptions extends Omit<StretchOptions, 'progress'> {
  seed: number;
  /** other orders tried in all */
  tries: number;
  /** called with the share that is done and the best so far (null: nothing yet); true: stop, the best so far stands */
  progress?(done: number, best: LayupDecision | null): boolean;
}

/** share of the work that choosing where to lay anew takes */
const FIRST = 0.4;
/** share of the tries that order whole classes otherwise */
const WHOLE = 0.5;

/**
 * The lay-up of a strip by search: where it is laid anew by a dynamic program over its breakouts, then in each stretch other orders from the
 * middle outwards: classes of what leaves together ordered as one, then one thread moved or two exchanged, kept where they cost no more. The
 * same seed gives the same lay-up; stopped early, the best so far.
 */
export function searchLayup(strip: LayupStrip, rules: LayupRules, options: SearchOptions): { decision: LayupDecision; cost: StripCost } {
  let isOver = false;
  const { progress: tellCaller, ...laying } = options;
  const progress = (done: number, best: LayupDecision | null) => (isOver ||= tellCaller?.(done, best) ?? false);
  const begun = chooseStretches(strip, rules, { ...laying, progress: (done) => progress(done * FIRST, null) });
  const choose = createStretchChooser(strip, rules, laying);
  const random = createRandom(options.seed);
  const { stretches } = begun.decision;
  const tries = Math.ceil(options.tries / stretches.length);
  const best = [...stretches];
  const better = stretches.map((stretch, index) => {
    const tell = (done: number, { chosen }: ReturnType<StretchChooser>) => {
      best[index] = chosen.stretch;
      return progress(FIRST + ((1 - FIRST) * (index + done)) / stretches.length, { stretches: best });
    };
    return searchStretch(strip, stretch, choose, { random, tries, tell });
  });
  const cost = better.slice(1).reduce((sum: StripCost, one) => addCosts(sum, one.cost), better[0]!.cost);
  return { decision: { stretches: better.map(({ chosen }) => chosen.stretch) }, cost };
}

interface StretchSearch {
  random: () => number;
  tries: number;
  /** share of this stretch that is done, and the best of it; true: stop */
  tell: (done: number, best: ReturnType<StretchChooser>) => boolean;
}

function searchStretch(
  strip: LayupStrip,
  { fromMark, toMark }: Stretch,
  choose: StretchChooser,
  { random, tries, tell }: StretchSearch,
): ReturnType<StretchChooser> {
  const classes = listClasses(listPresent(strip, fromMark, toMark));
  let order = orderThreads(classes);
  let best = choose(fromMark, toMark, order);
  if (order.length === 1) return best;
  const take = (tried: Present[]) => {
    const found = choose(fromMark, toMark, tried);
    const by = compareStrips(found.cost, best.cost);
    if (by <= 0) order = tried;
    if (by < 0) best = found;
  };
  const joins = classes.length - 1;
  const whole = Math.min(Math.ceil(tries * WHOLE), 2 ** Math.min(joins, 20) - 1);
  const isAll = whole === 2 ** joins - 1;
  for (let count = 0; count < tries; count += 1) {
    if (tell(count / tries, best)) break;
    if (count < whole) {
      // few classes: every way to join them; many: some
      const bits = isAll ? count + 1 : Math.floor(random() * 2 ** Math.min(joins, 30));
      take(orderThreads(classes, (index) => ((bits >> ((index - 1) % 30)) & 1) === 1));
    } else take(disturb(order, random));
  }
  return best;
}

/** Another order: one thread taken elsewhere, or two exchanged. */
function disturb(order: readonly Present[], random: () => number): Present[] {
  const pick = () => Math.floor(random() * order.length);
  const next = [...order];
  const [one, other] = [pick(), pick()];
  if (random() < 0.5) next.splice(other, 0, ...next.splice(one, 1));
  else [next[one], next[other]] = [next[other]!, next[one]!];
  return next;
}
