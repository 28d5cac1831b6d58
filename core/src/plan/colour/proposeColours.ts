import type { ShopStandard } from '../../catalogue';
import { fromColourWords, toInsulationWords, type Colour, type Loom } from '../../model';
import { compareIds } from '../../units';
import type { LoomPlan, PlannedWire } from '../types';
import { assignLooks } from './assignLooks';
import { createAlike, listNeighbours, listWireGroups } from './listLookAlikes';

/** The least change of colours after which no wire is taken for another beside it. */
export interface ColourProposal {
  /** by circuit id, with whom it was taken for */
  changes: { circuitId: string; from: Colour; to: Colour; likeIds: string[] }[];
  /** circuits that stay like one beside them: no colour in stock is apart, or a cable has its own */
  left: [string, string][];
  /** proved that no smaller change does */
  isLeast: boolean;
  reelsBefore: number;
  reelsAfter: number;
}

/** how many trials a search may make before the best so far counts */
const MOST_TRIALS = 20_000;
/** the same for giving looks, of which each trial costs more: the page waits for it */
export const MOST_LOOK_TRIALS = 3000;

/**
 * Recolour as few circuits as do, from colours in stock, those first that a reel of the loom has already (craft A6). Circuits in a cable keep
 * theirs, and so do those whose colour somebody gave a reason for. Within a budget of trials the change is proved to be the least; beyond it is a good one, and says so.
 */
export function proposeColours(loom: Loom, plan: LoomPlan, standard: ShopStandard): ColourProposal {
  const { neighbours } = listNeighbours(listWireGroups(loom, plan, standard));
  const isAlike = createAlike(standard);
  const colourOf = (id: string) => loom.circuits[id]!.colour as Colour;
  const isFixed = (id: string) => loom.circuits[id]!.cable !== null || loom.circuits[id]!.colourPin !== null;
  const clashes = new Map<string, string[]>();
  for (const id of [...neighbours.keys()].sort(compareIds)) {
    const like = [...neighbours.get(id)!].filter((other) => isAlike(colourOf(id), colourOf(other))).sort(compareIds);
    if (like.length > 0) clashes.set(id, like);
  }
  const budget = { left: MOST_TRIALS };
  const parts = listParts(clashes).map((part) => chooseCover(part, clashes, isFixed, budget));
  const stock = standard.colours.map((words) => fromColourWords(words)!);
  const open = new Set(parts.flatMap(({ cover }) => cover));
  const used = countReels(plan.wires, colourOf);
  const sizesOf = (id: string) => plan.wires.filter(({ circuitId }) => circuitId === id).map(toSize);
  const sizes = new Map([...open].map((id) => [id, sizesOf(id)]));
  const taken = assignLooks({
    ...{ ids: [...open], neighbours, isAlike, most: MOST_LOOK_TRIALS },
    keptLook: colourOf,
    listLooks: () => stock,
    prefer: (id, look) => sizes.get(id)!.every((size) => used.has(`${size} ${toInsulationWords(look)}`)),
  });
  const now = (id: string) => taken.get(id) ?? colourOf(id);
  const left = [...neighbours].flatMap(([id, beside]) =>
    [...beside].filter((other) => id < other && isAlike(now(id), now(other))).map((other): [string, string] => [id, other]),
  );
  return {
    changes: [...taken].map(([circuitId, to]) => ({ circuitId, from: colourOf(circuitId), to, likeIds: clashes.get(circuitId)! })),
    left,
    isLeast: left.length === 0 && parts.every(({ isProved }) => isProved),
    reelsBefore: used.size,
    reelsAfter: countReels(plan.wires, now).size,
  };
}

export const toSize = ({ conductor: { table, size } }: PlannedWire) => `${table} ${size}`;

/** Reels that single wires come off: size and look. */
export const countReels = (wires: readonly PlannedWire[], colourOf: (circuitId: string) => Colour): Set<string> =>
  new Set(wires.filter(({ cable }) => !cable).map((wire) => `${toSize(wire)} ${toInsulationWords(colourOf(wire.circuitId))}`));

/** Circuits that hang together by being alike. */
function listParts(clashes: ReadonlyMap<string, readonly string[]>): string[][] {
  const seen = new Set<string>();
  return [...clashes.keys()].flatMap((first) => {
    if (seen.has(first)) return [];
    seen.add(first);
    const part = [first];
    for (const id of part)
      for (const other of clashes.get(id)!)
        if (!seen.has(other)) {
          seen.add(other);
          part.push(other);
        }
    return [part];
  });
}

/** The fewest circuits of a part without which no two of it are alike (a vertex cover), by branch and bound; fixed ones are never among them. */
function chooseCover(
  part: readonly string[],
  clashes: ReadonlyMap<string, readonly string[]>,
  isFixed: (id: string) => boolean,
  budget: { left: number },
): { cover: string[]; isProved: boolean } {
  let best: string[] | null = null;
  let isProved = true;
  const search = (chosen: ReadonlySet<string>, kept: ReadonlySet<string>) => {
    if (best && chosen.size >= best.length) return;
    if (budget.left <= 0 && best) return void (isProved = false);
    budget.left -= 1;
    // the one that is like most others decides most
    let pick: string | null = null;
    let most = 0;
    for (const id of part) {
      if (chosen.has(id) || kept.has(id)) continue;
      const count = clashes.get(id)!.filter((other) => !chosen.has(other)).length;
      if (count > most) [pick, most] = [id, count];
    }
    if (pick === null) return void (best = [...chosen]);
    const others = clashes.get(pick)!.filter((other) => !chosen.has(other));
    if (!isFixed(pick)) search(new Set([...chosen, pick]), kept);
    // or it keeps its colour, and all that are like it change; two that may not change stay alike
    const change = others.filter((other) => !kept.has(other) && !isFixed(other));
    if (isFixed(pick) || change.length === others.length) search(new Set([...chosen, ...change]), new Set([...kept, pick]));
  };
  search(new Set(), new Set());
  return { cover: best ?? [], isProved };
}
