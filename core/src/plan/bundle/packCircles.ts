import { packEnclose, packSiblings } from 'd3-hierarchy';
import { relaxCircles, type RelaxEffort } from './relaxCircles';
import type { Circle, Packing } from '../types';

// taken once: looked up for each sum they cost more than the sum
const { PI, SQRT2, ceil, cos, log2, max, sin, sqrt } = Math;

/** Enclosing diameter of 1 to 7 equal round elements, × d: exact (calculations 6; 6 and 7 are the hexagon). */
const EQUAL = [0, 1, 2, 1 + 2 / sqrt(3), 1 + SQRT2, 1 + SQRT2 * sqrt(1 + 1 / sqrt(5)), 3, 3];

/** Above this many equal elements the triangular lattice is as good as a search and far quicker. */
const LATTICE_ABOVE = 48;

/** Search effort by the number of elements: enough to come within a few percent of the best known packings, no more. */
const EFFORTS: readonly { upTo: number; effort: RelaxEffort }[] = [
  { upTo: 7, effort: { step: 0.004, sweeps: 40, patience: 8 } },
  { upTo: 24, effort: { step: 0.006, sweeps: 14, patience: 5 } },
  { upTo: 48, effort: { step: 0.01, sweeps: 10, patience: 3 } },
];

/**
 * Smallest round bundle of elements laid straight, diameters in mm, given largest first. Exact for 1 to 7 equal ones and for
 * 1 to 3 unlike ones; a search from a sunflower start up to 48; above that front-chain packing (Wang et al., CHI 2006,
 * as implemented by d3-hierarchy), which is also the start to beat below.
 */
export function packCircles(diametersMm: readonly number[]): Packing {
  const count = diametersMm.length;
  if (count === 0) return { odMm: 0, circles: [], method: 'formula' };
  for (const d of diametersMm) if (!(d > 0)) throw new RangeError(`bundle: expected diameters above 0 mm, got ${d}`);
  const equal = diametersMm[0]! - diametersMm[count - 1]! < 1e-9;
  if (count <= 2 || (count <= 7 && equal)) return packRing(diametersMm);
  if (equal && count > LATTICE_ABOVE) return packLattice(diametersMm);
  const greedy = enclose(packSiblings(diametersMm.map((d) => ({ r: d / 2, x: 0, y: 0 }))));
  if (count === 3) return { ...greedy, method: 'formula' };
  const effort = EFFORTS.find(({ upTo }) => count <= upTo)?.effort;
  if (!effort) return greedy;
  const starts = count <= 7 ? [greedy.circles, ...listStarts(diametersMm)] : [createSunflower(diametersMm)];
  return starts
    .map((circles) => relaxCircles(circles, greedy.odMm / 2, effort))
    .reduce((best, one) => (one.odMm < best.odMm - 1e-9 ? one : best), greedy);
}

/** Least diameter that any bundle of these can have, mm: √(Σd²)/√0.9069, the densest packing of the plane; one element is its own. */
export function measurePackingBound(diametersMm: readonly number[]): number {
  if (diametersMm.length <= 1) return diametersMm[0] ?? 0;
  const squares = diametersMm.reduce((sum, d) => sum + d * d, 0);
  return max(
    diametersMm.reduce((most, d) => max(most, d), 0),
    sqrt(squares / 0.9069),
  );
}

function packRing(diametersMm: readonly number[]): Packing {
  const count = diametersMm.length;
  if (count === 2) {
    const [a, b] = [diametersMm[0]! / 2, diametersMm[1]! / 2];
    return {
      odMm: 2 * (a + b),
      circles: [
        { x: -b, y: 0, r: a },
        { x: a, y: 0, r: b },
      ],
      method: 'formula',
    };
  }
  const d = diametersMm[0]!;
  const odMm = EQUAL[count]! * d;
  const around = count >= 7 ? 6 : count === 1 ? 0 : count;
  const circles: Circle[] = count === 1 || count === 7 ? [{ x: 0, y: 0, r: d / 2 }] : [];
  for (let index = 0; index < around; index += 1) {
    const angle = (2 * PI * index) / around - PI / 2;
    circles.push({ x: ((odMm - d) / 2) * cos(angle), y: ((odMm - d) / 2) * sin(angle), r: d / 2 });
  }
  return { odMm, circles, method: 'formula' };
}

/** Three touching circles have the outer circle of Apollonius (Soddy 1936), which packEnclose solves; so do two with a small third between. */
function enclose(circles: readonly Circle[]): Packing {
  const { x, y, r } = packEnclose(circles as Circle[]);
  return { odMm: 2 * r, circles: circles.map((one) => ({ x: one.x - x, y: one.y - y, r: one.r })), method: 'search' };
}

interface Spot {
  x: number;
  y: number;
  away: number;
}

/** Points of a triangular lattice of pitch 1, nearest first, from a middle that is a point, an edge or a triangle of it. */
const lattices = new Map<number, Spot[][]>();

function listLattices(count: number): Spot[][] {
  const reach = 2 ** ceil(log2(sqrt(count) + 2));
  const known = lattices.get(reach);
  if (known) return known;
  const made = (
    [
      [0, 0],
      [0.5, 0],
      [0.5, sqrt(3) / 6],
    ] as const
  ).map(([mx, my]) => {
    const spots: Spot[] = [];
    for (let row = -reach; row <= reach; row += 1) {
      for (let column = -reach; column <= reach; column += 1) {
        const x = column + (row % 2 === 0 ? 0 : 0.5) - mx;
        const y = (row * sqrt(3)) / 2 - my;
        spots.push({ x, y, away: x * x + y * y });
      }
    }
    return spots.sort((a, b) => a.away - b.away || a.y - b.y || a.x - b.x);
  });
  lattices.set(reach, made);
  return made;
}

/** Equal elements on the lattice spots nearest its middle; the best of the three middles. */
function packLattice(diametersMm: readonly number[]): Packing {
  const count = diametersMm.length;
  const d = diametersMm[0]!;
  const best = listLattices(count).reduce((one, other) => (other[count - 1]!.away < one[count - 1]!.away - 1e-9 ? other : one));
  return {
    odMm: (2 * sqrt(best[count - 1]!.away) + 1) * d,
    circles: best.slice(0, count).map(({ x, y }) => ({ x: x * d, y: y * d, r: d / 2 })),
    method: 'search',
  };
}

/** Elements spread evenly over a disc (Vogel's sunflower, golden angle), thickest in the middle, too wide to overlap much. */
function createSunflower(diametersMm: readonly number[]): Circle[] {
  const golden = PI * (3 - sqrt(5));
  let area = 0;
  return diametersMm.map((d, index) => {
    area += d * d;
    const radius = 0.62 * sqrt(area - (d * d) / 2);
    return { x: radius * cos(index * golden), y: radius * sin(index * golden), r: d / 2 };
  });
}

/** Round starts for a few unlike elements: all in a ring, or one of each thickness in the middle. */
function listStarts(diametersMm: readonly number[]): Circle[][] {
  const middles = diametersMm.flatMap((d, index) => (index > 0 && d === diametersMm[index - 1] ? [] : [index]));
  return [-1, ...middles].map((middle) => {
    const around = diametersMm.map((d, index) => ({ d, index })).filter(({ index }) => index !== middle);
    const order = [...around.filter((_, i) => i % 2 === 0), ...around.filter((_, i) => i % 2 === 1)];
    const radius = around.reduce((sum, { d }) => sum + d, 0) / (2 * PI) + (middle < 0 ? 0 : diametersMm[middle]! / 2);
    const circles: Circle[] = diametersMm.map((d) => ({ x: 0, y: 0, r: d / 2 }));
    order.forEach(({ index }, place) => {
      const angle = (2 * PI * (place + 0.3)) / order.length;
      circles[index] = { ...circles[index]!, x: radius * cos(angle), y: radius * sin(angle) };
    });
    return circles;
  });
}
