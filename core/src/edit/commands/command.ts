import type { Job, Loom } from '../../model';

/** A change that a user makes to a job, with what it is called in the history. It changes the draft that it is given, and may refuse by throwing. */
export interface Command {
  label: string;
  apply: (draft: Job) => void;
}

export const createCommand = (label: string, apply: (draft: Job) => void): Command => ({ label: label.slice(0, MOST_LETTERS), apply });

/** of a line in the history */
const MOST_LETTERS = 200;

/** A change to one loom. */
export const createLoomCommand = (label: string, loomId: string, apply: (loom: Loom, draft: Job) => void): Command =>
  createCommand(label, (draft) => apply(draft.looms[loomId]!, draft));

/** Several changes as one step of the history. */
export const joinCommands = (label: string, commands: readonly Command[]): Command =>
  createCommand(label, (draft) => commands.forEach(({ apply }) => apply(draft)));
