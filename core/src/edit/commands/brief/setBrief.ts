import type { Job } from '../../../model';
import { createCommand, type Command } from '../command';

/** Facts of the job: each is changed by itself. */
export type BriefFacts = { vehicle: string; customer: string; promisedOn: string | null };

const WORDS: { [Key in keyof BriefFacts]: (value: BriefFacts[Key]) => string } = {
  vehicle: () => 'vehicle',
  customer: () => 'customer',
  promisedOn: (day) => (day === null ? 'no day promised' : `promised on ${day}`),
};

const isOfBrief = (key: keyof BriefFacts) => key !== 'customer';

export const setBrief = <Key extends keyof BriefFacts>(key: Key, value: BriefFacts[Key]): Command =>
  createCommand(WORDS[key](value), (draft: Job) => {
    Object.assign(isOfBrief(key) ? draft.brief : draft, { [key]: value });
  });

/** The shop standard that the job is planned by; name: of it, as the history says it. */
export const workTo = (standardId: string, name: string): Command =>
  createCommand(`work to ${name}`, (draft) => {
    draft.standardId = standardId;
  });
