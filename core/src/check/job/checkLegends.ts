import { listNearNames, listTwoMeanings } from '../../plan';
import { compareIds } from '../../units';
import { createFinding, toPlacesAt } from '../createFinding';
import type { Finding, WiringContext, WiringRule } from '../types';

const BY_WORDS = {
  same: 'have the same legend',
  order: 'have the same words in another order',
  letter: 'are one letter apart',
} as const;

/**
 * MA3, check: legends of two ends that are taken for one another; the two halves of a connection have one name on purpose. MA4, check: an abbreviation
 * on an end that could stand for two things of this job.
 */
export const checkLegends: WiringRule = (context) => {
  const ends = listEnds(context);
  return [...checkNear(context, ends), ...checkMeanings(context, ends)];
};

type NamedEnd = ReturnType<typeof listEnds>[number];

const listEnds = ({ job }: WiringContext) =>
  Object.keys(job.looms)
    .sort(compareIds)
    .flatMap((loomId) =>
      Object.keys(job.looms[loomId]!.ends)
        .sort(compareIds)
        .map((id) => ({ id, loomId, name: job.looms[loomId]!.ends[id]!.name })),
    );

function checkNear({ job }: WiringContext, ends: readonly NamedEnd[]): Finding[] {
  const toKey = ({ loomId, id }: { loomId: string; id: string }) => `${loomId}/${id}`;
  const mates = new Map(
    Object.values(job.mates).flatMap(({ a, b }) => {
      const [one, other] = [a, b].map(({ loomId, endId }) => toKey({ loomId, id: endId })) as [string, string];
      return [[one, other] as const, [other, one] as const];
    }),
  );
  return listNearNames(ends).flatMap(({ pair: [one, other], by }) => {
    if (mates.get(toKey(one)) === toKey(other)) return [];
    const where = one.loomId === other.loomId ? '' : ` (looms ${job.looms[one.loomId]!.name} and ${job.looms[other.loomId]!.name})`;
    const places = [one, other].filter(({ loomId }) => loomId === one.loomId).map(({ id }) => ({ kind: 'end' as const, id }));
    const sentence = `"${one.name}" and "${other.name}"${where} ${BY_WORDS[by]}: one is taken for the other.`;
    return [{ ...createFinding(one, 'MA3', places, sentence), key: ['MA3', toKey(one), toKey(other)].join(':').slice(0, 120) }];
  });
}

function checkMeanings({ job }: WiringContext, ends: readonly NamedEnd[]): Finding[] {
  const devices = Object.values(job.devices).map(({ name }) => name);
  const circuits = Object.values(job.looms).flatMap(({ circuits: all }) => Object.values(all).map(({ name }) => name));
  const names = ends.map(({ name }) => name);
  return listTwoMeanings(names, [...names, ...devices, ...circuits]).map(({ abbreviation, name, meanings }) => {
    const { loomId, id } = ends.find((end) => end.name === name)!;
    const sentence = `"${abbreviation.toUpperCase()}" on a legend could stand for ${meanings.join(' or ')} here: write it out.`;
    return createFinding({ loomId }, 'MA4', toPlacesAt(id, abbreviation), sentence);
  });
}
