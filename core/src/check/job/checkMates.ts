import { findFamily } from '../../catalogue';
import { isMate } from '../../model';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { Finding, WiringRule } from '../types';

/**
 * MT1, stop: ends that mate are of families that do not go together, or of unlike keys. MT2, check: a cavity has a wire on one side only.
 * MT3, stop: both halves take pins, or both sockets.
 */
export const checkMates: WiringRule = ({ job, catalogue }) =>
  Object.keys(job.mates)
    .sort(compareIds)
    .flatMap((id) => {
      const { a, b } = job.mates[id]!;
      const sides = [a, b].map(({ loomId, endId }) => {
        const loom = job.looms[loomId]!;
        const used = Object.values(loom.circuits).flatMap(({ terminations }) =>
          terminations.filter((one) => one.endId === endId).map(({ cavity }) => cavity),
        );
        return { end: loom.ends[endId]!, loom, used: new Set(used), loomId, endId };
      });
      const [one, other] = sides as [(typeof sides)[number], (typeof sides)[number]];
      const both = `${one.end.name} (${one.loom.name}) and ${other.end.name} (${other.loom.name})`;
      const places = [
        { kind: 'end' as const, id: one.endId },
        { kind: 'end' as const, id: other.endId },
      ];
      const findings: Finding[] = [];
      const [familyOne, familyOther] = [one, other].map(({ end }) => findFamily(job, catalogue, end.familyId));
      // a half whose housing is still to be chosen has a finding of its own
      if (familyOne && familyOther) {
        const isFitting = isMate(one.end.familyId!, familyOne, other.end.familyId!, familyOther);
        const isAlike = familyOne.gender !== null && familyOne.gender === familyOther.gender;
        if (isAlike) findings.push(createFinding(one, 'MT3', places, `${both} are to mate and both take ${familyOne.gender}.`));
        else if (!isFitting || one.end.key !== other.end.key)
          findings.push(createFinding(one, 'MT1', places, `${both} are to mate but differ in ${isFitting ? 'key' : 'family'}.`));
      }
      const lone = [...new Set([...one.used, ...other.used])]
        .filter((cavity) => one.used.has(cavity) !== other.used.has(cavity))
        .sort(compareIds);
      // a side with no wires at all is not planned yet
      if (lone.length && one.used.size && other.used.size)
        findings.push(
          createFinding(
            one,
            'MT2',
            places,
            `${both}: ${lone.length === 1 ? 'cavity' : 'cavities'} ${lone.join(', ')} ${lone.length === 1 ? 'has' : 'have'} a wire on one side only.`,
            {
              measured: lone.length,
              limit: 0,
            },
          ),
        );
      return findings;
    });
