import { linearSumAssignment } from 'linear-sum-assignment';

/** For each need and each place: what it would cost there; null: it cannot be there at all. */
export type Costs = readonly (readonly (number | null)[])[];

export interface Match {
  /** by need: the place it gets; null: none */
  places: (number | null)[];
  /** of what is placed */
  cost: number;
}

/** Dearer than any whole assignment: a need is left over only when there is no way to place it. */
const measureUnplaced = (costs: Costs) => 1 + 2 * costs.reduce((sum, row) => sum + Math.max(0, ...row.map((cost) => cost ?? 0)), 0);

/**
 * Place as many needs as can be placed, and those at least cost; one need a place (rectangular assignment, Jonker and Volgenant;
 * Crouse, IEEE Trans. Aerosp. Electron. Syst. 52 (2016) 1679). Deterministic.
 *
 * @throws RangeError where a cost is negative or no number, or rows differ in length
 */
export function matchPins(costs: Costs): Match {
  const needs = costs.length;
  if (needs === 0) return { places: [], cost: 0 };
  const places = costs[0]!.length;
  for (const row of costs) {
    if (row.length !== places) throw new RangeError(`match: expected ${places} places for each need, got ${row.length}`);
    for (const cost of row)
      if (cost !== null && !(cost >= 0 && Number.isFinite(cost))) throw new RangeError(`match: expected a cost of 0 or more, got ${cost}`);
  }
  const unplaced = measureUnplaced(costs);
  // each need has a place of its own that stands for "nowhere"; no other may have it
  const matrix = costs.map((row, need) => [
    ...row.map((cost) => cost ?? 4 * unplaced),
    ...costs.map((_, other) => (other === need ? unplaced : 4 * unplaced)),
  ]);
  const { rowAssignments } = linearSumAssignment(matrix, { maximaze: false });
  let cost = 0;
  const result = costs.map((row, need) => {
    const place = rowAssignments[need]!;
    const own = place < places ? row[place] : null;
    if (own === null || own === undefined) return null;
    cost += own;
    return place;
  });
  return { places: result, cost };
}

/**
 * Why a need has no place: a least set of needs that together have fewer places than they are (Hall), so that leaving out any one of
 * them lets the others be placed; with the places they compete for. match: as matchPins gives it.
 */
export function findConflict(costs: Costs, match: Match, need: number): { needs: number[]; places: number[] } {
  const placesOf = (one: number) => costs[one]!.flatMap((cost, place) => (cost === null ? [] : [place]));
  const holder = new Map(match.places.flatMap((place, one) => (place === null ? [] : [[place, one] as const])));
  // everything that can be reached by moving needs about: all those places are taken, or the need would have one
  const reached = new Set([need]);
  for (const one of reached)
    for (const place of placesOf(one)) {
      const other = holder.get(place);
      if (other !== undefined) reached.add(other);
    }
  let needs = [...reached];
  for (const one of [...needs].sort((a, b) => b - a)) {
    const without = needs.filter((other) => other !== one);
    if (without.length > 0 && !canPlaceAll(costs, without)) needs = without;
  }
  needs.sort((a, b) => a - b);
  return { needs, places: [...new Set(needs.flatMap(placesOf))].sort((a, b) => a - b) };
}

/** Can all these needs have a place at once (augmenting paths, Kuhn)? */
export function canPlaceAll(costs: Costs, needs: readonly number[]): boolean {
  const holder = new Map<number, number>();
  const place = (need: number, seen: Set<number>): boolean => {
    for (let at = 0; at < costs[need]!.length; at += 1) {
      if (costs[need]![at] === null || seen.has(at)) continue;
      seen.add(at);
      const other = holder.get(at);
      if (other === undefined || place(other, seen)) {
        holder.set(at, need);
        return true;
      }
    }
    return false;
  };
  return needs.every((need) => place(need, new Set()));
}
