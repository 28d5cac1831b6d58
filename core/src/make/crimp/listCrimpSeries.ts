import { findCrimpHeight } from '../../model';
import { TABLE_WORDS, toSizeWords, type Catalogue } from '../../catalogue';
import type { LoomPlan, PlannedTermination, PlannedWire } from '../../plan';
import { toDigest } from '../toDigest';
import type { Step } from '../step';
import type { CrimpSeries } from './types';

/**
 * The crimps of a loom by how they are made (craft D3): the same tool and die, contact, wire type and size. What is only stripped, or of which
 * nothing says how it is made or how hard it holds, is in none.
 *
 * @param steps of the loom as it was planned
 * @param contacts of the shop, for the heights of their sheets
 */
export function listCrimpSeries(
  { terminations, wires }: Pick<LoomPlan, 'terminations' | 'wires'>,
  steps: readonly Pick<Step, 'id' | 'operation' | 'endId' | 'items'>[],
  contacts: Catalogue['contacts'],
): CrimpSeries[] {
  const wireOf = new Map(wires.map((wire) => [wire.id, wire]));
  const ofEnd = new Map<string, PlannedTermination[]>();
  for (const one of terminations) ofEnd.set(one.endId, [...(ofEnd.get(one.endId) ?? []), one]);
  const series = new Map<string, CrimpSeries>();
  for (const { id: stepId, operation, endId, items } of steps) {
    if (operation !== 'crimp' || endId === null) continue;
    const here = ofEnd.get(endId) ?? [];
    items.forEach(({ id: itemId }, at) => {
      const one = here[at];
      if (!one || one.contactId === null || one.tool === '' || one.pullOffsN.every((force) => force === null)) return;
      const inIt = one.wireIds.map((id) => wireOf.get(id)!);
      const words = inIt.map(toWireWords).sort().join(' with ');
      const id = toDigest(JSON.stringify([one.tool, one.positioner, one.contactId, words]));
      const known = series.get(id) ?? createSeries(id, one, words, inIt, contacts);
      series.set(id, known);
      known.places.push({ stepId, itemId, endId, cavity: one.cavity });
    });
  }
  return [...series.values()];
}

/** Which wire in which insulation: samples of one say nothing of the other. */
const toWireWords = ({ conductor }: PlannedWire): string => `${toSizeWords(conductor)} ${TABLE_WORDS[conductor.table]}`;

function createSeries(
  id: string,
  { contactId, contactName, tool, positioner, pullOffsN }: PlannedTermination,
  words: string,
  inIt: readonly PlannedWire[],
  contacts: Catalogue['contacts'],
): CrimpSeries {
  const contact = contacts.find((one) => one.id === contactId);
  // sheets give the height of one wire in a barrel
  const heightMm = contact && inIt.length === 1 ? findCrimpHeight(contact, inIt[0]!.conductor.size) : null;
  return { id, tool, positioner, contactName, wires: words, leastN: pullOffsN, heightMm, places: [] };
}
