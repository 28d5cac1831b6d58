import type { Catalogue, ShopStandard } from '../../../catalogue';
import { changeDocument, type Job, type SurveyEntry } from '../../../model';
import { applySurveyEntry } from './applySurveyEntry';
import { toEntryWords } from './toEntryWords';

/** What became of an entry: the job with it, or with it kept beside as a conflict, and the edit in words. */
export interface RecordedEntry {
  job: Job;
  label: string;
  isConflict: boolean;
}

/** Take an entry; where it meets something else, keep it whole as a conflict for people to settle. Nothing entered is lost. */
export function recordSurveyEntry(job: Job, entry: SurveyEntry, catalogue: Catalogue, standard: ShopStandard): RecordedEntry {
  const taken = applySurveyEntry(job, entry, catalogue, standard);
  if (taken.kind === 'taken') return { job: taken.job, label: toEntryWords(job, entry).slice(0, 200), isConflict: false };
  return keepBeside(job, entry, taken.theirs, taken.canForce);
}

/** Keep an entry that cannot be taken, with what stands against it. */
export function keepBeside(job: Job, entry: SurveyEntry, theirs: string, canForce = false): RecordedEntry {
  const mine = toEntryWords(job, entry);
  const kept = changeDocument(job, (draft) => {
    draft.surveyConflicts[entry.id] = { entry, mine: mine.slice(0, 300), theirs: theirs.slice(0, 600), canForce };
  });
  return { job: kept, label: `to settle: ${mine}`.slice(0, 200), isConflict: true };
}

/** Settle a conflict: mine puts the entry on top where that can be done, theirs sets it aside. Pure. */
export function settleConflict(job: Job, conflictId: string, keep: 'mine' | 'theirs', catalogue: Catalogue, standard: ShopStandard): Job {
  const conflict = job.surveyConflicts[conflictId];
  if (!conflict) return job;
  const without = changeDocument(job, (draft) => {
    delete draft.surveyConflicts[conflictId];
  });
  if (keep === 'theirs') return without;
  const taken = applySurveyEntry(without, conflict.entry, catalogue, standard, true);
  return taken.kind === 'taken' ? taken.job : job;
}
