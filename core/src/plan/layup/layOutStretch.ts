import { pushTo } from '../../units';
import { findPacking, type PackingStore } from '../bundle/findPacking';
import { arrangeLayer, measureApart, toTurn } from './arrangeLayer';
import type { LaidLayer, LaidSlot, LaidStretch, LayupRules, LayupStrip, Stretch, Thread } from './layupTypes';
import { measureLay, measureLean, measureRoom, measureStep } from './measureLayer';
import { sizeLayers, type SizedLayer } from './sizeLayers';

/** ratios of lay to diameter tried where the usual one brings something up on the wrong side, to both sides of it */
const RATIO_STEPS = [0.1, 0.2, 0.3, 0.45, 0.6, 0.8, 1, 1.25, 1.5];

/**
 * A stretch as it is laid: every layer with its hand and lay, the order round it and the angle at which each element starts so that it comes up
 * on its branch's side: start = exit − 360 · x / lay, against the hand (craft A1). Where the shop's ratio brings something up more than a
 * quarter off its side, the lay is made a little longer or shorter within what the shop allows.
 */
export function layOutStretch(strip: LayupStrip, stretch: Stretch, rules: LayupRules, packings: PackingStore): LaidStretch {
  const { fromMark, toMark } = stretch;
  const layers = sizeLayers(strip, stretch, rules, packings);
  return {
    fromMark,
    toMark,
    layers: layers.map((layer, index) =>
      index === 0 ? layOutCore(strip, stretch, rules, layer, packings) : layOut(strip, stretch, rules, layer, index),
    ),
  };
}

/** What lies in a layer: its threads, then the dead wire that is there all along. */
const listOds = ({ threads, fillers, fillerOdMm }: SizedLayer) => [
  ...threads.map(({ odMm }) => odMm),
  ...Array.from({ length: fillers }, () => fillerOdMm),
];

const toCommon = ({ innerRadiusMm, outerRadiusMm, fillerOdMm, fromMark, toMark }: SizedLayer) => ({
  ...{ innerOdMm: 2 * innerRadiusMm, outerOdMm: 2 * outerRadiusMm, fillerOdMm, fromMark, toMark },
});

/** A core: one straight, or a few as they pack, right-hand, turned so that what comes out comes up nearest to its side. */
function layOutCore(strip: LayupStrip, stretch: Stretch, rules: LayupRules, layer: SizedLayer, packings: PackingStore): LaidLayer {
  const { threads, outerRadiusMm } = layer;
  const ods = listOds(layer);
  if (ods.length === 1) {
    const slot = toSlot(threads[0] ?? null, ods[0]!, layer, { pitchRadiusMm: 0, startDeg: 0, takeUp: 1, offSideDeg: null });
    return { hand: null, layMm: null, ...toCommon(layer), slots: [slot] };
  }
  const layMm = measureLay(2 * outerRadiusMm, rules);
  const items = ods.map((_, item) => item).sort((a, b) => ods[b]! - ods[a]! || a - b);
  const { circles } = findPacking(
    packings,
    items.map((item) => ods[item]!),
  ).packing;
  const places = circles.map(({ x, y }) => ({ pitchRadiusMm: Math.hypot(x, y), deg: (Math.atan2(x, -y) * 180) / Math.PI }));
  const exits = items.map((item) => (threads[item] ? listExits(strip, stretch, threads[item]) : []));
  const turn =
    toMean(exits.flatMap((all, at) => all.map(({ mm, sideDeg }) => sideDeg - (360 * mm) / layMm - places[at]!.deg))) ?? -places[0]!.deg;
  const slots = items.map((item, at) => {
    const { pitchRadiusMm, deg } = places[at]!;
    const startDeg = toTurn(deg + turn);
    const offs = exits[at]!.map(({ mm, sideDeg }) => measureApart(startDeg + (360 * mm) / layMm, sideDeg));
    const rest = { pitchRadiusMm, startDeg, takeUp: measureLean(pitchRadiusMm, layMm), offSideDeg: offs.length ? Math.max(...offs) : null };
    return toSlot(threads[item] ?? null, ods[item]!, layer, rest);
  });
  return { hand: 'right', layMm, ...toCommon(layer), slots: slots.sort((a, b) => a.startDeg - b.startDeg) };
}

function layOut(strip: LayupStrip, stretch: Stretch, rules: LayupRules, layer: SizedLayer, index: number): LaidLayer {
  const { threads, innerRadiusMm } = layer;
  const ods = listOds(layer);
  const hand = index % 2 === 0 ? 'right' : 'left';
  const sign = hand === 'right' ? 1 : -1;
  const { layMm, arrangement } = chooseLay(strip, stretch, rules, layer, ods, sign);
  const slots = arrangement.order.map((item, at) => {
    const odMm = ods[item]!;
    const startDeg = arrangement.startDeg[at]!;
    const thread = threads[item] ?? null;
    const offs = thread
      ? listExits(strip, stretch, thread).map(({ mm, sideDeg }) => measureApart(startDeg + (sign * 360 * mm) / layMm, sideDeg))
      : [];
    const pitchRadiusMm = innerRadiusMm + odMm / 2;
    const rest = { pitchRadiusMm, startDeg, takeUp: measureLean(pitchRadiusMm, layMm), offSideDeg: offs.length ? Math.max(...offs) : null };
    return toSlot(thread, odMm, layer, rest);
  });
  return { hand, layMm, ...toCommon(layer), slots };
}

/** Where a thread comes out or in within the stretch on a side that is known: mm from the start of the stretch. */
function listExits(
  { marks }: LayupStrip,
  { fromMark, toMark }: Stretch,
  { from, to }: Thread,
): { mm: number; sideDeg: number; mark: number }[] {
  return [from, to].flatMap(({ mark, sideDeg }) =>
    sideDeg === null || mark < fromMark || mark > toMark ? [] : [{ mm: marks[mark]!.mm - marks[fromMark]!.mm, sideDeg, mark }],
  );
}

/** The lay that brings all up on their sides, and the order with it. */
function chooseLay(strip: LayupStrip, stretch: Stretch, rules: LayupRules, layer: SizedLayer, ods: readonly number[], sign: number) {
  const { threads, innerRadiusMm, outerRadiusMm, turn } = layer;
  const outerOdMm = 2 * outerRadiusMm;
  const exits = threads.map((thread) => listExits(strip, stretch, thread));
  const step = (one: number, other: number, layMm: number) => measureStep(one, other, innerRadiusMm, layMm);
  const groups = listUnsided(stretch, threads);
  const tryLay = (layMm: number) => {
    const known = ods.map((_, item) => toMean((exits[item] ?? []).map(({ mm, sideDeg }) => sideDeg - (sign * 360 * mm) / layMm)));
    const targets = gatherUnsided(known, groups);
    const items = ods.map((odMm, item) => ({ odMm, targetDeg: targets[item]! }));
    const arrangement = arrangeLayer(items, (one, other) => step(one, other, layMm));
    // what comes up by a side that nobody knows is never on a wrong one
    const worst = known.reduce((most: number, deg, item) => (deg === null ? most : Math.max(most, arrangement.offDeg[item]!)), 0);
    return { layMm, arrangement, worst };
  };
  const usual = tryLay(measureLay(outerOdMm, rules));
  const bound = measureLeastOff(exits, ods.length);
  if (usual.worst <= bound) return usual;
  let best = usual;
  for (const delta of RATIO_STEPS)
    for (const ratio of [rules.ratio + delta, rules.ratio - delta]) {
      const layMm = ratio * outerOdMm;
      if (ratio < rules.leastRatio || ratio > rules.mostRatio || layMm < rules.leastLayMm) continue;
      const isFit = ods.reduce((sum, odMm) => sum + measureRoom(odMm, innerRadiusMm, layMm), 0) <= turn! + 1e-9;
      if (!isFit) continue;
      const tried = tryLay(layMm);
      if (tried.worst < best.worst - 1e-6) best = tried;
      if (best.worst <= bound) return best;
    }
  return best;
}

/** A quarter, or half of what the widest group takes of the ring: it cannot all come up nearer. */
function measureLeastOff(exits: readonly (readonly { mark: number; sideDeg: number }[])[], slots: number): number {
  const groups = new Map<string, number>();
  for (const { mark, sideDeg } of exits.flat()) groups.set(`${mark} ${sideDeg}`, (groups.get(`${mark} ${sideDeg}`) ?? 0) + 1);
  return Math.max(90, (180 * (Math.max(0, ...groups.values()) + 1)) / slots);
}

/** Threads of a layer that come out at one breakout by a side that nobody knows, by their places: they come up together all the same. */
function listUnsided({ fromMark, toMark }: Stretch, threads: readonly Thread[]): number[][] {
  const byMark = new Map<number, number[]>();
  threads.forEach(({ from, to }, item) => {
    const isHere = ({ mark, kind }: Thread['from']) => kind === 'breakout' && mark >= fromMark && mark <= toMark;
    if ([from, to].some((end) => isHere(end) && end.sideDeg !== null)) return;
    const end = isHere(to) ? to : isHere(from) ? from : null;
    if (end) pushTo(byMark, end.mark, item);
  });
  return [...byMark.values()].sort((a, b) => b.length - a.length);
}

/** steps in which a place for a group is looked for, degrees */
const GROUP_STEP = 10;

/** Targets with one for each group that has none: the widest first, each where it is furthest from what is aimed at already. */
function gatherUnsided(known: readonly (number | null)[], groups: readonly (readonly number[])[]): (number | null)[] {
  const targets = [...known];
  const pitch = 360 / known.length;
  const arcs: { deg: number; half: number }[] = known.flatMap((deg) => (deg === null ? [] : [{ deg, half: pitch / 2 }]));
  for (const group of groups) {
    const half = (group.length * pitch) / 2;
    let [best, room] = [0, -Infinity];
    for (let deg = 0; deg < 360; deg += GROUP_STEP) {
      const here = arcs.reduce((least, arc) => Math.min(least, measureApart(arc.deg, deg) - arc.half - half), 180);
      // close beside what is there: the ring is not torn up
      const value = here >= 0 ? -here : 4 * here;
      if (value > room + 1e-9) [best, room] = [deg, value];
    }
    arcs.push({ deg: best, half });
    group.forEach((item, at) => {
      targets[item] = best + (at - (group.length - 1) / 2) * pitch;
    });
  }
  return targets;
}

/** Mean direction, degrees; null of none. */
function toMean(degrees: readonly number[]): number | null {
  if (degrees.length === 0) return null;
  const [x, y] = degrees.reduce(([a, b], deg) => [a + Math.cos((deg * Math.PI) / 180), b + Math.sin((deg * Math.PI) / 180)], [0, 0] as [
    number,
    number,
  ]);
  return Math.hypot(x, y) < 1e-6 ? degrees[0]! : (Math.atan2(y, x) * 180) / Math.PI;
}

/** A place in a layer, and where dead wire lies in it. */
function toSlot(
  thread: Thread | null,
  odMm: number,
  { fromMark, toMark }: Pick<SizedLayer, 'fromMark' | 'toMark'>,
  rest: Pick<LaidSlot, 'pitchRadiusMm' | 'startDeg' | 'takeUp' | 'offSideDeg'>,
): LaidSlot {
  const fillers: { fromMark: number; toMark: number }[] = [];
  if (thread === null) fillers.push({ fromMark, toMark });
  else {
    if (thread.from.mark > fromMark) fillers.push({ fromMark, toMark: thread.from.mark });
    if (thread.to.mark < toMark) fillers.push({ fromMark: thread.to.mark, toMark });
  }
  return { threadId: thread?.id ?? null, odMm, ...rest, fillers };
}
