import type { CarriedWork, ReopenedItem } from '../carryOver';
import { dropOvertaken, type SeenTick } from '../dropOvertaken';
import { listFailed, type TakenReading } from '../judgeReadings';
import { listVoidedTests } from '../prove/listVoidedTests';
import type { Step } from '../step';
import type { FloorKind } from './kinds';

/** What happened on a floor, as far as it says how far a step is. Of a reading: which, what was read, in what, with what. */
export interface ProgressDeed extends SeenTick {
  id: string;
  kind: FloorKind;
  words: string;
  author: string;
  readId?: string | null;
  value?: number | null;
  unit?: string | null;
  instrument?: string | null;
}

/** A reading with who took it, and with what. */
export interface KnownReading extends TakenReading {
  unit: string;
  instrument: string;
  author: string;
}

/** How far a step is; Deed: of what happened, as it is told. */
export interface StepProgress<Deed extends ProgressDeed = ProgressDeed> {
  ticked: Set<string>;
  /** ticked in an earlier revision, by item: in which */
  carried: ReadonlyMap<string, number>;
  /** done in an earlier revision and not as it is asked for now, by item */
  reopened: ReadonlyMap<string, ReopenedItem>;
  /** what was read in this revision, by item, in order */
  readings: ReadonlyMap<string, readonly KnownReading[]>;
  /** items with a reading that does not pass, or taken back by a bad sample: not done, whoever ticked them */
  failed: ReadonlySet<string>;
  /** the last trouble told and not solved */
  trouble: Deed | null;
  /** what whoever plans said to it; null: nothing yet */
  answer: Deed | null;
  done: boolean;
}

/** Nothing that a bad sample takes back. */
const NOTHING_REFUSED: ReadonlyMap<string, unknown> = new Map();

/** What says nothing of how far a step is. */
const BESIDE: ReadonlySet<FloorKind> = new Set<FloorKind>([
  'take',
  'leave',
  'hand',
  'down',
  'gauge',
  'sample',
  'changeover',
  'worked',
  'paused',
]);

/** What of a step says how far it is, and which tests it voids when it is done over. */
export type ProvedStep = Pick<Step, 'id' | 'operation' | 'items' | 'needs'>;

/** Is a loom rung out as it is now: its test is done, and nothing that changes copper was done over since (craft E1)? steps: all of the loom. */
export function isRungOut(steps: readonly ProvedStep[], deeds: readonly ProgressDeed[], before: CarriedWork): boolean {
  const progress = measureProgress(steps, deeds, before);
  const tests = steps.filter(({ operation }) => operation === 'test');
  return tests.length > 0 && tests.every(({ id }) => progress.get(id)!.done);
}

/** No revision before this one. */
export const NOTHING_CARRIED: CarriedWork = { carried: [], reopened: [], undo: [] };

/**
 * What the deeds say of each step: later ones count over earlier ones, and each id once; what earlier revisions left done counts first. refused: by step
 * and item, what a bad sample takes back: not done, whoever ticked it.
 */
export function measureProgress<Deed extends ProgressDeed>(
  steps: readonly ProvedStep[],
  deeds: readonly Deed[],
  before: CarriedWork = NOTHING_CARRIED,
  refused: ReadonlyMap<string, unknown> = NOTHING_REFUSED,
): Map<string, StepProgress<Deed>> {
  const seen = new Set<string>();
  const ticks = new Map<string, Set<string>>();
  const troubles = new Map<string, Deed | null>();
  const answers = new Map<string, Deed>();
  const carried = new Map<string, Map<string, number>>();
  const readings = new Map<string, Map<string, KnownReading[]>>();
  for (const { stepId, itemId, revision } of before.carried) {
    ticks.set(stepId, (ticks.get(stepId) ?? new Set()).add(itemId));
    carried.set(stepId, (carried.get(stepId) ?? new Map<string, number>()).set(itemId, revision));
  }
  const reopened = new Map<string, Map<string, ReopenedItem>>();
  for (const one of before.reopened)
    reopened.set(one.stepId, (reopened.get(one.stepId) ?? new Map<string, ReopenedItem>()).set(one.itemId, one));
  const voids = listVoidedTests(steps);
  for (const deed of dropOvertaken(deeds)) {
    if (seen.has(deed.id)) continue;
    seen.add(deed.id);
    // who is where, what is in whose hand, and how long it took, says nothing of what is done
    if (BESIDE.has(deed.kind)) continue;
    if (deed.kind === 'reading') {
      const ofStep = readings.get(deed.stepId) ?? new Map<string, KnownReading[]>();
      readings.set(deed.stepId, ofStep);
      const { readId, value, unit, instrument, author } = deed;
      const reading = { readId: readId!, value: value!, unit: unit!, instrument: instrument!, author };
      ofStep.set(deed.itemId, [...(ofStep.get(deed.itemId) ?? []), reading]);
      continue;
    }
    const ticked = ticks.get(deed.stepId) ?? new Set<string>();
    ticks.set(deed.stepId, ticked);
    // said anew in this revision: what an earlier one said counts no more
    carried.get(deed.stepId)?.delete(deed.itemId);
    // done over after it was tested or signed: it is neither any more
    if (deed.kind === 'tick' || deed.kind === 'untick')
      for (const testId of voids.get(deed.stepId) ?? []) {
        ticks.get(testId)?.clear();
        carried.get(testId)?.clear();
      }
    if (deed.kind === 'tick') ticked.add(deed.itemId);
    else if (deed.kind === 'untick') ticked.delete(deed.itemId);
    else if (deed.kind === 'answer') answers.set(deed.stepId, deed);
    else {
      // told anew it waits for an answer again
      troubles.set(deed.stepId, deed.kind === 'problem' ? deed : null);
      answers.delete(deed.stepId);
    }
  }
  return new Map(
    steps.map((step) => {
      const ticked = ticks.get(step.id) ?? new Set<string>();
      const of = {
        carried: carried.get(step.id) ?? new Map<string, number>(),
        reopened: reopened.get(step.id) ?? new Map<string, ReopenedItem>(),
        readings: readings.get(step.id) ?? new Map<string, KnownReading[]>(),
      };
      const isFailed = ({ id, reads }: Step['items'][number]) =>
        listFailed(reads, of.readings.get(id) ?? []).length > 0 || (ticked.has(id) && refused.has(`${step.id} ${id}`));
      const failed = new Set(step.items.filter(isFailed).map(({ id }) => id));
      const done = step.items.every(({ id }) => ticked.has(id) && !failed.has(id));
      const told = { trouble: troubles.get(step.id) ?? null, answer: answers.get(step.id) ?? null };
      return [step.id, { ...of, ...told, ticked, failed, done }];
    }),
  );
}
