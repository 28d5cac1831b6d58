import { findDeviceTemplate, type Catalogue } from '../../../catalogue';
import type { End, Job } from '../../../model';

/** What an end becomes when a device is put on it: the housing that mates with it, and what each pin needs. */
export function toDeviceEnd(job: Job, catalogue: Catalogue, deviceId: string): Partial<End> {
  const device = job.devices[deviceId]!;
  const template = findDeviceTemplate(job, catalogue, device.templateId);
  const isCoil = device.unknownPolicy === 'coil';
  const familyId = isCoil ? null : (template?.familyId ?? null);
  return {
    kind: familyId === null ? 'tail' : 'connector',
    familyId,
    pins: structuredClone(template?.pins ?? {}),
    offers: structuredClone(template?.offers ?? {}),
  };
}

/**
 * Say that a device mates with an end, and give the end its housing and pins where it has no wires yet. Changes the job given.
 *
 * @throws RangeError where another device or another loom mates with that end
 */
export function placeDevice(job: Job, catalogue: Catalogue, deviceId: string, loomId: string, endId: string): void {
  const loom = job.looms[loomId]!;
  const end = loom.ends[endId]!;
  const isHere = (at: { loomId: string; endId: string } | null) => at !== null && at.loomId === loomId && at.endId === endId;
  const other = Object.entries(job.devices).find(([id, device]) => id !== deviceId && isHere(device.at))?.[1].name;
  const mate = Object.values(job.mates).some(({ a, b }) => isHere(a) || isHere(b)) ? 'another loom' : undefined;
  const there = other ?? mate;
  if (there !== undefined) throw new RangeError(`expected an end that nothing mates with, got ${there} at ${end.name}`);
  const isWired = Object.values(loom.circuits).some(({ terminations }) => terminations.some((one) => one.endId === endId));
  job.devices[deviceId] = { ...job.devices[deviceId]!, at: { loomId, endId } };
  if (!isWired) loom.ends[endId] = { ...end, ...toDeviceEnd(job, catalogue, deviceId) };
}
