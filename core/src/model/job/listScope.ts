import type { Job } from './job';
import { compareIds } from '../../units';

/** What was added to and taken from the scope since it was agreed; null where it was not agreed yet. */
export interface ScopeChange {
  devicesAdded: string[];
  devicesGone: string[];
  circuitsAdded: string[];
  circuitsGone: string[];
}

/** Everything in the job now, as it is written down when the scope is agreed. */
export function listScope(job: Job): { deviceIds: string[]; circuitIds: string[] } {
  return {
    deviceIds: Object.keys(job.devices)
      .filter((id) => job.devices[id]!.decision !== 'remove')
      .sort(compareIds),
    circuitIds: Object.keys(job.looms)
      .flatMap((loomId) => Object.keys(job.looms[loomId]!.circuits).map((id) => `${loomId}/${id}`))
      .sort(compareIds),
  };
}

/** Names of what changed since the scope was agreed. */
export function listScopeChange(job: Job): ScopeChange | null {
  const { agreed } = job.brief;
  if (agreed === null) return null;
  const now = listScope(job);
  const minus = (a: readonly string[], b: readonly string[]) => a.filter((id) => !b.includes(id));
  const deviceName = (id: string) => job.devices[id]?.name ?? id;
  const circuitName = (id: string) => {
    const [loomId, circuitId] = id.split('/') as [string, string];
    return job.looms[loomId]?.circuits[circuitId]?.name ?? id;
  };
  return {
    devicesAdded: minus(now.deviceIds, agreed.deviceIds).map(deviceName),
    devicesGone: minus(agreed.deviceIds, now.deviceIds).map(deviceName),
    circuitsAdded: minus(now.circuitIds, agreed.circuitIds).map(circuitName),
    circuitsGone: minus(agreed.circuitIds, now.circuitIds).map(circuitName),
  };
}
