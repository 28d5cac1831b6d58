import type { DeviceTemplate } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

/** A kind of device of this job alone; id null: a new one. */
export const keepTemplate = (id: string | null, template: DeviceTemplate): Command =>
  createCommand(`${id === null ? 'new' : 'change'} template ${template.name}`, (draft) => {
    draft.deviceTemplates[id ?? createId(draft.deviceTemplates, 'own-')] = template;
  });
