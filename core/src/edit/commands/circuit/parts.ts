import type { InlinePart } from '../../../model';
import { createId } from '../../createId';
import { createCommand, type Command } from '../command';

export const addPart = (part: InlinePart): Command =>
  createCommand(`add a ${part.kind}`, (draft) => {
    draft.parts[createId(draft.parts, 'part')] = part;
  });

export const removePart = (id: string, { kind }: Pick<InlinePart, 'kind'>): Command =>
  createCommand(`take a ${kind} out`, (draft) => void delete draft.parts[id]);
