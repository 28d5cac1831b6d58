import type { EngineState, Job } from '../../../model';
import type { PinPlace } from '../../../netlist';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

type SourceFigure = Exclude<keyof Job['source'], 'isolator'>;

const WORDS: Record<SourceFigure, string> = {
  volts: 'source voltage',
  milliohm: 'battery resistance',
  chassisMilliohm: 'chassis resistance',
  continuousA: 'generator current',
  capacityAh: 'battery capacity',
};

export const setSource = (key: SourceFigure, value: number | null): Command =>
  createCommand(WORDS[key], (draft) => void Object.assign(draft.source, { [key]: value }));

/** Through the chassis from one stud: 'none' conducts nothing; null: as the source says. name: of the stud. */
export const setStud = ({ loomId, endId, cavity }: PinPlace, name: string, chassisMilliohm: number | 'none' | null): Command =>
  createCommand(`chassis at ${name}`, (draft) => {
    draft.looms[loomId]!.ends[endId]!.offers[cavity]!.chassisMilliohm = chassisMilliohm;
  });

export const addMode = (): Command =>
  createCommand('add a mode', (draft) => {
    draft.modes[createId(draft.modes, 'mode')] = { name: 'another mode', engine: 'running' };
  });

export const renameMode = (id: string, name: string): Command =>
  createCommand(`mode ${name}`, (draft) => {
    draft.modes[id]!.name = name;
  });

export const setEngine = (id: string, name: string, engine: EngineState): Command =>
  createCommand(`engine ${engine} in ${name}`, (draft) => {
    draft.modes[id]!.engine = engine;
  });

/** A mode goes with the share of the time that devices were on in it, and with how their switches stood. */
export const removeMode = (id: string, name: string): Command =>
  createCommand(`take mode ${name} out`, (draft) => {
    delete draft.modes[id];
    for (const { duty, positions, states } of Object.values(draft.devices)) {
      delete duty[id];
      delete positions[id];
      for (const ofLink of Object.values(states)) delete ofLink[id];
    }
  });
