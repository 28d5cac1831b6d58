import type { Job } from '../../../model';
import type { PinPlace } from '../../../netlist';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

const WORDS: Record<keyof Job['source'], string> = {
  volts: 'source voltage',
  milliohm: 'battery resistance',
  chassisMilliohm: 'chassis resistance',
  continuousA: 'generator current',
};

export const setSource = (key: keyof Job['source'], value: number | null): Command =>
  createCommand(WORDS[key], (draft) => void Object.assign(draft.source, { [key]: value }));

/** Through the chassis from one stud: 'none' conducts nothing; null: as the source says. name: of the stud. */
export const setStud = ({ loomId, endId, cavity }: PinPlace, name: string, chassisMilliohm: number | 'none' | null): Command =>
  createCommand(`chassis at ${name}`, (draft) => {
    draft.looms[loomId]!.ends[endId]!.offers[cavity]!.chassisMilliohm = chassisMilliohm;
  });

export const addMode = (): Command =>
  createCommand('add a mode', (draft) => {
    draft.modes[createId(draft.modes, 'mode')] = { name: 'another mode', cranking: false };
  });

export const renameMode = (id: string, name: string): Command =>
  createCommand(`mode ${name}`, (draft) => {
    draft.modes[id]!.name = name;
  });

export const setCranking = (id: string, cranking: boolean): Command =>
  createCommand('mode', (draft) => {
    draft.modes[id]!.cranking = cranking;
  });

/** A mode goes with the share of the time that devices were on in it. */
export const removeMode = (id: string, name: string): Command =>
  createCommand(`take mode ${name} out`, (draft) => {
    delete draft.modes[id];
    for (const device of Object.values(draft.devices)) delete device.duty[id];
  });
