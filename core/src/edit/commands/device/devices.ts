import type { Catalogue } from '../../../catalogue';
import { createDevice, type Decision, type Device, type Job } from '../../../model';
import { putNew } from '../../createId';
import { createCommand, type Command } from '../command';
import { placeDevice } from './placeDevice';

export const addDevice = (id: string, device: { name: string; system: string; templateId: string | null; decidedBy: string }): Command =>
  createCommand(`add ${device.name}`, (draft) => {
    const { name, system, templateId, decidedBy } = device;
    putNew(draft.devices, id, createDevice(toFreeName(draft.devices, name), system, { templateId, decidedBy }));
  });

/** A second device of a kind is called "coil 2": two of one name could not be told apart on a label. */
function toFreeName(devices: Job['devices'], name: string): string {
  const taken = new Set(Object.values(devices).map((one) => one.name));
  if (!taken.has(name)) return name;
  const short = name.slice(0, 76);
  for (let nth = 2; ; nth += 1) if (!taken.has(`${short} ${nth}`)) return `${short} ${nth}`;
}

const WORDS = { name: 'name', unknownPolicy: 'unknown place', reason: 'reason', zoneId: 'zone', templateId: 'kind' } as const;

/** of: what it is called now. */
export const setDevice = <Key extends keyof typeof WORDS>(id: string, of: string, key: Key, value: Device[Key]): Command =>
  createCommand(`${WORDS[key]} of ${of}`, (draft) => {
    draft.devices[id]![key] = value;
  });

/** What becomes of a device. One that comes later has something made for it meanwhile: an end in a connector, if nothing else was said. */
export const decideDevice = (id: string, of: string, decision: Decision, by: string): Command =>
  createCommand(`${decision} of ${of}`, (draft) => {
    const device = draft.devices[id]!;
    device.decision = decision;
    device.decidedBy = by;
    device.unknownPolicy = decision === 'later' ? (device.unknownPolicy ?? 'connector') : null;
  });

export const strikeDevice = (id: string, of: string): Command =>
  createCommand(`strike ${of} off`, (draft) => {
    delete draft.devices[id];
    // nothing waits for what is gone, and it isolates nothing
    if (draft.source.isolator?.deviceId === id) draft.source.isolator = null;
    for (const proving of Object.values(draft.provings)) if (proving.deviceId === id) proving.deviceId = null;
    for (const { enabledBy } of Object.values(draft.devices))
      for (const [linkId, by] of Object.entries(enabledBy)) if (by.deviceId === id) delete enabledBy[linkId];
  });

/** @throws RangeError where another device or another loom mates with that end */
export const putDevice = (
  id: string,
  at: { loomId: string; endId: string },
  words: { device: string; end: string },
  catalogue: Catalogue,
): Command => createCommand(`${words.device} on ${words.end}`, (draft) => placeDevice(draft, catalogue, id, at.loomId, at.endId));

export const takeDeviceOff = (id: string, of: string): Command =>
  createCommand(`take ${of} off its end`, (draft) => {
    draft.devices[id]!.at = null;
  });
