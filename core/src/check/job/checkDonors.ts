import type { DonorWire } from '../../model';
import { listDonorDispositions } from '../../plan';
import { compareIds } from '../../units';
import { createFinding } from '../createFinding';
import type { RuleCode } from '../register';
import type { WiringRule } from '../types';

const OF_JOB = { loomId: '' };

/**
 * CI7, check: a function that no wire of a donor loom serves any more, though a device at its ends stays.
 * DO1, check: a wire that stays leads to a device that goes, or a device that stays has no wire left.
 * DO2, check: a length that contradicts what was decided about the wire.
 * MA6, check: a wire is put to other use, and the name printed on it tells of the old one.
 */
export const checkDonors: WiringRule = ({ job, standard }) =>
  Object.keys(job.donors)
    .sort(compareIds)
    .flatMap((donorId) => {
      const donor = job.donors[donorId]!;
      const ledger = listDonorDispositions(donor, Object.values(job.devices), standard.leastOffcutMm);
      const number = (id: string) => donor.wires[id]!.number || id;
      const say = (code: RuleCode, id: string, sentence: string) =>
        createFinding(OF_JOB, code, [{ kind: 'donor', id: `${donorId}.${id}` }], sentence);
      return [
        ...ledger.lost
          .filter(({ devices }) => devices.length > 0)
          .map(({ name, wireIds, devices }) =>
            say(
              'CI7',
              wireIds[0]!,
              `Taking ${wireIds.map(number).join(', ')} out of ${donor.name} takes "${name}" from ${devices.join(' and ')}, which stays.`,
            ),
          ),
        ...ledger.orphans.map(({ wireId, device }) =>
          say('DO1', wireId, `Wire ${number(wireId)} of ${donor.name} stays and leads to ${device}, which goes.`),
        ),
        ...ledger.bare.map((device) =>
          say('DO1', device.replaceAll(/[^A-Za-z0-9]+/g, '-'), `${device} stays and has no wire of ${donor.name} left.`),
        ),
        ...ledger.problems.map(({ wireId, words }) => say('DO2', wireId, `Wire ${number(wireId)} of ${donor.name}: ${words}.`)),
        ...ledger.aliases
          .filter(({ name }) => name === '')
          .map(({ wireId, printed }) =>
            say(
              'MA6',
              wireId,
              `"${printed}", printed on a wire of ${donor.name}, tells of what it served before (${toServed(donor.wires[wireId]!)}): expected a new name on labels over it.`,
            ),
          ),
      ];
    });

const toServed = ({ functions, from, to }: DonorWire) => functions.join(', ') || `${from} to ${to}`;
