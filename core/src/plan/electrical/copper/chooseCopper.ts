// taken once: looked up for each sum they cost more than the sum
const { min } = Math;
/** One conductor that an edge may have: copper in g, and what it drops at the edge's current, V. */
export interface CopperOption {
  massG: number;
  dropV: number;
}

/** A stretch of wiring seen from the source. Its parent carries what it carries, and more. */
export interface CopperEdge {
  /** index of the edge nearer to the source; −1: at the source */
  parent: number;
  options: readonly CopperOption[];
  /** drop that no wire changes: contacts, splices, fuses, V */
  fixedV: number;
  /** of a load at its far end, V; null: none there */
  budgetV: number | null;
}

interface Point {
  /** drop already spent upstream that this choice still bears */
  bearsV: number;
  massG: number;
  option: number;
  /** drop that what lies beyond bears with it: of each child the lightest point that bears as much is taken */
  beyondV: number;
}

const SAME_V = 1e-9;

/**
 * Conductors of least copper so that every load stays within its budget: exact on a tree. For each edge, from the loads back to the
 * source, the list of choices that bear most upstream drop for least copper (no choice both heavier and bearing less); children add
 * up at each amount of drop spent above them. Null where even the thickest do not do. stepV: choices that bear drops closer together than
 * this are not told apart, which is quicker and no longer quite the least; 0: exact.
 *
 * @throws RangeError where an edge comes before its parent, or has no option
 */
export function chooseCopper(edges: readonly CopperEdge[], stepV = 0): { choices: number[]; massG: number } | null {
  const children = edges.map(() => [] as number[]);
  edges.forEach(({ parent, options }, index) => {
    if (parent >= index || options.length === 0)
      throw new RangeError(`copper: expected parents first and an option for each, got edge ${index}`);
    if (parent >= 0) children[parent]!.push(index);
  });
  const fronts: Point[][] = edges.map(() => []);
  for (let index = edges.length - 1; index >= 0; index -= 1) {
    const front = measureFront(
      edges[index]!,
      children[index]!.map((child) => fronts[child]!),
      stepV,
    );
    if (front.length === 0) return null;
    fronts[index] = front;
  }
  const choices = edges.map(() => 0);
  const take = (index: number, point: number): void => {
    const { option, beyondV } = fronts[index]![point]!;
    choices[index] = option;
    for (const child of children[index]!)
      take(
        child,
        fronts[child]!.findLastIndex(({ bearsV }) => bearsV >= beyondV - SAME_V),
      );
  };
  let massG = 0;
  edges.forEach(({ parent }, index) => {
    if (parent !== -1) return;
    const best = fronts[index]!.findLastIndex(({ bearsV }) => bearsV >= -SAME_V);
    if (best === -1) massG = Infinity;
    else {
      massG += fronts[index]![best]!.massG;
      take(index, best);
    }
  });
  return massG === Infinity ? null : { choices, massG };
}

/** Pareto front of an edge, most bearing and heaviest first. */
function measureFront({ options, fixedV, budgetV }: CopperEdge, below: readonly Point[][], stepV: number): Point[] {
  const joined = joinFronts(below, budgetV, stepV);
  const all: Point[] = [];
  options.forEach(({ massG, dropV }, option) => {
    for (const point of joined) {
      const bearsV = point.bearsV - dropV - fixedV;
      if (bearsV >= -SAME_V) all.push({ bearsV, massG: massG + point.massG, option, beyondV: point.bearsV });
    }
  });
  return prune(all, stepV);
}

const prune = (points: Point[], stepV: number): Point[] => {
  points.sort((a, b) => b.bearsV - a.bearsV || a.massG - b.massG);
  const front: Point[] = [];
  let least = Infinity;
  // from most bearing to least: keep what is lighter than all that bears more
  for (const point of points) {
    if (point.massG >= least - 1e-12) continue;
    if (stepV > 0 && front.length > 0 && point !== points.at(-1) && front.at(-1)!.bearsV - point.bearsV < stepV) continue;
    least = point.massG;
    front.push(point);
  }
  return front;
};

/** What the branches beyond come to together: at each amount of drop that one of them just bears, the lightest of each that bears it. */
function joinFronts(fronts: readonly Point[][], budgetV: number | null, stepV: number): Point[] {
  const most = budgetV ?? Infinity;
  if (fronts.length === 0) return [{ bearsV: most, massG: 0, option: 0, beyondV: most }];
  const [only] = fronts;
  if (fronts.length === 1) {
    // one branch beyond bears what it bears
    const joined = only!.map(({ bearsV, massG }) => ({ bearsV: min(bearsV, most), massG, option: 0, beyondV: min(bearsV, most) }));
    return prune(joined, stepV);
  }
  const levels = listLevels(fronts, most);
  const joined: Point[] = [];
  // as the level falls, each front moves on to what bears less and is lighter
  const at = fronts.map(() => -1);
  for (const level of levels) {
    let massG = 0;
    let isBorne = true;
    fronts.forEach((front, index) => {
      while (at[index]! + 1 < front.length && front[at[index]! + 1]!.bearsV >= level - SAME_V) at[index]! += 1;
      if (at[index] === -1) isBorne = false;
      else massG += front[at[index]!]!.massG;
    });
    if (isBorne) joined.push({ bearsV: level, massG, option: 0, beyondV: level });
  }
  return prune(joined, stepV);
}

/** Every drop that a branch just bears, most first. */
function listLevels(fronts: readonly Point[][], most: number): number[] {
  const all: number[] = [];
  for (const front of fronts) for (const { bearsV } of front) all.push(min(bearsV, most));
  all.sort((a, b) => b - a);
  return all.filter((level, at) => at === 0 || level !== all[at - 1]);
}
