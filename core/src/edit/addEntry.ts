import type { Catalogue, ShopStandard } from '../catalogue';
import { changeDocument, type Job, type SurveyEntry } from '../model';
import { takeEntry } from './takeEntry';
import { toEntryWords } from './toEntryWords';

/** Take an entry; where it meets something else, keep it whole as a conflict for people to settle. Nothing entered is lost. */
export function addEntry(
  job: Job,
  entry: SurveyEntry,
  catalogue: Catalogue,
  standard: ShopStandard,
): { job: Job; label: string; isConflict: boolean } {
  const taken = takeEntry(job, entry, catalogue, standard);
  const words = toEntryWords(job, entry).slice(0, 200);
  if (taken.kind === 'taken') return { job: taken.job, label: words, isConflict: false };
  const kept = changeDocument(job, (draft) => {
    draft.surveyConflicts[entry.id] = { entry, mine: words, theirs: taken.theirs.slice(0, 600), canForce: taken.canForce };
  });
  return { job: kept, label: `to settle: ${words}`.slice(0, 200), isConflict: true };
}

/** Settle a conflict: mine puts the entry on top where that can be done, theirs sets it aside. Pure. */
export function settleConflict(job: Job, conflictId: string, keep: 'mine' | 'theirs', catalogue: Catalogue, standard: ShopStandard): Job {
  const conflict = job.surveyConflicts[conflictId];
  if (!conflict) return job;
  const without = changeDocument(job, (draft) => {
    delete draft.surveyConflicts[conflictId];
  });
  if (keep === 'theirs') return without;
  const taken = takeEntry(without, conflict.entry, catalogue, standard, true);
  return taken.kind === 'taken' ? taken.job : job;
}
