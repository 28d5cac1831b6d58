import { compareIds } from '../../units';
import type { Colour } from '../../model';

/** Who has to be told apart from whom, and what each may look like. */
export interface LookProblem {
  /** those that get a look */
  ids: readonly string[];
  /** by id, those beside it; both ways */
  neighbours: ReadonlyMap<string, ReadonlySet<string>>;
  /** of one that keeps the look it has; null: it has none to be told apart from */
  keptLook: (id: string) => Colour | null;
  /** looks that one may have, best first */
  listLooks: (id: string) => readonly Colour[];
  isAlike: (a: Colour, b: Colour) => boolean;
  /** of two looks that are free, is one to be had without opening another reel; looks given so far by id */
  prefer?: (id: string, look: Colour, given: ReadonlyMap<string, Colour>) => boolean;
  /** how many trials before the rest is given as well as may be */
  most: number;
}

/**
 * Looks by which no two that are beside one another are taken for one another, wherever there are any: the one with the fewest looks left is
 * given first, and what leads nowhere is taken back (colouring a graph from lists; Brélaz 1979). Beyond its trials, or where there are none,
 * as many get a look of their own as come by one; the rest get none here.
 */
export function assignLooks(asked: LookProblem): ReadonlyMap<string, Colour> {
  const problem = { ...asked, isAlike: remember(asked.isAlike) };
  const { ids, neighbours, keptLook, listLooks, isAlike } = problem;
  const open = new Set([...ids].sort(compareIds));
  const free = new Map<string, Colour[]>();
  for (const id of open) {
    const kept = listBeside(neighbours, id).flatMap((other) => (open.has(other) ? [] : (keptLook(other) ?? [])));
    free.set(
      id,
      listLooks(id).filter((look) => !kept.some((other) => isAlike(look, other))),
    );
  }
  const given = new Map<string, Colour>();
  // one for which there is nothing from the start is not what the others are taken back for
  for (const id of [...open]) if (free.get(id)!.length === 0) open.delete(id);
  const budget = { left: problem.most };
  if (search(problem, open, free, given, budget)) return given;
  given.clear();
  takeAsTheyCome(problem, open, free, given);
  return given;
}

/** The same looks are compared again and again. */
function remember(isAlike: LookProblem['isAlike']): LookProblem['isAlike'] {
  const known = new Map<Colour, Map<Colour, boolean>>();
  return (a, b) => {
    let row = known.get(a);
    if (!row) known.set(a, (row = new Map()));
    let alike = row.get(b);
    if (alike === undefined) row.set(b, (alike = isAlike(a, b)));
    return alike;
  };
}

const listBeside = (neighbours: LookProblem['neighbours'], id: string) => [...(neighbours.get(id) ?? [])];

function search(
  problem: LookProblem,
  open: Set<string>,
  free: Map<string, Colour[]>,
  given: Map<string, Colour>,
  budget: { left: number },
): boolean {
  const id = pickTightest(problem, open, free);
  if (id === null) return true;
  open.delete(id);
  for (const look of order(problem, id, free.get(id)!, given)) {
    if (budget.left <= 0) break;
    budget.left -= 1;
    given.set(id, look);
    const narrowed = narrow(problem, id, look, open, free);
    if (narrowed !== null) {
      if (search(problem, open, free, given, budget)) return true;
      for (const [other, looks] of narrowed) free.set(other, looks);
    }
    given.delete(id);
  }
  open.add(id);
  return false;
}

/** Takes a look, and what is like it, from those beside; gives what they had, or null where one would have nothing left. */
function narrow(
  { neighbours, isAlike }: LookProblem,
  id: string,
  look: Colour,
  open: ReadonlySet<string>,
  free: Map<string, Colour[]>,
): [string, Colour[]][] | null {
  const had: [string, Colour[]][] = [];
  for (const other of neighbours.get(id) ?? []) {
    if (!open.has(other)) continue;
    const looks = free.get(other)!;
    const left = looks.filter((one) => !isAlike(one, look));
    if (left.length === looks.length) continue;
    had.push([other, looks]);
    free.set(other, left);
    if (left.length > 0) continue;
    for (const [one, before] of had) free.set(one, before);
    return null;
  }
  return had;
}

/** The one with the fewest looks left; of those the one with the most beside it, then by id. */
function pickTightest({ neighbours }: LookProblem, open: ReadonlySet<string>, free: ReadonlyMap<string, Colour[]>): string | null {
  let best: string | null = null;
  let [least, most] = [Infinity, -1];
  for (const id of open) {
    const looks = free.get(id)!.length;
    const beside = neighbours.get(id)?.size ?? 0;
    const isBetter = looks < least || (looks === least && (beside > most || (beside === most && compareIds(id, best!) < 0)));
    if (isBetter) [best, least, most] = [id, looks, beside];
  }
  return best;
}

function order({ prefer }: LookProblem, id: string, looks: readonly Colour[], given: ReadonlyMap<string, Colour>): Colour[] {
  if (!prefer) return [...looks];
  const [first, rest]: [Colour[], Colour[]] = [[], []];
  for (const look of looks) (prefer(id, look, given) ? first : rest).push(look);
  return [...first, ...rest];
}

function takeAsTheyCome(
  problem: LookProblem,
  open: ReadonlySet<string>,
  free: ReadonlyMap<string, Colour[]>,
  given: Map<string, Colour>,
): void {
  const { neighbours, isAlike } = problem;
  for (const id of [...open].sort((a, b) => (neighbours.get(b)?.size ?? 0) - (neighbours.get(a)?.size ?? 0) || compareIds(a, b))) {
    const beside = listBeside(neighbours, id).flatMap((other) => given.get(other) ?? []);
    const [look] = order(problem, id, free.get(id)!, given).filter((one) => !beside.some((other) => isAlike(one, other)));
    if (look) given.set(id, look);
  }
}
