import {
  findFamily,
  listCavityContacts,
  toSizeWords,
  type Catalogue,
  type Conductor,
  type Contact,
  type ShopStandard,
} from '../../../catalogue';
import type { Job } from '../../../model';
import type { MinimumSize } from '../../size/chooseConductors';
import { createAmbients, measureContactPeak, measureContactRating } from '../../terminate/measureContactRating';
import type { RoutedLoom } from '../../route/routeLoom';
import type { CarriedCurrent } from '../currents/listCarriedCurrents';

/**
 * The least conductor of each wire whose contacts bear what flows in it: of one cavity the finer contact takes the thinner wire and bears
 * less (calculations 3 and 8). By edge of the netlist; a wire that the thinnest will do for, or none, is not in it.
 */
export function listContactFloors(
  job: Job,
  routes: readonly RoutedLoom[],
  flows: ReadonlyMap<string, ReadonlyMap<string, CarriedCurrent>>,
  catalogue: Catalogue,
  standard: ShopStandard,
): ReadonlyMap<number, MinimumSize> {
  const floors = new Map<number, MinimumSize>();
  let edge = -1;
  for (const { loomId, wires, ranges } of routes) {
    const loom = job.looms[loomId]!;
    const ambientAt = createAmbients(job, loom, standard);
    const findAmbient = (endId: string) => ambientAt(loom.ends[endId]!.nodeId);
    const findContact = (contacts: readonly Contact[], { areaMm2 }: Conductor): Contact | undefined =>
      contacts.find((one) => areaMm2 >= one.minAreaMm2 - 1e-9 && areaMm2 <= one.maxAreaMm2 + 1e-9);
    wires.forEach(({ id, from, to }, index) => {
      edge += 1;
      const { conductors, ruledBy } = ranges[index]!;
      const flow = flows.get(loomId)?.get(id);
      if (!flow?.designA || conductors.length < 2 || ruledBy === 'pinned' || ruledBy === 'cable') return;
      const cavities = [from, to].flatMap((end) => {
        const family = end.kind === 'cavity' ? findFamily(job, catalogue, loom.ends[end.endId]!.familyId) : undefined;
        return end.kind === 'cavity' && family ? [{ contacts: listCavityContacts(catalogue, family, end.cavity), endId: end.endId }] : [];
      });
      // each end by itself: where one has no contact that bears it, the other is still to have its own
      let conductor = conductors[0]!;
      for (const { contacts, endId } of cavities) {
        const borne = conductors.find((one) => {
          const contact = findContact(contacts, one);
          return (
            contact !== undefined &&
            measureContactRating(contact, findAmbient(endId)) >= flow.designA! &&
            measureContactPeak(contact) >= flow.inrushA
          );
        });
        if (borne && borne.areaMm2 > conductor.areaMm2) conductor = borne;
      }
      if (conductor === conductors[0]) return;
      floors.set(edge, {
        conductor,
        ruledBy: 'contact',
        because: `the contact that bears ${flow.designA.toFixed(1)} A there takes no thinner wire; that for ${toSizeWords(conductors[0]!)} does not bear it`,
      });
    });
  }
  return floors;
}
