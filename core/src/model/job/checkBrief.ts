import type { CatalogueLookup } from './catalogueLookup';
import type { Job } from './job';
import type { Problem } from '../problem';

const has = (record: object, id: string) => Object.hasOwn(record, id);

/** References of the brief and between looms: devices to templates, zones and ends, mates to ends. */
export function checkBrief(job: Job, lookup: CatalogueLookup): Problem[] {
  const problems: Problem[] = [];
  const expectEnd = (at: { loomId: string; endId: string }, path: string): boolean => {
    if (!has(job.looms, at.loomId)) problems.push({ path: `${path}/loomId`, message: `expected a loom of this job, got "${at.loomId}"` });
    else if (!has(job.looms[at.loomId]!.ends, at.endId))
      problems.push({ path: `${path}/endId`, message: `expected an end of loom "${at.loomId}", got "${at.endId}"` });
    else return true;
    return false;
  };
  const taken = new Map<string, string>();
  for (const [id, device] of Object.entries(job.devices)) {
    const path = `/devices/${id}`;
    if (device.templateId !== null && !has(job.deviceTemplates, device.templateId) && !lookup.deviceTemplateIds.includes(device.templateId))
      problems.push({
        path: `${path}/templateId`,
        message: `expected a device template of the catalogue or of this job, got "${device.templateId}"`,
      });
    if (device.zoneId !== null && !has(job.zones, device.zoneId))
      problems.push({ path: `${path}/zoneId`, message: `expected a zone of this job, got "${device.zoneId}"` });
    if (device.at === null || !expectEnd(device.at, `${path}/at`)) continue;
    const key = `${device.at.loomId} ${device.at.endId}`;
    const other = taken.get(key);
    if (other)
      problems.push({ path: `${path}/at`, message: `expected one device at an end, got "${other}" and "${id}" at "${device.at.endId}"` });
    taken.set(key, id);
  }
  for (const [id, { duty }] of Object.entries(job.devices))
    for (const mode of Object.keys(duty))
      if (!has(job.modes, mode))
        problems.push({ path: `/devices/${id}/duty/${mode}`, message: `expected a mode of this job, got "${mode}"` });
  problems.push(...checkStates(job));
  for (const [id, { at, kind, ohms }] of Object.entries(job.parts)) {
    expectEnd(at, `/parts/${id}/at`);
    if (at.cavities[0] === at.cavities[1])
      problems.push({ path: `/parts/${id}/at/cavities`, message: `expected two different cavities, got "${at.cavities[0]}" twice` });
    if (ohms === null && kind !== 'diode' && kind !== 'suppressor')
      problems.push({ path: `/parts/${id}/ohms`, message: `expected the resistance of a ${kind} in ohms, got null` });
  }
  const mated = new Map<string, string>();
  for (const [id, mate] of Object.entries(job.mates)) {
    for (const side of ['a', 'b'] as const) {
      const path = `/mates/${id}/${side}`;
      if (!expectEnd(mate[side], path)) continue;
      const key = `${mate[side].loomId} ${mate[side].endId}`;
      const other = mated.get(key);
      if (other)
        problems.push({ path, message: `expected an end to mate once, got mates "${other}" and "${id}" at "${mate[side].endId}"` });
      mated.set(key, id);
    }
  }
  return problems;
}

/** States and positions are of modes, and what a link waits for, or is to be proved, is of a device, of this job. */
function checkStates(job: Job): Problem[] {
  const problems: Problem[] = [];
  const expectMode = (modeId: string, path: string) => {
    if (!has(job.modes, modeId)) problems.push({ path: `${path}/${modeId}`, message: `expected a mode of this job, got "${modeId}"` });
  };
  const expectDevice = (deviceId: string, path: string) => {
    if (!has(job.devices, deviceId)) problems.push({ path, message: `expected a device of this job, got "${deviceId}"` });
  };
  for (const [id, { states, positions, enabledBy }] of Object.entries(job.devices)) {
    for (const [linkId, ofLink] of Object.entries(states))
      for (const modeId of Object.keys(ofLink)) expectMode(modeId, `/devices/${id}/states/${linkId}`);
    for (const modeId of Object.keys(positions)) expectMode(modeId, `/devices/${id}/positions`);
    for (const [linkId, by] of Object.entries(enabledBy)) expectDevice(by.deviceId, `/devices/${id}/enabledBy/${linkId}/deviceId`);
  }
  for (const [id, { deviceId }] of Object.entries(job.provings)) if (deviceId !== null) expectDevice(deviceId, `/provings/${id}/deviceId`);
  const { isolator } = job.source;
  if (isolator) expectDevice(isolator.deviceId, '/source/isolator/deviceId');
  return problems;
}
