import { findDeviceTemplate, type Catalogue } from '../catalogue';
import type { End, Job } from '../model';

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

/** Say that a device mates with an end, and give the end its housing and pins where it has no wires yet. Changes the job given. */
export function placeDevice(job: Job, catalogue: Catalogue, deviceId: string, loomId: string, endId: string): void {
  const loom = job.looms[loomId]!;
  const end = loom.ends[endId]!;
  const isWired = Object.values(loom.circuits).some(({ terminations }) => terminations.some((one) => one.endId === endId));
  job.devices[deviceId] = { ...job.devices[deviceId]!, at: { loomId, endId } };
  if (!isWired) loom.ends[endId] = { ...end, ...toDeviceEnd(job, catalogue, deviceId) };
}
