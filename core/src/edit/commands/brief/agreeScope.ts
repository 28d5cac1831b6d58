import { listScope } from '../../../model';
import { createCommand, type Command } from '../command';

/** What the job comprises now is what was agreed; what comes later is counted against it. on: the day. */
export const agreeScope = (on: string, by: string): Command =>
  createCommand('agree the scope', (draft) => {
    draft.brief.agreed = { on, by, ...listScope(draft) };
  });
