import type { ShopStandard } from '../../catalogue';
import type { PackingStore } from '../bundle/findPacking';
import type { PlannedLayup, SizedWire } from '../types';
import { createStretchChooser, listRelayMarks } from './chooseStretches';
import { toLayupRules } from './planLayups';
import { measureOdAt, sizeLayers } from './sizeLayers';
import type { LaidStretch, Stretch } from './layupTypes';

/** What one way to go on from a breakout comes to. */
export interface WayOn {
  /** over the wires from there on, mm */
  odMm: number;
  fillers: number;
  fillerMm: number;
  minutes: number;
  /** in the shop's money */
  cost: number;
}

/** A breakout of a strip, what is done there, and what each of the three would come to (craft A1). */
export interface PricedBreakout {
  mark: number;
  /** threads that end or begin there */
  ends: string[];
  begins: string[];
  taken: 'fill' | 'relay' | 'drop' | 'on';
  /** the layer goes on, dead wire where something left; null: no layer thins */
  fill: WayOn | null;
  /** threads that would have to pass a layer if it were not laid anew here */
  crossedElse: number;
  /** tied and laid anew up to where that would be done next */
  relay: WayOn;
  /** the outermost layer ends: what is left of it goes on straight, along the outside; null: none thins, or there is nothing beneath */
  drop: (WayOn & { straight: number }) | null;
}

/** Every breakout of a strip with its three ways on. */
export function priceBreakouts(
  layup: PlannedLayup,
  standard: ShopStandard,
  wires: ReadonlyMap<string, SizedWire>,
  packings: PackingStore = new Map(),
): PricedBreakout[] {
  const rules = toLayupRules(standard, layup, wires);
  const choose = createStretchChooser(layup, rules, { beam: 4, pins: new Map(), packings, isQuick: true });
  const { marks, threads, stretches } = layup;
  const toWay = (odMm: number, fillers: number, fillerMm: number, minutes: number): WayOn => ({
    ...{ odMm, fillers, fillerMm, minutes: minutes + fillers * standard.fillerMinutes },
    cost: (fillerMm / 1000) * standard.fillerPerM + ((minutes + fillers * standard.fillerMinutes) / 60) * standard.labourPerHour,
  });
  return listRelayMarks(layup).map((mark): PricedBreakout => {
    const ends = threads.filter(({ to }) => to.mark === mark).map(({ id }) => id);
    const begins = threads.filter(({ from }) => from.mark === mark).map(({ id }) => id);
    const isRelaid = stretches.some(({ fromMark }) => fromMark === mark);
    const before = stretches.find(({ fromMark, toMark }) => fromMark < mark && mark <= toMark)!;
    const until = isRelaid ? stretches.find(({ fromMark }) => fromMark === mark)!.toMark : before.toMark;
    // as it was laid before, gone on with
    const stretch = { ...toStretch(before), toMark: until };
    const goesOn = new Set(threads.filter(({ from, to }) => from.mark <= mark && mark < to.mark).map(({ id }) => id));
    const alive = before.layers.map(({ slots }) => slots.filter(({ threadId }) => threadId !== null && goesOn.has(threadId)));
    const outer = alive.findLastIndex((slots) => slots.length > 0);
    const spanMm = marks[until]!.mm - marks[mark]!.mm;
    const dead = before.layers
      .slice(0, outer + 1)
      .flatMap(({ slots }) => slots.filter(({ threadId }) => threadId === null || !goesOn.has(threadId)));
    const sized = sizeLayers(layup, { ...stretch, toMark: before.toMark }, rules, packings);
    const odOn = outer < 0 ? 0 : 2 * sized[outer]!.outerRadiusMm;
    const fresh = isRelaid ? toRelaid(layup, mark) : choose(mark, until).chosen;
    const odFresh = measureOdAt(sizeLayers(layup, fresh.stretch, rules, packings), mark);
    const thins = outer >= 0 && alive[outer]!.length < before.layers[outer]!.slots.length;
    const ringed =
      outer > 0
        ? before.layers.slice(0, outer).flatMap(({ slots }) => slots.filter(({ threadId }) => threadId === null || !goesOn.has(threadId)))
        : [];
    const most = outer > 0 ? Math.max(0, ...alive[outer]!.map(({ odMm }) => odMm)) : 0;
    const taken = isRelaid ? 'relay' : outer < before.layers.length - 1 && ends.length ? 'drop' : thins ? 'fill' : 'on';
    return {
      ...{ mark, ends, begins, taken },
      crossedElse: isRelaid ? choose(before.fromMark, until).cost.crossings : 0,
      fill: outer < 0 ? null : toWay(odOn, dead.length, dead.length * spanMm, 0),
      relay: toWay(odFresh, fresh.cost.fillers, fresh.cost.fillerMm, standard.relayMinutes),
      drop:
        outer > 0 && thins
          ? {
              ...toWay(2 * sized[outer - 1]!.outerRadiusMm + 2 * most, ringed.length, ringed.length * spanMm, 0),
              straight: alive[outer]!.length,
            }
          : null,
    };
  });
}

const toStretch = ({ fromMark, toMark, layers }: LaidStretch): Stretch => ({
  fromMark,
  toMark,
  layers: layers.map(({ slots }) => slots.flatMap(({ threadId }) => (threadId === null ? [] : [threadId]))),
  coreFillers: layers[0]!.slots.filter(({ threadId }) => threadId === null).length,
});

/** What is laid anew there, as it is planned. */
function toRelaid({ stretches, fillers }: PlannedLayup, mark: number): { stretch: Stretch; cost: { fillers: number; fillerMm: number } } {
  const at = stretches.findIndex(({ fromMark }) => fromMark === mark);
  const dead = fillers.filter(({ stretch }) => stretch === at);
  return {
    stretch: toStretch(stretches[at]!),
    cost: { fillers: dead.length, fillerMm: dead.reduce((sum, { fromMm, toMm }) => sum + toMm - fromMm, 0) },
  };
}
