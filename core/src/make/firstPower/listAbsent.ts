import type { Job, UnknownPolicy } from '../../model';
import { compareIds } from '../../units';

/** "its plug is open" */
const LEFT: Readonly<Record<UnknownPolicy, string>> = { connector: 'a plug is left for it', coil: 'its leads are coiled' };

/** Devices that are not on the vehicle yet (craft E2): what asks for one of them says so, which is no surprise and is not chased. */
export function listAbsent(job: Pick<Job, 'devices'>): { deviceId: string; words: string }[] {
  return Object.keys(job.devices)
    .sort(compareIds)
    .flatMap((deviceId) => {
      const { name, decision, at, unknownPolicy } = job.devices[deviceId]!;
      // what goes is missed by nobody; what stays has wires of its own
      if (decision !== 'later' && (at !== null || decision === 'remove' || decision === 'keep')) return [];
      const why = decision === 'later' ? 'comes later' : 'on no loom yet';
      return [{ deviceId, words: [name, why, unknownPolicy ? LEFT[unknownPolicy] : ''].filter(Boolean).join(', ') }];
    });
}
