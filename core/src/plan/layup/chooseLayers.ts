import { pushTo } from '../../units';
import { findPacking, type PackingStore } from '../bundle/findPacking';
import type { LayupCost, LayupRules, LayupStrip, Stretch } from './layupTypes';
import { isOver, type Present } from './listPresent';
import { chooseFiller, countFillers, measureLay, measureRoom, measureTurn } from './measureLayer';

/** Most elements of a core (calculations 6). */
const MOST_IN_CORE = 5;

/** threads still to be laid above which short layers are not looked at, and how short that is */
const MANY = 300;
const FEW_FILLERS = 3;

/** How a stretch is to be laid: from which order, with how many beginnings kept, and what was put where by hand. */
export interface LayerOptions {
  /** threads of the stretch from the middle outwards; those of one layer are taken one after another */
  order: readonly Present[];
  /** beginnings kept for each count of threads laid */
  beam: number;
  /** layer by thread id, the core 0 */
  pins: ReadonlyMap<string, number>;
  packings: PackingStore;
  /** of each mark: what a millimetre less is worth up to the next (measureOdWorth) */
  odWorths: readonly number[];
}

export interface ChosenStretch {
  stretch: Stretch;
  cost: LayupCost;
}

/** Layers as far as they are chosen, from the core outwards. */
interface Beginning {
  /** threads of the order that they hold */
  taken: number;
  radiusMm: number;
  /** is this a core of two: not round */
  isPair: boolean;
  layers: number;
  slots: number;
  fromMm: number;
  toMm: number;
  unpinned: number;
  crossings: number;
  fillerMm: number;
  /** pieces of dead wire */
  fillers: number;
  before: Beginning | null;
  /** what its last layer takes: pins, and of the order from where the one before ended */
  forced: readonly Present[];
  /** dead wire in its core */
  coreFillers: number;
  /** layers of pins that are laid */
  pinsLaid: number;
}

/** What is pinned, to be taken at its layer; what of it lies over a mark. */
type Pinned = readonly { layer: number; members: readonly Present[] }[];

interface Context {
  rules: LayupRules;
  options: LayerOptions;
  worth: Worth;
  pinned: Pinned;
  /** by mark: when so many are taken, none of the rest goes on past it */
  freeAt: Int32Array;
}

/** Which of two is better: pins, then crossings, then dead wire and diameter by what they are worth (docs/decisions/0023). */
function compareBegun(a: Beginning, b: Beginning, { fillerPerMm, fillerEach, radiusPerMm }: Worth): number {
  if (a.unpinned !== b.unpinned) return a.unpinned - b.unpinned;
  if (a.crossings !== b.crossings) return a.crossings - b.crossings;
  const money = (a.fillerMm - b.fillerMm) * fillerPerMm + (a.fillers - b.fillers) * fillerEach + (a.radiusMm - b.radiusMm) * radiusPerMm;
  // dead wire in the core is the worse of two: it is under everything when it is forgotten
  return Math.abs(money) > 1e-9 ? money : a.coreFillers - b.coreFillers;
}

/** In the shop's money. */
interface Worth {
  fillerPerMm: number;
  /** a piece */
  fillerEach: number;
  radiusPerMm: number;
}

/** What a stretch is worth being thinner, as if it were as thick all along. */
function measureWorth(odWorths: readonly number[], fromMark: number, toMark: number, rules: LayupRules): Worth {
  let radiusPerMm = 0;
  for (let mark = fromMark; mark < toMark; mark += 1) radiusPerMm += 2 * odWorths[mark]!;
  return { fillerPerMm: rules.fillerPerM / 1000, fillerEach: rules.fillerEach, radiusPerMm };
}

/**
 * Layers of one stretch: best by crossings, fillers, diameter among those that take an order from the core outwards, as far as the beam
 * keeps their beginnings (a dynamic program over how many are laid). null: what is pinned does not fit where it is pinned.
 */
export function chooseLayers(
  strip: LayupStrip,
  { fromMark, toMark }: Pick<Stretch, 'fromMark' | 'toMark'>,
  rules: LayupRules,
  options: LayerOptions,
): ChosenStretch | null {
  const free = options.order.filter(({ thread }) => !options.pins.has(thread.id));
  const pinned = toPinned(options);
  const worth = measureWorth(options.odWorths, fromMark, toMark, rules);
  const context: Context = { rules, options: { ...options, order: free }, worth, pinned, freeAt: measureFreeAt(free, strip.marks.length) };
  const begun: Beginning[][] = Array.from({ length: free.length + 1 }, () => []);
  const keep = (one: Beginning) => keepBest(begun[one.taken]!, one, context);
  for (const core of listCores(context)) keep(core);
  let best: Beginning | null = null;
  for (let taken = 0; taken <= free.length; taken += 1) {
    // what is put on pins alone joins the list that is walked
    for (let at = 0; at < begun[taken]!.length; at += 1) {
      const one = begun[taken]![at]!;
      if (taken === free.length && one.pinsLaid === pinned.length) {
        if (best === null || compareBegun(one, best, worth) < 0) best = one;
      } else listNext(context, one).forEach(keep);
    }
  }
  if (best === null) return null;
  const layers: string[][] = [];
  for (let one: Beginning | null = best; one; one = one.before) {
    layers.unshift(listLast(context, one).map(({ thread }) => thread.id));
  }
  const { unpinned, crossings, fillers, fillerMm, radiusMm } = best;
  return {
    stretch: { fromMark, toMark, layers, coreFillers: best.coreFillers },
    cost: { unpinned, crossings, fillers, fillerMm, odMm: 2 * radiusMm },
  };
}

function toPinned({ order, pins }: LayerOptions): Pinned {
  const byLayer = new Map<number, Present[]>();
  for (const one of order) {
    const layer = pins.get(one.thread.id);
    if (layer !== undefined) pushTo(byLayer, layer, one);
  }
  return [...byLayer].map(([layer, members]) => ({ layer, members })).sort((a, b) => a.layer - b.layer);
}

/** Pinned threads that are still to be laid after so many layers of pins. */
const listRest = (pinned: Pinned, pinsLaid: number) => pinned.slice(pinsLaid).flatMap(({ members }) => members);

function measureFreeAt(order: readonly Present[], marks: number): Int32Array {
  const freeAt = new Int32Array(marks);
  order.forEach(({ thread }, at) => {
    for (let mark = thread.from.mark + 1; mark < thread.to.mark; mark += 1) freeAt[mark] = at + 1;
  });
  return freeAt;
}

/** Keep it where no other that has taken as much is at least as good in everything; the worst falls out. */
function keepBest(kept: Beginning[], one: Beginning, { options: { beam }, pinned, worth }: Context): void {
  const hasPins = pinned.length > 0;
  const isBeaten = (a: Beginning, b: Beginning) =>
    (!hasPins || (b.layers === a.layers && b.pinsLaid === a.pinsLaid)) &&
    b.unpinned <= a.unpinned &&
    b.crossings <= a.crossings &&
    b.fillerMm <= a.fillerMm + 1e-9 &&
    b.fillers <= a.fillers &&
    b.radiusMm <= a.radiusMm + 1e-9 &&
    b.isPair === a.isPair &&
    b.coreFillers <= a.coreFillers;
  if (kept.some((other) => isBeaten(one, other))) return;
  for (let at = kept.length - 1; at >= 0; at -= 1) if (isBeaten(kept[at]!, one)) kept.splice(at, 1);
  kept.push(one);
  if (kept.length <= beam) return;
  let worst = 0;
  for (let at = 1; at < kept.length; at += 1) if (compareBegun(kept[at]!, kept[worst]!, worth) > 0) worst = at;
  kept.splice(worst, 1);
}

/** Cores of one to five, one of them filler or the only one where that is better. */
function listCores({ rules, options: { order, packings }, pinned, freeAt }: Context): Beginning[] {
  const cores: Beginning[] = [];
  const forced = pinned[0]?.layer === 0 ? pinned[0].members : [];
  const pinsLaid = forced.length ? 1 : 0;
  if (forced.length > MOST_IN_CORE) return [];
  const thickest = Math.max(...order.map(({ thread }) => thread.odMm), ...forced.map(({ thread }) => thread.odMm), 0);
  for (let free = 0; free <= Math.min(order.length, MOST_IN_CORE - forced.length); free += 1) {
    const members = [...forced, ...order.slice(0, free)];
    for (const coreFillers of members.length === 0 ? [1] : members.length < MOST_IN_CORE ? [0, 1] : [0]) {
      const fillerOdMm = chooseFiller(members.length ? Math.max(...members.map(({ thread }) => thread.odMm)) : thickest, rules);
      const ods = [...members.map(({ thread }) => thread.odMm), ...Array.from({ length: coreFillers }, () => fillerOdMm)];
      const odMm = findPacking(
        packings,
        ods.sort((a, b) => b - a),
      ).packing.odMm;
      const [fromMm, toMm] = measureHull(members);
      const realMm = members.reduce((sum, one) => sum + one.toMm - one.fromMm, 0);
      cores.push({
        taken: free,
        radiusMm: odMm / 2,
        isPair: ods.length === 2,
        layers: 1,
        slots: ods.length,
        fromMm,
        toMm,
        unpinned: 0,
        crossings: countCrossings(members, free, freeAt, listRest(pinned, pinsLaid)),
        fillerMm: ods.length * measureSpan(fromMm, toMm) - realMm,
        fillers: coreFillers + countShort(members, fromMm, toMm),
        before: null,
        forced,
        coreFillers,
        pinsLaid,
      });
    }
  }
  return cores;
}

const measureSpan = (fromMm: number, toMm: number) => Math.max(0, toMm - fromMm);

/** From where to where a layer of these lies; of none: nowhere, to be widened by what lies over it. */
function measureHull(members: readonly Present[]): [number, number] {
  let [from, to] = [Infinity, -Infinity];
  for (const { fromMm, toMm } of members) [from, to] = [Math.min(from, fromMm), Math.max(to, toMm)];
  return [from, to];
}

/** Of these how many are not there from end to end: dead wire takes their place. */
const countShort = (members: readonly Present[], hullFromMm: number, hullToMm: number) =>
  members.reduce((sum, { fromMm, toMm }) => sum + (fromMm > hullFromMm + 1e-9 ? 1 : 0) + (toMm < hullToMm - 1e-9 ? 1 : 0), 0);

/** Exits of these past what is laid over them when so many are taken: each exit once, however many it passes. */
function countCrossings(members: readonly Present[], taken: number, freeAt: Int32Array, pinnedOver: readonly Present[]): number {
  let crossings = 0;
  for (const { exits } of members)
    for (const mark of exits) if (freeAt[mark]! > taken || pinnedOver.some(({ thread }) => isOver(thread, mark))) crossings += 1;
  return crossings;
}

/** The same as the layer grows, one more taken each time: what lies over it gets less. */
function createCrossings({ freeAt }: Context, pinnedOver: readonly Present[]) {
  let always = 0;
  const open = new Map<number, number>();
  let now = 0;
  return {
    add(marks: readonly number[]): void {
      for (const mark of marks) {
        if (pinnedOver.length && pinnedOver.some(({ thread }) => isOver(thread, mark))) always += 1;
        else {
          open.set(freeAt[mark]!, (open.get(freeAt[mark]!) ?? 0) + 1);
          now += 1;
        }
      }
    },
    count(taken: number): number {
      if (now === 0) return always;
      for (const [at, exits] of open)
        if (at <= taken) {
          now -= exits;
          open.delete(at);
        }
      return always + now;
    },
  };
}

/** The same as countShort, as a layer grows. */
function createShort() {
  const [froms, tos] = [new Map<number, number>(), new Map<number, number>()];
  let count = 0;
  const put = (map: Map<number, number>, key: number) => map.set(key, (map.get(key) ?? 0) + 1);
  return {
    add({ fromMm, toMm }: Present): void {
      put(froms, fromMm);
      put(tos, toMm);
      count += 1;
    },
    count: (hullFromMm: number, hullToMm: number) => 2 * count - (froms.get(hullFromMm) ?? 0) - (tos.get(hullToMm) ?? 0),
  };
}

/** Threads of its last layer. */
const listLast = ({ options: { order } }: Context, { forced, before, taken }: Beginning): Present[] => [
  ...forced,
  ...order.slice(before?.taken ?? 0, taken),
];

/** Every layer that these could get next. */
function listNext(context: Context, from: Beginning): Beginning[] {
  const { rules, pinned, options } = context;
  const { order } = options;
  const turn = measureTurn(from.isPair, rules);
  const rest = order.length - from.taken;
  const pin = pinned[from.pinsLaid];
  const isPinned = pin !== undefined && (pin.layer === from.layers || rest === 0);
  const forced = isPinned ? pin.members : [];
  const pinsLaid = from.pinsLaid + (isPinned ? 1 : 0);
  const next: Beginning[] = [];
  const crossing = createCrossings(context, listRest(pinned, pinsLaid));
  const short = createShort();
  let count = 0;
  const counts = new Map<number, number>();
  let [mostOdMm, used, realMm, fromMm, toMm] = [0, 0, 0, Infinity, -Infinity];
  let rooms = new Map<number, number>();
  const toRoom = (odMm: number, layMm: number) => {
    let room = rooms.get(odMm);
    if (room === undefined) rooms.set(odMm, (room = measureRoom(odMm, from.radiusMm, layMm)));
    return room;
  };
  let layMm = 0;
  const add = (one: Present) => {
    const { odMm } = one.thread;
    count += 1;
    counts.set(odMm, (counts.get(odMm) ?? 0) + 1);
    crossing.add(one.exits);
    short.add(one);
    realMm += one.toMm - one.fromMm;
    [fromMm, toMm] = [Math.min(fromMm, one.fromMm), Math.max(toMm, one.toMm)];
    if (odMm <= mostOdMm) {
      used += toRoom(odMm, layMm);
      return;
    }
    mostOdMm = odMm;
    layMm = measureLay(2 * (from.radiusMm + odMm), rules);
    rooms = new Map();
    used = 0;
    for (const [od, times] of counts) used += times * toRoom(od, layMm);
  };
  // what is spliced in the layer beneath: its other wires come up in this one at most
  for (const { joints } of listLast(context, from)) crossing.add(joints);
  forced.forEach(add);
  for (let free = 0; free <= rest; free += 1) {
    if (free > 0) add(order[from.taken + free - 1]!);
    if (count === 0) continue;
    if (used > turn + 1e-9) {
      if (used > turn * 1.2) break;
      continue;
    }
    const fillerOdMm = chooseFiller(mostOdMm, rules);
    const fillers = countFillers(turn - used, toRoom(fillerOdMm, layMm));
    // of very many only layers that are all but full are looked at: anything less is dearer
    if (rest > MANY && fillers > FEW_FILLERS && free < rest && !isPinned) continue;
    const [hullFrom, hullTo] = [Math.min(from.fromMm, fromMm), Math.max(from.toMm, toMm)];
    // what lies beneath goes on as dead wire as far as this layer does
    const beneathMm = from.slots * (hullTo - hullFrom - measureSpan(from.fromMm, from.toMm));
    const slots = count + fillers;
    const taken = from.taken + free;
    const isWider = from.slots > 0 && hullTo - hullFrom > measureSpan(from.fromMm, from.toMm) + 1e-9;
    next.push({
      taken,
      radiusMm: from.radiusMm + Math.max(mostOdMm, fillers ? fillerOdMm : 0),
      isPair: false,
      layers: from.layers + 1,
      slots: from.slots + slots,
      fromMm: hullFrom,
      toMm: hullTo,
      unpinned: from.unpinned + (isPinned && pin.layer !== from.layers ? forced.length : 0),
      crossings: from.crossings + crossing.count(taken),
      fillerMm: from.fillerMm + beneathMm + slots * (toMm - fromMm) - realMm,
      fillers: from.fillers + fillers + short.count(fromMm, toMm) + (isWider && from.toMm > from.fromMm ? from.slots : 0),
      before: from,
      forced,
      coreFillers: from.coreFillers,
      pinsLaid,
    });
  }
  return next;
}
