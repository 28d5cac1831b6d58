import { findFamily, listHousings, rankHousings, type Conductor } from '../../catalogue';
import { isMate, type ConnectorFamily } from '../../model';
import { compareIds, pushTo } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, Rule, RuleContext } from '../types';

const MOST_NAMED = 3;

/**
 * EN6, stop: a connector whose housing is still to be chosen. The fix takes the smallest one that has every cavity with a wire or a pin and takes
 * the wires as they are sized; where none takes them, the smallest with the cavities.
 */
export const checkChosenHousings: Rule = (context) => {
  const { loom } = context;
  return Object.keys(loom.ends)
    .filter((endId) => loom.ends[endId]!.kind === 'connector' && loom.ends[endId]!.familyId === null)
    .sort(compareIds)
    .map((endId): Finding => {
      const cavities = listUsed(context, endId);
      const fitting = listFitting(context, endId, cavities);
      const has = fitting.slice(0, MOST_NAMED).map(([, { name }]) => name);
      const more = fitting.length - has.length;
      return createFinding(
        context,
        'EN6',
        [{ kind: 'end', id: endId }],
        `${loom.ends[endId]!.name} has no housing yet${cavities.length > 0 ? ` (cavities ${cavities.join(', ')})` : ''}: contacts, seals, entry depth and envelope are unknown, its wires are counted without entry. ${
          fitting.length === 0
            ? 'No family of the shop has these cavities: add one in Shop, or in Ends for this job alone.'
            : `With these cavities: ${has.join(', ')}${more > 0 ? ` and ${more} more` : ''}.`
        }`,
        { measured: cavities.length, fix: fitting.length > 0 ? takeFamily(context, endId, fitting[0]!) : null },
      );
    });
};

/** Cavities of an end that a wire or a pin of its device is in. */
function listUsed({ loom }: RuleContext, endId: string): string[] {
  const wired = Object.values(loom.circuits).flatMap(({ terminations }) =>
    terminations.flatMap((one) => (one.endId === endId ? [one.cavity] : [])),
  );
  return [...new Set([...wired, ...Object.keys(loom.ends[endId]!.pins), ...Object.keys(loom.ends[endId]!.offers)])].sort(compareIds);
}

/** Families of the job and the shop with these cavities, those that take its wires and of them the fewest ways first; at a break those that go into its other half. */
function listFitting(
  { job, loomId, catalogue, plan }: RuleContext,
  endId: string,
  cavities: readonly string[],
): [string, ConnectorFamily][] {
  const other = Object.values(job.mates).flatMap(({ a, b }) =>
    a.loomId === loomId && a.endId === endId ? [b] : b.loomId === loomId && b.endId === endId ? [a] : [],
  )[0];
  const mateId = other ? job.looms[other.loomId]!.ends[other.endId]!.familyId : null;
  const mate = findFamily(job, catalogue, mateId);
  const housings = listHousings(job, catalogue, cavities).filter(([id, family]) => !mate || isMate(id, family, mateId!, mate));
  return rankHousings(catalogue, housings, listConductors(plan, endId));
}

/** What arrives in each cavity of an end. */
function listConductors({ wires }: RuleContext['plan'], endId: string): Map<string, Conductor[]> {
  const conductors = new Map<string, Conductor[]>();
  for (const { from, to, conductor } of wires)
    for (const end of [from, to]) if (end.kind === 'cavity' && end.endId === endId) pushTo(conductors, end.cavity, conductor);
  return conductors;
}

function takeFamily({ loomId }: RuleContext, endId: string, [familyId, family]: [string, ConnectorFamily]): Finding['fix'] {
  const at = `/looms/${loomId}/ends/${endId}`;
  return {
    label: `Take a ${family.name}`,
    patch: [
      { op: 'replace', path: `${at}/familyId`, value: familyId },
      { op: 'replace', path: `${at}/key`, value: family.keys[0] ?? null },
    ],
  };
}
