import { findCrimpHeight } from '../../model';
import { measurePullOff, toWireWords, type Catalogue } from '../../catalogue';
import type { LoomPlan, PlannedTermination, PlannedWire } from '../../plan';
import { compareIds, pushTo, toRunWords } from '../../units';
import { toDigest } from '../toDigest';
import type { Step } from '../step';
import type { CrimpPlace, CrimpSeries } from './types';

/**
 * The crimps of a loom by how they are made (craft D3): the same tool and die, contact or barrel, wire type and size. What is only stripped, or of
 * which nothing says how it is made or how hard it holds, is in none.
 *
 * @param steps of the loom as it was planned
 * @param contacts of the shop, for the heights of their sheets
 */
export function listCrimpSeries(
  plan: Pick<LoomPlan, 'loomId' | 'terminations' | 'wires' | 'barrels' | 'splices'>,
  steps: CrimpSteps,
  contacts: Catalogue['contacts'],
): CrimpSeries[] {
  const series = new Map<string, CrimpSeries>();
  for (const { made, place } of [...listContactCrimps(plan, steps, contacts), ...listBarrelCrimps(plan, steps)]) {
    const { tool, positioner, partId, contactName, leastN, heightMm } = made;
    const words = made.wires.map(toType);
    // whichever wire of them lies first in a barrel; forces go by the first crimp, by which its samples were told
    const id = toDigest(JSON.stringify([tool, positioner, partId, [...words].sort().join(' with ')]));
    const how = { id, tool, positioner, contactName, wires: toRunWords(words, ' with '), leastN, heightMm };
    const one = series.get(id) ?? { ...how, places: [], elsewhere: [] };
    series.set(id, one);
    one.places.push({ loomId: plan.loomId, ...place });
  }
  return [...series.values()];
}

/** The series of a loom with the crimps of other looms that are made the same way; what is made on those alone is left out. */
export const joinSeries = (series: readonly CrimpSeries[], others: readonly CrimpSeries[]): CrimpSeries[] =>
  series.map((one) => ({ ...one, elsewhere: others.flatMap(({ id, places }) => (id === one.id ? places : [])) }));

/** One crimp, and how it is made. */
interface Crimp {
  made: Pick<CrimpSeries, 'tool' | 'positioner' | 'contactName' | 'leastN' | 'heightMm'> & {
    partId: string;
    wires: readonly PlannedWire[];
  };
  place: Omit<CrimpPlace, 'loomId'>;
}

type CrimpSteps = readonly Pick<Step, 'id' | 'operation' | 'endId' | 'spliceId' | 'items'>[];

function listContactCrimps(
  { terminations, wires }: Pick<LoomPlan, 'terminations' | 'wires'>,
  steps: CrimpSteps,
  contacts: Catalogue['contacts'],
) {
  const wireOf = new Map(wires.map((wire) => [wire.id, wire]));
  const ofEnd = new Map<string, PlannedTermination[]>();
  for (const one of terminations) pushTo(ofEnd, one.endId, one);
  return steps.flatMap(({ id: stepId, operation, endId, items }): Crimp[] => {
    if (operation !== 'crimp' || endId === null) return [];
    const here = ofEnd.get(endId) ?? [];
    return items.flatMap(({ id: itemId }, at): Crimp[] => {
      const one = here[at];
      if (!one || one.contactId === null || one.tool === '' || one.pullOffsN.every((force) => force === null)) return [];
      const { contactId, contactName, tool, positioner, pullOffsN: leastN, cavity } = one;
      const inIt = one.wireIds.map((id) => wireOf.get(id)!);
      const contact = contacts.find(({ id }) => id === contactId);
      // sheets give the height of one wire in a barrel
      const heightMm = contact && inIt.length === 1 ? findCrimpHeight(contact, inIt[0]!.conductor.size) : null;
      return [
        {
          made: { tool, positioner, partId: contactId, contactName, leastN, heightMm, wires: inIt },
          place: { stepId, itemId, endId, cavity },
        },
      ];
    });
  });
}

/** Each wire of a splice holds in its barrel as hard as in a contact: IEC 60352-2 is about the conductor. */
function listBarrelCrimps({ barrels, splices, wires }: Pick<LoomPlan, 'barrels' | 'splices' | 'wires'>, steps: CrimpSteps): Crimp[] {
  const wireOf = new Map(wires.map((wire) => [wire.id, wire]));
  const labels = new Map(splices.map(({ id, label }) => [id, label]));
  const barrelOf = new Map(barrels.map((barrel) => [barrel.spliceId, barrel]));
  return steps.flatMap(({ id: stepId, operation, spliceId, items }): Crimp[] => {
    const barrel = operation === 'splice' && spliceId !== null ? barrelOf.get(spliceId) : undefined;
    if (!barrel || barrel.barrelId === null || barrel.tool === '') return [];
    const { barrelId: partId, barrelName: contactName, tool } = barrel;
    const inIt = barrel.wireIds.map((id) => wireOf.get(id)!).sort((a, b) => compareIds(toType(a), toType(b)));
    const leastN = inIt.map(({ conductor }) => measurePullOff(conductor));
    if (leastN.every((force) => force === null)) return [];
    const made = { tool, positioner: '', partId, contactName, leastN, heightMm: null, wires: inIt };
    return items.map(({ id: itemId }) => ({ made, place: { stepId, itemId, endId: null, cavity: labels.get(barrel.spliceId)! } }));
  });
}

/** Which wire in which insulation: samples of one say nothing of the other. */
const toType = ({ conductor }: PlannedWire): string => toWireWords(conductor);
