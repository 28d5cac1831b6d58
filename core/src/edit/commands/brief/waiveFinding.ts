import { createCommand, type Command } from '../command';

/** A finding stands as it is, with the reason and who said so. */
export const waiveFinding = ({ key, code }: { key: string; code: string }, reason: string, by: string): Command =>
  createCommand(`accept ${code}`, (draft) => {
    draft.accepted[key] = { reason, by };
  });

export const takeWaiverBack = (key: string): Command =>
  createCommand('take an acceptance back', (draft) => void delete draft.accepted[key]);
