import type { Catalogue } from '../../../catalogue';
import { changeDocument, listCavities, type Job, type Loom } from '../../../model';
import { compareIds } from '../../../units';
import { addEnd } from '../route/addEnd';
import { measureAway } from '../route/measureAway';

export interface GatheredParts {
  next: Job;
  endId: string;
  /** ids of the parts that moved */
  moved: string[];
}

/** A hand's width off the trunk, until somebody measures it. */
const LEG_MM = 150;

/** Resistors and pull-ups of a loom that lie about at its ends; those inside a device, diodes and bus terminators belong where they are. */
export function listScatteredParts(job: Job, loomId: string): string[] {
  const ids = Object.keys(job.parts)
    .filter((id) => {
      const { kind, inside, at } = job.parts[id]!;
      return at.loomId === loomId && !inside && (kind === 'resistor' || kind === 'pull-up');
    })
    .sort(compareIds);
  return new Set(ids.map((id) => job.parts[id]!.at.endId)).size > 1 ? ids : [];
}

/**
 * Gather the scattered resistors of a loom on one pigtail where they can be found: a connector on a short leg from the breakout nearest
 * to all of them, guessed until measured. A wire that ended in nothing but its resistor moves there, any other is led there too. Null
 * where fewer than two places have any, where one of their pins is in no circuit, or where no housing has cavities enough.
 */
export function gatherParts(job: Job, catalogue: Catalogue, loomId: string): GatheredParts | null {
  const moved = listScatteredParts(job, loomId);
  const loom = job.looms[loomId]!;
  const places = moved.flatMap((id) => job.parts[id]!.at.cavities.map((cavity) => ({ endId: job.parts[id]!.at.endId, cavity })));
  const circuits = places.map(({ endId, cavity }) =>
    Object.keys(loom.circuits)
      .sort(compareIds)
      .find((id) => loom.circuits[id]!.terminations.some((one) => one.endId === endId && one.cavity === cavity)),
  );
  if (moved.length === 0 || circuits.includes(undefined)) return null;
  const wanted = [...new Set(circuits as string[])];
  const familyId = Object.keys(catalogue.families)
    .filter((id) => listCavities(catalogue.families[id]!).length >= wanted.length)
    .sort((a, b) => listCavities(catalogue.families[a]!).length - listCavities(catalogue.families[b]!).length || compareIds(a, b))[0];
  if (familyId === undefined) return null;
  const cavityOf = new Map(wanted.map((id, index) => [id, listCavities(catalogue.families[familyId]!)[index]!]));
  let endId = '';
  const next = changeDocument(job, (draft) => {
    const target = draft.looms[loomId]!;
    endId = addEnd(
      target,
      {
        nodeId: findMiddle(
          loom,
          places.map((one) => one.endId),
        ),
        legMm: LEG_MM,
      },
      'resistor pigtail',
      familyId,
      {},
      { method: 'estimate', status: 'guessed' },
    );
    places.forEach((place, index) => {
      const circuit = target.circuits[circuits[index]!]!;
      const pigtail = { endId, cavity: cavityOf.get(circuits[index]!)! };
      const isThere = circuit.terminations.some((one) => one.endId === endId);
      // a pin that a device has there keeps its wire
      const isDevices = Object.hasOwn(loom.ends[place.endId]!.pins, place.cavity);
      const at = circuit.terminations.findIndex((one) => one.endId === place.endId && one.cavity === place.cavity);
      if (!isDevices && at !== -1) circuit.terminations.splice(at, 1, ...(isThere ? [] : [pigtail]));
      else if (!isThere) circuit.terminations.push(pigtail);
    });
    moved.forEach((id, index) => {
      draft.parts[id]!.at = { loomId, endId, cavities: [cavityOf.get(circuits[2 * index]!)!, cavityOf.get(circuits[2 * index + 1]!)!] };
    });
  });
  return { next, endId, moved };
}

/** Breakout nearest to all these ends together; the datum where there is none. */
function findMiddle(loom: Loom, endIds: readonly string[]): string {
  const sums = new Map<string, number>();
  for (const endId of endIds)
    for (const [node, mm] of measureAway(loom, loom.ends[endId]!.nodeId)) sums.set(node, (sums.get(node) ?? 0) + mm);
  const breakouts = Object.keys(loom.nodes).filter((id) => loom.nodes[id]!.kind === 'breakout');
  const nearest = breakouts.sort((a, b) => sums.get(a)! - sums.get(b)! || compareIds(a, b))[0];
  return nearest ?? Object.keys(loom.nodes).find((id) => loom.nodes[id]!.kind === 'datum')!;
}
