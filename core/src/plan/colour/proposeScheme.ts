import type { ShopStandard } from '../../catalogue';
import { toInsulationWords, type Colour, type CircuitKind, type Job } from '../../model';
import type { LoomPlan } from '../types';
import { assignLooks } from './assignLooks';
import { countBands } from './countBands';
import { createAlike, listNeighbours, listWireGroups } from './listLookAlikes';
import { listLeadLooks } from './findLeadLook';
import { listSchemeLooks } from './listSchemeLooks';
import { countReels, MOST_LOOK_TRIALS, toSize } from './proposeColours';

/** A whole loom as the scheme of the shop would have it look. */
export interface SchemeProposal {
  changes: { circuitId: string; from: Colour; to: Colour }[];
  /** pairs that are taken for one another all the same: there are not looks enough, or a cable has its own; none where the print tells */
  left: [string, string][];
  reelsBefore: number;
  reelsAfter: number;
  /** rings to be put on: at both ends of each wire and on either side of each breakout that it passes */
  bands: number;
}

/**
 * Every circuit in a look of the shop's scheme: by function, all of one colour, with bands on one colour, or as the leads of boxes or of the
 * factory are (craft A6). Circuits in a cable
 * keep theirs, and so do those whose colour somebody gave a reason for. One that has a look of the scheme that nobody beside it has keeps it where it can.
 */
export function proposeScheme(job: Pick<Job, 'looms' | 'mates'>, plan: LoomPlan, standard: ShopStandard): SchemeProposal {
  const loom = job.looms[plan.loomId]!;
  const { neighbours } = listNeighbours(listWireGroups(loom, plan, standard));
  const isAlike = createAlike(standard);
  const circuits = loom.circuits;
  const sizes = new Map<string, Set<string>>();
  for (const wire of plan.wires) sizes.set(wire.circuitId, (sizes.get(wire.circuitId) ?? new Set()).add(toSize(wire)));
  const ids = Object.keys(circuits).filter((id) => circuits[id]!.cable === null && circuits[id]!.colourPin === null);
  const looks = new Map<CircuitKind, readonly Colour[]>();
  const leads = listLeadLooks(job, plan.loomId, standard);
  const listOfKind = (id: string): readonly Colour[] => {
    const lead = leads.get(id);
    if (lead) return [lead];
    const { kind } = circuits[id]!;
    let known = looks.get(kind);
    if (!known) looks.set(kind, (known = listSchemeLooks(kind, standard)));
    return known;
  };
  // its own first: what is told apart already need not change
  const owns = new Map(ids.map((id) => [id, listOfKind(id).find((look) => isSameLook(look, circuits[id]!.colour))]));
  const listLooks = (id: string) => {
    const own = owns.get(id);
    return own ? [own, ...listOfKind(id).filter((look) => look !== own)] : listOfKind(id);
  };
  const reels = createReels(sizes);
  const isPrinted = standard.colourScheme === 'one-colour';
  const given = new Map<string, Colour>(
    isPrinted
      ? ids.map((id) => [id, listLooks(id)[0]!])
      : assignLooks({
          ...{ ids, neighbours, listLooks, isAlike, most: MOST_LOOK_TRIALS },
          keptLook: (id) => circuits[id]!.colour,
          prefer: (id, look, taken) => look === owns.get(id) || reels(taken)(id, look),
        }),
  );
  const now = (id: string): Colour => given.get(id) ?? circuits[id]!.colour;
  // there are not looks enough for these: the one that the fewest beside it have, and they go by their numbers
  for (const id of ids) {
    if (given.has(id)) continue;
    const beside = [...(neighbours.get(id) ?? [])].map(now);
    const countLike = (look: Colour) => beside.filter((other) => isAlike(look, other)).length;
    given.set(
      id,
      listLooks(id).reduce((best, look) => (countLike(look) < countLike(best) ? look : best)),
    );
  }
  const changes = ids
    .map((circuitId) => ({ circuitId, from: circuits[circuitId]!.colour, to: now(circuitId) }))
    .filter(({ from, to }) => !isSameLook(from, to));
  const left = isPrinted
    ? []
    : [...neighbours].flatMap(([id, beside]) =>
        [...beside].filter((other) => id < other && isAlike(now(id), now(other))).map((other): [string, string] => [id, other]),
      );
  return {
    changes,
    left,
    reelsBefore: countReels(plan.wires, (id) => circuits[id]!.colour).size,
    reelsAfter: countReels(plan.wires, now).size,
    bands: countBands(loom, plan, now),
  };
}

/**
 * Is a wire of every size of a circuit cut from that insulation already? Counted anew where one more has a look or one less: there may be
 * thousands, and each asks for every look that it could have.
 */
function createReels(sizes: ReadonlyMap<string, ReadonlySet<string>>) {
  let counted = -1;
  const have = new Set<string>();
  return (given: ReadonlyMap<string, Colour>) => {
    if (given.size !== counted) {
      counted = given.size;
      have.clear();
      for (const [id, look] of given) for (const size of sizes.get(id) ?? []) have.add(`${size} ${toInsulationWords(look)}`);
    }
    return (id: string, look: Colour): boolean => {
      const words = toInsulationWords(look);
      return [...(sizes.get(id) ?? [])].every((size) => have.has(`${size} ${words}`));
    };
  };
}

const isSameLook = (a: Colour, b: Colour) => a.base === b.base && a.stripe === b.stripe && a.bands.join() === b.bands.join();
