import type { ShopStandard } from '../../catalogue';
import { fromColourWords, type Colour, type Job } from '../../model';
import { listNets, toCircuitKey, type PinPlace } from '../../netlist';
import { compareIds } from '../../units';

/**
 * What the maker of a box, or the factory, has for a lead at these pins, the first that somebody said (craft A6); null: nobody did, or the shop
 * does not go by it.
 */
export function findLeadLook(
  looms: Job['looms'],
  pins: readonly PinPlace[],
  { colourScheme }: Pick<ShopStandard, 'colourScheme'>,
): Colour | null {
  if (colourScheme !== 'box-leads' && colourScheme !== 'factory-leads') return null;
  for (const { loomId, endId, cavity } of pins) {
    const end = looms[loomId]?.ends[endId];
    const lead = colourScheme === 'box-leads' ? end?.offers[cavity]?.lead : end?.pins[cavity]?.lead;
    if (lead) return fromColourWords(lead);
  }
  return null;
}

/** Looks of leads of the circuits of a loom, by id: through plugs too, for a lead keeps its colour beyond them. None where nobody said. */
export function listLeadLooks(
  job: Pick<Job, 'looms' | 'mates'>,
  loomId: string,
  standard: Pick<ShopStandard, 'colourScheme'>,
): ReadonlyMap<string, Colour> {
  const looks = new Map<string, Colour>();
  if (standard.colourScheme !== 'box-leads' && standard.colourScheme !== 'factory-leads') return looks;
  const { netOf } = listNets(job);
  for (const circuitId of Object.keys(job.looms[loomId]!.circuits).sort(compareIds)) {
    const pins = netOf
      .get(toCircuitKey({ loomId, circuitId }))!
      .flatMap((one) => job.looms[one.loomId]!.circuits[one.circuitId]!.terminations.map((pin) => ({ loomId: one.loomId, ...pin })));
    const look = findLeadLook(job.looms, pins, standard);
    if (look) looks.set(circuitId, look);
  }
  return looks;
}
