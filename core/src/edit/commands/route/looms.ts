import { createLoom, type ConnectorFamily, type Loom } from '../../../model';
import { createId, putNew } from '../../createId';
import { createCommand, type Command } from '../command';

export const createLoomId = (looms: Readonly<Record<string, Loom>>): string => createId(looms, 'loom');

export const addLoom = (id: string, name: string, prefix: string): Command =>
  createCommand(`add loom ${name}`, (draft) => {
    putNew(draft.looms, id, createLoom(name, prefix));
  });

/** A loom from outside; the empty one that a new job begins with makes room for it. */
export const importLoom = (id: string, loom: Loom): Command =>
  createCommand(`import loom ${loom.name}`, (draft) => {
    const isEmpty = ({ ends, circuits, segments }: Loom) => [ends, circuits, segments].every((record) => Object.keys(record).length === 0);
    const [only, ...others] = Object.entries(draft.looms);
    if (only && others.length === 0 && isEmpty(only[1])) delete draft.looms[only[0]];
    putNew(draft.looms, id, loom);
  });

/** A housing of this job alone. */
export const addFamily = (id: string, family: ConnectorFamily): Command =>
  createCommand(`add family ${family.name}`, (draft) => {
    putNew(draft.families, id, family);
  });
