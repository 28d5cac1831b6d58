import { listCavities, type ConnectorFamily, type Loom } from '../../model';
import type { LoomPlan } from '../../plan';
import { compareIds } from '../../units';
import type { Step } from '../step';

/**
 * What is looked at when the last contact of an end is seated (craft D2): nothing left over, and every empty cavity as it was planned. Empty where the step
 * seats nothing, or nobody knows the housing.
 */
export function listEndCheck(
  { operation, endId }: Pick<Step, 'operation' | 'endId'>,
  { terminations, plugs }: Pick<LoomPlan, 'terminations' | 'plugs'>,
  { ends }: Pick<Loom, 'ends'>,
  families: Readonly<Record<string, ConnectorFamily>>,
): string[] {
  const familyId = operation === 'seat' && endId !== null ? ends[endId]?.familyId : null;
  const family = familyId ? families[familyId] : undefined;
  if (!family) return [];
  const full = new Set(terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])));
  const plugged = new Set(plugs.flatMap((one) => (one.endId === endId ? [one.cavity] : [])));
  const empty = listCavities(family)
    .filter((cavity) => !full.has(cavity))
    .sort(compareIds);
  const [withPlug, open] = [empty.filter((cavity) => plugged.has(cavity)), empty.filter((cavity) => !plugged.has(cavity))];
  return [
    'No contact and no seal is left in the bag.',
    'No wire of this end hangs free.',
    ...(empty.length === 0 ? ['No cavity is empty.'] : []),
    ...(withPlug.length > 0 ? [`Empty, to be plugged: ${withPlug.join(', ')}.`] : []),
    ...(open.length > 0 ? [`Empty and open: ${open.join(', ')}.`] : []),
  ];
}
