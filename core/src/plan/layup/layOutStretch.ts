import type { PackingStore } from '../bundle/findPacking';
import { arrangeLayer, measureApart, type LayerArrangement } from './arrangeLayer';
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
  return { fromMark, toMark, layers: layers.map((layer, index) => layOut(strip, stretch, rules, layer, index)) };
}

function layOut(strip: LayupStrip, stretch: Stretch, rules: LayupRules, layer: SizedLayer, index: number): LaidLayer {
  const { threads, fillers, fillerOdMm, innerRadiusMm, outerRadiusMm, fromMark, toMark } = layer;
  const life = { fromMark, toMark };
  const ods = [...threads.map(({ odMm }) => odMm), ...Array.from({ length: fillers }, () => fillerOdMm)];
  const common = { innerOdMm: 2 * innerRadiusMm, outerOdMm: 2 * outerRadiusMm, fillerOdMm, ...life };
  if (ods.length === 1 && index === 0) {
    const slot = toSlot(threads[0] ?? null, ods[0]!, life, { pitchRadiusMm: 0, startDeg: 0, takeUp: 1, offSideDeg: null });
    return { hand: null, layMm: null, ...common, slots: [slot] };
  }
  const hand = index % 2 === 0 ? 'right' : 'left';
  const sign = hand === 'right' ? 1 : -1;
  const toPitch = (odMm: number) => (index === 0 ? outerRadiusMm - odMm / 2 : innerRadiusMm + odMm / 2);
  const { layMm, arrangement } = chooseLay(strip, stretch, rules, layer, ods, sign);
  const slots = arrangement.order.map((item, at) => {
    const odMm = ods[item]!;
    const startDeg = arrangement.startDeg[at]!;
    const thread = threads[item] ?? null;
    const offs = thread
      ? listExits(strip, stretch, thread).map(({ mm, sideDeg }) => measureApart(startDeg + (sign * 360 * mm) / layMm, sideDeg))
      : [];
    const pitchRadiusMm = toPitch(odMm);
    const rest = { pitchRadiusMm, startDeg, takeUp: measureLean(pitchRadiusMm, layMm), offSideDeg: offs.length ? Math.max(...offs) : null };
    return toSlot(thread, odMm, life, rest);
  });
  return { hand, layMm, ...common, slots };
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
  const isCore = turn === null;
  const exits = threads.map((thread) => listExits(strip, stretch, thread));
  const step = (one: number, other: number, layMm: number) => (isCore ? one + other : measureStep(one, other, innerRadiusMm, layMm));
  const tryLay = (layMm: number) => {
    const items = ods.map((odMm, item) => ({
      odMm,
      targetDeg: toMean((exits[item] ?? []).map(({ mm, sideDeg }) => sideDeg - (sign * 360 * mm) / layMm)),
    }));
    return { layMm, arrangement: arrangeLayer(items, (one, other) => step(one, other, layMm)) };
  };
  const usual = tryLay(measureLay(outerOdMm, rules));
  const bound = measureLeastOff(exits, ods.length);
  if (measureWorst(usual.arrangement) <= bound) return usual;
  let best = usual;
  for (const delta of RATIO_STEPS)
    for (const ratio of [rules.ratio + delta, rules.ratio - delta]) {
      const layMm = ratio * outerOdMm;
      if (ratio < rules.leastRatio || ratio > rules.mostRatio || layMm < rules.leastLayMm) continue;
      const isFit = isCore || ods.reduce((sum, odMm) => sum + measureRoom(odMm, innerRadiusMm, layMm), 0) <= turn + 1e-9;
      if (!isFit) continue;
      const tried = tryLay(layMm);
      if (measureWorst(tried.arrangement) < measureWorst(best.arrangement) - 1e-6) best = tried;
      if (measureWorst(best.arrangement) <= bound) return best;
    }
  return best;
}

const measureWorst = ({ offDeg }: LayerArrangement) => offDeg.reduce((most: number, off) => Math.max(most, off ?? 0), 0);

/** A quarter, or half of what the widest group takes of the ring: it cannot all come up nearer. */
function measureLeastOff(exits: readonly (readonly { mark: number; sideDeg: number }[])[], slots: number): number {
  const groups = new Map<string, number>();
  for (const { mark, sideDeg } of exits.flat()) groups.set(`${mark} ${sideDeg}`, (groups.get(`${mark} ${sideDeg}`) ?? 0) + 1);
  return Math.max(90, (180 * (Math.max(0, ...groups.values()) + 1)) / slots);
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
