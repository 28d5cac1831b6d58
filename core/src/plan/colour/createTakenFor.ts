import type { ShopStandard } from '../../catalogue';
import type { Colour, Loom } from '../../model';
import { compareIds } from '../../units';
import type { LoomPlan } from '../types';
import { createAlike, listNeighbours, listWireGroups } from './listLookAlikes';

/** What tells of a circuit in some look which circuits beside it, in a housing or close to a breakout, it would be taken for; by id. */
export function createTakenFor(loom: Loom, plan: LoomPlan, standard: ShopStandard): (circuitId: string, look: Colour) => string[] {
  const { neighbours } = listNeighbours(listWireGroups(loom, plan, standard));
  const isAlike = createAlike(standard);
  return (circuitId, look) =>
    [...(neighbours.get(circuitId) ?? [])].filter((other) => isAlike(look, loom.circuits[other]!.colour)).sort(compareIds);
}
