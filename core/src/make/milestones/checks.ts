import { MILESTONES, type Milestone } from '../../model';

/** The step of the floor under which checks of milestones are kept: they are of the vehicle, of no loom. */
export const MILESTONE_STEP = 'milestones';

/** What happened on a floor, as far as it says which check is done. */
export interface CheckDeed {
  stepId: string;
  itemId: string;
  kind: string;
  author: string;
  happenedAt: string;
}

/** Checks that are done, by their words, with who did them and when. deeds: in their order; a check is of the vehicle, of no revision. */
export function listChecked(deeds: readonly CheckDeed[]): Map<string, Pick<CheckDeed, 'author' | 'happenedAt'>> {
  const checked = new Map<string, Pick<CheckDeed, 'author' | 'happenedAt'>>();
  for (const { stepId, itemId, kind, author, happenedAt } of deeds) {
    if (stepId !== MILESTONE_STEP) continue;
    if (kind === 'tick') checked.set(itemId, { author, happenedAt });
    else if (kind === 'untick') checked.delete(itemId);
  }
  return checked;
}

/** Is this a check that the shop asks for at any milestone? */
export const isCheck = (checks: Readonly<Record<Milestone, readonly string[]>>, words: string): boolean =>
  MILESTONES.some((id) => checks[id].includes(words));
