import { findFamily, type Catalogue } from '../../catalogue';
import {
  changeDocument,
  listCavities,
  placeCavities,
  type CavitySpot,
  type CircuitKind,
  type ConnectorFamily,
  type Job,
  type Loom,
} from '../../model';
import { measureAway } from '../commands/route/measureAway';
import { matchPins } from './matchPins';

/** How the wires of a break lie in its cavities. */
export interface BreakOrder {
  /** pairs of wires of which the one that leaves its loom's trunk first lies deeper in the face: it has to come out through the other; both looms */
  crossings: number;
  /** twisted partners that are not next to each other */
  splitPairs: number;
  /** neighbours of different noise classes: power, and what measures or speaks */
  mixed: number;
}

export interface BreakArrangement {
  next: Job;
  before: BreakOrder;
  after: BreakOrder;
  /** what moves, by cavity */
  moves: { from: string; to: string; name: string }[];
}

/** What lies in a cavity of a break; an empty one too, so that everything is a swap. */
interface Way {
  cavity: string;
  name: string;
  noise: 'power' | 'quiet' | null;
  currentA: number;
  /** twisted with; null: with nothing */
  pairs: readonly string[];
  /** along each of the two looms to where it ends first, mm; null: it goes no further there */
  reachMm: readonly (number | null)[];
  isFixed: boolean;
}

const NOISE: Record<CircuitKind, 'power' | 'quiet'> = {
  supply: 'power',
  'power-ground': 'power',
  output: 'power',
  'sensor-supply': 'quiet',
  'sensor-ground': 'quiet',
  signal: 'quiet',
  data: 'quiet',
  screen: 'quiet',
};

/** What each fault of an order weighs: a split pair never pays, the rest is a matter of degree. */
const WEIGHT = { crossing: 1, split: 400, mixed: 4, warm: 6, spare: 2, move: 0.02 } as const;

/**
 * Cavities of a break (calculations 9): what leaves first to the outer rings, partners of a pair next to each other, power and sensors
 * apart, large currents not side by side, spares together. A minimum-cost matching by ring and side is the start, swaps of two cavities
 * improve on it until none does; where that gains nothing, all stays. Deterministic. Cavities in which a device has its own pins, or an inline part its legs, stay.
 *
 * @param movable cavities whose wires may move; null: all
 * @param currentA of what lies in a cavity, A
 */
export function arrangeBulkheadPins(
  job: Job,
  catalogue: Catalogue,
  mateId: string,
  movable: ReadonlySet<string> | null,
  currentA: (cavity: string) => number,
): BreakArrangement {
  const { a, b } = job.mates[mateId]!;
  const { face, ways } = listWays(job, catalogue, mateId, movable, currentA);
  const cost = createCosts(face, ways);
  const now = ways.map((_, way) => way);
  const start = matchRings(face, ways);
  const best = improve(ways, start, cost);
  const chosen = cost.sum(best) < cost.sum(now) - 1e-9 ? best : now;
  const moves = chosen.flatMap((spot, way) =>
    spot === way || ways[way]!.noise === null ? [] : [{ from: ways[way]!.cavity, to: face.cavities[spot]!, name: ways[way]!.name }],
  );
  const to = new Map(moves.map((move) => [move.from, move.to]));
  const next =
    moves.length === 0
      ? job
      : changeDocument(job, (draft) => {
          for (const { loomId, endId } of [a, b])
            for (const { terminations } of Object.values(draft.looms[loomId]!.circuits))
              for (const one of terminations) if (one.endId === endId) one.cavity = to.get(one.cavity) ?? one.cavity;
        });
  return { next, before: cost.count(now), after: cost.count(chosen), moves };
}

/** How the wires of a break lie now. */
export function measureBreak(job: Job, catalogue: Catalogue, mateId: string): BreakOrder {
  const { face, ways } = listWays(job, catalogue, mateId, null, () => 0);
  return createCosts(face, ways).count(ways.map((_, way) => way));
}

function listWays(
  job: Job,
  catalogue: Catalogue,
  mateId: string,
  movable: ReadonlySet<string> | null,
  currentA: (cavity: string) => number,
): { face: Face; ways: Way[] } {
  const { a, b } = job.mates[mateId]!;
  const [family, other] = [a, b].map(({ loomId, endId }) => findFamily(job, catalogue, job.looms[loomId]!.ends[endId]!.familyId));
  if (!family) throw new Error(`break: expected a housing at ${a.loomId}/${a.endId}, got none`);
  // where the halves differ, which is a finding of its own, only cavities of both are arranged
  const both = other ? new Set(listCavities(other)) : null;
  const face = createFace(
    family,
    placeCavities(family).filter(({ cavity }) => both === null || both.has(cavity)),
  );
  const sidesOf = [a, b].map(({ loomId, endId }) => `${loomId}/${endId}`);
  const withPart = new Set(Object.values(job.parts).flatMap(({ at }) => (sidesOf.includes(`${at.loomId}/${at.endId}`) ? at.cavities : [])));
  const ways = face.cavities.map((cavity): Way => {
    const sides = [a, b].map((side) => findSide(job.looms[side.loomId]!, side.endId, cavity));
    const circuit = sides[0]!.circuit ?? sides[1]!.circuit;
    return {
      cavity,
      name: circuit?.name ?? 'spare',
      noise: circuit ? NOISE[circuit.kind] : null,
      currentA: circuit ? currentA(cavity) : 0,
      pairs: sides.flatMap(({ groupId }, index) => (groupId === null ? [] : [`${index} ${groupId}`])),
      reachMm: sides.map(({ reachMm }) => reachMm),
      isFixed: withPart.has(cavity) || sides.some(({ isOwn }) => isOwn) || (circuit !== null && movable !== null && !movable.has(cavity)),
    };
  });
  return { face, ways };
}

interface Face {
  cavities: string[];
  /** 0 in the middle to 1 at the rim */
  ring: number[];
  /** 0 at the left to 1 at the right, seen from the wire side */
  side: number[];
  isBeside: boolean[][];
}

function createFace({ pitchMm }: ConnectorFamily, spots: CavitySpot[]): Face {
  const out = spots.map(({ x, y }) => Math.hypot(x, y));
  const most = Math.max(...out, 1e-9);
  const left = Math.min(...spots.map(({ x }) => x));
  const width = Math.max(...spots.map(({ x }) => x)) - left || 1;
  return {
    cavities: spots.map(({ cavity }) => cavity),
    ring: out.map((one) => one / most),
    side: spots.map(({ x }) => (x - left) / width),
    isBeside: spots.map((one) => spots.map((other) => one !== other && Math.hypot(one.x - other.x, one.y - other.y) < 1.3 * pitchMm)),
  };
}

function findSide(loom: Loom, endId: string, cavity: string) {
  const { nodeId, pins, offers } = loom.ends[endId]!;
  const isOwn = Object.hasOwn(pins, cavity) || Object.hasOwn(offers, cavity);
  for (const circuit of Object.values(loom.circuits)) {
    if (!circuit.terminations.some((one) => one.endId === endId && one.cavity === cavity)) continue;
    const away = measureAway(loom, nodeId);
    const reaches = circuit.terminations.flatMap((one) => (one.endId === endId ? [] : [away.get(loom.ends[one.endId]!.nodeId)!]));
    return { circuit, groupId: circuit.twist?.groupId ?? null, reachMm: reaches.length ? Math.min(...reaches) : null, isOwn };
  }
  return { circuit: null, groupId: null, reachMm: null, isOwn };
}

/** Start: what leaves first to the rim, power to the left, sensors to the right; each way a cavity of its own at least cost. */
function matchRings({ ring, side }: Face, ways: readonly Way[]): number[] {
  const shares = ways.map(({ reachMm }) => {
    const ranks = reachMm.flatMap((mm, loom) => {
      if (mm === null) return [];
      const all = ways.flatMap((one) => one.reachMm[loom] ?? []);
      return [all.filter((other) => other < mm).length / Math.max(1, all.length - 1)];
    });
    return ranks.length ? ranks.reduce((sum, one) => sum + one, 0) / ranks.length : 0.5;
  });
  const costs = ways.map(({ noise, isFixed }, way) =>
    ways.map((_, spot) => {
      if (isFixed || ways[spot]!.isFixed) return way === spot ? 0 : null;
      if (noise === null) return 0.5;
      return (
        Math.abs(1 - shares[way]! - ring[spot]!) + Math.abs((noise === 'power' ? 0 : 1) - side[spot]!) + (way === spot ? 0 : WEIGHT.move)
      );
    }),
  );
  return matchPins(costs).places.map((spot, way) => spot ?? way);
}

interface OrderCosts {
  /** of an order: spot of each way */
  sum: (order: readonly number[]) => number;
  /** what two ways cost where they are */
  pair: (one: number, other: number, atOne: number, atOther: number) => number;
  count: (order: readonly number[]) => BreakOrder;
}

function createCosts({ ring, isBeside }: Face, ways: readonly Way[]): OrderCosts {
  const most = Math.max(...ways.map(({ currentA }) => currentA), 1e-9);
  const isPair = (one: Way, other: Way) => one.pairs.some((pair) => other.pairs.includes(pair));
  const partners = ways.map((one) => ways.map((other) => one !== other && isPair(one, other)));
  const isMixed = (one: number, other: number) =>
    ways[one]!.noise !== null && ways[other]!.noise !== null && ways[one]!.noise !== ways[other]!.noise;
  const countCrossings = (one: number, other: number, atOne: number, atOther: number) => {
    let crossings = 0;
    for (const loom of [0, 1]) {
      const [a, b] = [ways[one]!.reachMm[loom] ?? null, ways[other]!.reachMm[loom] ?? null];
      if (a === null || b === null || a === b) continue;
      const [first, last] = a < b ? [atOne, atOther] : [atOther, atOne];
      if (ring[first]! < ring[last]! - 1e-6) crossings += 1;
    }
    return crossings;
  };
  const pair = (one: number, other: number, atOne: number, atOther: number) => {
    let cost = WEIGHT.crossing * countCrossings(one, other, atOne, atOther);
    const beside = isBeside[atOne]![atOther]!;
    if (partners[one]![other] && !beside) cost += WEIGHT.split;
    if (!beside) return cost;
    if (isMixed(one, other)) cost += WEIGHT.mixed;
    if (ways[one]!.noise === null && ways[other]!.noise === null) cost -= WEIGHT.spare;
    return cost + (WEIGHT.warm * ways[one]!.currentA * ways[other]!.currentA) / (most * most);
  };
  const each = (order: readonly number[], visit: (one: number, other: number) => void) =>
    order.forEach((_, one) => {
      for (let other = one + 1; other < order.length; other += 1) visit(one, other);
    });
  return {
    pair,
    sum: (order) => {
      let sum = 0;
      each(order, (one, other) => (sum += pair(one, other, order[one]!, order[other]!)));
      order.forEach((spot, way) => (sum += spot === way || ways[way]!.noise === null ? 0 : WEIGHT.move));
      return sum;
    },
    count: (order) => {
      const result: BreakOrder = { crossings: 0, splitPairs: 0, mixed: 0 };
      each(order, (one, other) => {
        const [atOne, atOther] = [order[one]!, order[other]!];
        result.crossings += countCrossings(one, other, atOne, atOther);
        if (partners[one]![other] && !isBeside[atOne]![atOther]!) result.splitPairs += 1;
        if (isBeside[atOne]![atOther]! && isMixed(one, other)) result.mixed += 1;
      });
      return result;
    },
  };
}

/** Swap two cavities as long as that makes the order better. */
function improve(ways: readonly Way[], start: readonly number[], { pair }: OrderCosts): number[] {
  const order = [...start];
  const free = ways.flatMap(({ isFixed }, way) => (isFixed ? [] : [way]));
  const isHome = (way: number, spot: number) => (spot === way || ways[way]!.noise === null ? 0 : WEIGHT.move);
  const measureGain = (one: number, other: number) => {
    const [a, b] = [order[one]!, order[other]!];
    let gain = isHome(one, a) + isHome(other, b) - isHome(one, b) - isHome(other, a);
    gain += pair(one, other, a, b) - pair(one, other, b, a);
    for (let third = 0; third < order.length; third += 1) {
      if (third === one || third === other) continue;
      const at = order[third]!;
      gain += pair(one, third, a, at) + pair(other, third, b, at) - pair(one, third, b, at) - pair(other, third, a, at);
    }
    return gain;
  };
  for (let isBetter = true; isBetter;) {
    isBetter = false;
    for (const one of free)
      for (const other of free) {
        if (other <= one || (ways[one]!.noise === null && ways[other]!.noise === null)) continue;
        if (measureGain(one, other) <= 1e-9) continue;
        [order[one], order[other]] = [order[other]!, order[one]!];
        isBetter = true;
      }
  }
  return order;
}
