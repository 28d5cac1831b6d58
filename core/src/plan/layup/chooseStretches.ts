import type { PackingStore } from '../bundle/findPacking';
import { chooseLayers, type ChosenStretch } from './chooseLayers';
import type { LayupDecision, LayupRules, LayupStrip } from './layupTypes';
import { listPresent, type Present } from './listPresent';
import { listClasses, orderThreads } from './orderThreads';
import { measureOdWorth } from './measureOdWorth';
import { measureOdAt, sizeLayers } from './sizeLayers';

/** By what a strip is laid up. */
export interface StretchOptions {
  /** beginnings kept (chooseLayers) */
  beam: number;
  pins: ReadonlyMap<string, number>;
  packings: PackingStore;
  /** only laid, not judged by where it would be due to be laid anew */
  isQuick?: boolean;
  /** called between stretches with the share that is done; true: stop, the best so far stands */
  progress?(done: number): boolean;
}

/** What a strip comes to: pins, crossings, then money, then how thick it is over its length. */
export interface StripCost {
  unpinned: number;
  crossings: number;
  /** fillers, laying anew, and what it would have been worth where it is not */
  money: number;
  fillers: number;
  fillerMm: number;
  /** diameter times length, mm² */
  odAreaMm2: number;
}

const NOTHING: StripCost = { unpinned: 0, crossings: 0, money: 0, fillers: 0, fillerMm: 0, odAreaMm2: 0 };
/** what not laying anew costs more than laying anew where it is due, so that it is done */
const DUE = 1.01;

export function compareStrips(a: StripCost, b: StripCost): number {
  if (a.unpinned !== b.unpinned) return a.unpinned - b.unpinned;
  if (a.crossings !== b.crossings) return a.crossings - b.crossings;
  if (Math.abs(a.money - b.money) > 1e-9) return a.money - b.money;
  return a.odAreaMm2 - b.odAreaMm2;
}

/** What two stretches come to. */
export const addCosts = (a: StripCost, b: StripCost): StripCost => ({
  unpinned: a.unpinned + b.unpinned,
  crossings: a.crossings + b.crossings,
  money: a.money + b.money,
  fillers: a.fillers + b.fillers,
  fillerMm: a.fillerMm + b.fillerMm,
  odAreaMm2: a.odAreaMm2 + b.odAreaMm2,
});

/** One stretch laid in a given order, as dear as it is; null: what is pinned fits nowhere. */
export type StretchChooser = (fromMark: number, toMark: number, order?: readonly Present[]) => { chosen: ChosenStretch; cost: StripCost };

/** What one stretch costs, whatever comes before and after it. */
export function createStretchChooser(
  strip: LayupStrip,
  rules: LayupRules,
  { beam, pins, packings, isQuick }: StretchOptions,
): StretchChooser {
  const relays = listRelayMarks(strip);
  const last = strip.marks.length - 1;
  const odWorths = strip.marks.slice(1).map((_, mark) => measureOdWorth(strip, mark, rules));
  const fresh = new Map<number, number>();
  const choose = (fromMark: number, toMark: number, order: readonly Present[]) => {
    const here = new Set(order.map(({ thread }) => thread.id));
    const pinned = new Map([...pins].filter(([id]) => here.has(id)));
    const kept = chooseLayers(strip, { fromMark, toMark }, rules, { order, beam, pins: pinned, packings, odWorths });
    if (kept) return kept;
    const free = chooseLayers(strip, { fromMark, toMark }, rules, { order, beam, pins: new Map(), packings, odWorths })!;
    return { ...free, cost: { ...free.cost, unpinned: pinned.size } };
  };
  /** how thin it would be from here on if it were laid anew */
  const toFresh = (mark: number) => {
    let od = fresh.get(mark);
    if (od === undefined) {
      const { stretch } = choose(mark, last, orderThreads(listClasses(listPresent(strip, mark, last))));
      fresh.set(mark, (od = measureOdAt(sizeLayers(strip, stretch, rules, packings), mark)));
    }
    return od;
  };
  return (fromMark, toMark, order = orderThreads(listClasses(listPresent(strip, fromMark, toMark)))) => {
    const chosen = choose(fromMark, toMark, order);
    const layers = sizeLayers(strip, chosen.stretch, rules, packings);
    const due = (isQuick ? [] : relays).filter(
      (mark) => mark > fromMark && mark < toMark && measureOdAt(layers, mark) * (1 - rules.relayThinner) >= toFresh(mark) - 1e-9,
    );
    const { unpinned, crossings, fillers, fillerMm } = chosen.cost;
    let money = (fillerMm / 1000) * rules.fillerPerM + fillers * rules.fillerEach;
    money += (fromMark > 0 ? rules.relayCost : 0) + due.length * DUE * rules.relayCost;
    let odAreaMm2 = 0;
    for (let mark = fromMark; mark < toMark; mark += 1) {
      const odMm = measureOdAt(layers, mark);
      odAreaMm2 += odMm * (strip.marks[mark + 1]!.mm - strip.marks[mark]!.mm);
      money += odMm * odWorths[mark]!;
    }
    return { chosen, cost: { unpinned, crossings, money, fillers, fillerMm, odAreaMm2 } };
  };
}

/** Breakouts within a strip: where it may be tied and laid anew. */
export const listRelayMarks = ({ marks }: LayupStrip): number[] => marks.flatMap(({ kind }, mark) => (kind === 'breakout' ? [mark] : []));

/**
 * Where a strip is laid anew, and the layers of each stretch: exact over all ways to cut it at its breakouts, each stretch by itself as
 * chooseLayers finds it.
 */
export function chooseStretches(
  strip: LayupStrip,
  rules: LayupRules,
  options: StretchOptions,
): { decision: LayupDecision; cost: StripCost } {
  const choose = createStretchChooser(strip, rules, options);
  const cuts = [0, ...listRelayMarks(strip), strip.marks.length - 1];
  const best: ({ cost: StripCost; from: number; chosen: ChosenStretch } | null)[] = cuts.map(() => null);
  const pairs = (cuts.length * (cuts.length - 1)) / 2;
  let done = 0;
  for (let to = 1; to < cuts.length; to += 1)
    for (let from = 0; from < to; from += 1) {
      const before = from === 0 ? NOTHING : best[from]!.cost;
      const { chosen, cost } = choose(cuts[from]!, cuts[to]!);
      const whole = addCosts(before, cost);
      const known = best[to];
      if (!known || compareStrips(whole, known.cost) < 0) best[to] = { cost: whole, from, chosen };
      done += 1;
      if (options.progress?.(done / pairs)) return chooseAtOnce(strip, rules, options);
    }
  const stretches: LayupDecision['stretches'][number][] = [];
  for (let to = cuts.length - 1; to > 0; to = best[to]!.from) stretches.unshift(best[to]!.chosen.stretch);
  return { decision: { stretches }, cost: best.at(-1)!.cost };
}

/** The quick and safe answer: laid once from end to end. */
export function chooseAtOnce(strip: LayupStrip, rules: LayupRules, options: StretchOptions): { decision: LayupDecision; cost: StripCost } {
  const { chosen, cost } = createStretchChooser(strip, rules, { ...options, isQuick: true })(0, strip.marks.length - 1);
  return { decision: { stretches: [chosen.stretch] }, cost };
}
