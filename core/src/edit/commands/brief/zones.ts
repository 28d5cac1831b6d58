import { countZoneUses, type Zone } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

export const addZone = (): Command =>
  createCommand('add a zone', (draft) => {
    draft.zones[createId(draft.zones, 'z')] = {
      ...{ name: 'new zone', ambientC: 50, wet: false, abrasion: false, flexing: false, reopen: false, handled: false },
      clipEveryMm: null,
    };
  });

/** words: of what is changed, as the history says it. */
export const setZone = <Key extends keyof Zone>(id: string, name: string, words: string, key: Key, value: Zone[Key]): Command =>
  createCommand(`${words} of zone ${name}`, (draft) => {
    draft.zones[id]![key] = value;
  });

/** @throws RangeError where something lies in it */
export const removeZone = (id: string, name: string): Command =>
  createCommand(`remove zone ${name}`, (draft) => {
    if (countZoneUses(draft, id) > 0) throw new RangeError(`expected a zone in which nothing lies, got ${name}`);
    delete draft.zones[id];
  });
