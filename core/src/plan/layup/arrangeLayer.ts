/** What is to lie in a layer. */
export interface LayerItem {
  odMm: number;
  /** where it should start so that it comes up on its branch's side, degrees; null: anywhere */
  targetDeg: number | null;
}

/** An order round a layer, and where each starts. */
export interface LayerArrangement {
  /** places of the items, clockwise seen from the datum */
  order: number[];
  /** in that order, degrees from 12 o'clock */
  startDeg: number[];
  /** of each item that has a target, how far it is off, degrees; null for those that have none */
  offDeg: (number | null)[];
}

/** phases of the ring that are tried for each order */
const PHASES = 4;
/** gaps between targets from which the ring is begun */
const FIRSTS = 4;

/**
 * Order of a layer, and its turn, so that what comes out comes up where its branch is: the sum of the squares of how far each is off is least
 * among orders that keep the targets in turn. step: angle between neighbours, any unit; all together they are made to fill the round.
 */
export function arrangeLayer(items: readonly LayerItem[], step: (one: number, other: number) => number): LayerArrangement {
  const aimed = items.flatMap(({ targetDeg }, index) => (targetDeg === null ? [] : [index]));
  aimed.sort((a, b) => toTurn(items[a]!.targetDeg!) - toTurn(items[b]!.targetDeg!) || a - b);
  const others = items.flatMap(({ targetDeg }, index) => (targetDeg === null ? [index] : []));
  let best: { order: number[]; startDeg: number[]; cost: number } | null = null;
  for (let phase = 0; phase < (aimed.length ? PHASES : 1); phase += 1) {
    const order = placeAimed(items, aimed, others, (phase * 360) / (PHASES * items.length));
    const startDeg = turnToTargets(items, order, listAngles(items, order, step));
    const cost = order.reduce((sum, item, at) => sum + toOff(items[item]!.targetDeg, startDeg[at]!) ** 2, 0);
    if (best === null || cost < best.cost - 1e-9) best = { order, startDeg, cost };
  }
  const { order, startDeg } = best!;
  const offDeg = items.map(({ targetDeg }, item) => (targetDeg === null ? null : toOff(targetDeg, startDeg[order.indexOf(item)]!)));
  return { order, startDeg, offDeg };
}

/** An angle within the round, from 0 up to 360. */
export const toTurn = (deg: number): number => ((deg % 360) + 360) % 360;

/** How far two angles are apart, 0 to 180 degrees. */
export const measureApart = (a: number, b: number): number => Math.abs(((((a - b) % 360) + 540) % 360) - 180);

const toOff = (targetDeg: number | null, deg: number) => (targetDeg === null ? 0 : measureApart(targetDeg, deg));

/**
 * The aimed ones in even places so that the sum of the squares of how far they are off is least, kept in their turn round the ring from where
 * it has the widest gaps; what has no aim fills the rest in its own order.
 */
function placeAimed(items: readonly LayerItem[], aimed: readonly number[], others: readonly number[], phaseDeg: number): number[] {
  const count = items.length;
  if (aimed.length === 0) return [...others];
  const targets = aimed.map((item) => toTurn(items[item]!.targetDeg!));
  const gapBefore = targets.map((deg, at) => (at === 0 ? deg + 360 - targets.at(-1)! : deg - targets[at - 1]!));
  const firsts = targets.map((_, at) => at).sort((a, b) => gapBefore[b]! - gapBefore[a]! || a - b);
  let least = Infinity;
  let taken: number[] = [];
  for (const first of firsts.slice(0, FIRSTS)) {
    const startDeg = targets[first]! - gapBefore[first]! / 2 + phaseDeg;
    const turned = [...aimed.slice(first), ...aimed.slice(0, first)];
    const costs = turned.map((item) =>
      Float64Array.from({ length: count }, (_, place) => toOff(items[item]!.targetDeg, startDeg + (place * 360) / count) ** 2),
    );
    const found = placeInTurn(costs, count, least);
    if (found === null) continue;
    least = found.cost;
    taken = Array.from({ length: count }, () => -1);
    found.places.forEach((place, index) => {
      taken[place] = turned[index]!;
    });
  }
  const rest = [...others];
  return taken.map((item) => (item === -1 ? rest.shift()! : item));
}

/** Places, rising, of targets in their order with the least sum of costs; a dynamic program over places. null: none costs less than that. */
function placeInTurn(costs: readonly Float64Array[], count: number, less: number): { places: number[]; cost: number } | null {
  const n = costs.length;
  const best = Array.from({ length: n + 1 }, () => new Float64Array(count + 1).fill(Infinity));
  best[0]!.fill(0);
  for (let index = 1; index <= n; index += 1) {
    const [row, before, cost] = [best[index]!, best[index - 1]!, costs[index - 1]!];
    for (let place = index; place <= count; place += 1) row[place] = Math.min(row[place - 1]!, before[place - 1]! + cost[place - 1]!);
    if (row[count]! >= less - 1e-9) return null;
  }
  const places: number[] = [];
  for (let index = n, place = count; index > 0; place -= 1) {
    if (place > index && best[index]![place - 1]! <= best[index]![place]!) continue;
    places.unshift(place - 1);
    index -= 1;
  }
  return { places, cost: best[n]![count]! };
}

/** Angles from the first on, degrees, made to fill the round. */
function listAngles(items: readonly LayerItem[], order: readonly number[], step: (one: number, other: number) => number): number[] {
  const steps = order.map((item, at) => step(items[item]!.odMm, items[order[(at + 1) % order.length]!]!.odMm));
  const sum = steps.reduce((all, one) => all + one, 0);
  let angle = 0;
  return steps.map((one) => {
    const here = angle;
    angle += sum === 0 ? 0 : (one * 360) / sum;
    return here;
  });
}

/** The ring turned so that the aimed ones are least off: by the mean of what they are off, from the turn that is best of all. */
function turnToTargets(items: readonly LayerItem[], order: readonly number[], angles: readonly number[]): number[] {
  const aims = order.flatMap((item, at) => (items[item]!.targetDeg === null ? [] : [items[item]!.targetDeg! - angles[at]!]));
  if (aims.length === 0) return angles.map(toTurn);
  const toCost = (turn: number) => aims.reduce((sum, aim) => sum + measureApart(aim, turn) ** 2, 0);
  let best = aims[0]!;
  for (const start of aims) {
    // the mean of the differences taken on the short way from here
    const turn = start + aims.reduce((sum, aim) => sum + (toTurn(aim - start + 180) - 180), 0) / aims.length;
    if (toCost(turn) < toCost(best) - 1e-9) best = turn;
  }
  return angles.map((angle) => toTurn(angle + best));
}
