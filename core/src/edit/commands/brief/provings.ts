import { createProving, type FirstStart, type Proving } from '../../../model';
import { createId } from '../../createId';
import { createCommand, createLoomCommand, type Command } from '../command';

/** Write down what first power asks for beside what the wires say. */
export const addProving = (kind: Proving['kind'], what: string, rest: Partial<Proving> = {}): Command =>
  createCommand(`to be proved: ${what}`, (draft) => {
    draft.provings[createId(draft.provings, 'p')] = createProving(kind, what, rest);
  });

const WORDS = {
  what: 'what is to be proved',
  deviceId: 'device that is to be proved',
  when: 'when it can be proved',
} as const;

export const setProving = <Key extends keyof typeof WORDS>(id: string, key: Key, value: Proving[Key]): Command =>
  createCommand(WORDS[key], (draft) => void (draft.provings[id]![key] = value));

export const strikeProving = (id: string): Command =>
  createCommand('strike off what is to be proved', (draft) => void delete draft.provings[id]);

export const setFirstStart = (startsOn: FirstStart): Command =>
  createCommand(`first start ${startsOn === 'stand' ? 'on a stand' : 'in the vehicle'}`, (draft) => void (draft.startsOn = startsOn));

/** Whether some of the wire of a loom was in use before: it is rung out at less. */
export const setReusedWire = (loomId: string, name: string, hasReusedWire: boolean): Command =>
  createLoomCommand(
    `${hasReusedWire ? 'wire in use before' : 'all wire new'} in ${name}`,
    loomId,
    (loom) => void (loom.hasReusedWire = hasReusedWire),
  );
