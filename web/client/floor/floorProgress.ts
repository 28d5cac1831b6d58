import {
  dropOvertaken,
  listFailed,
  listVoidedTests,
  type CarriedWork,
  type Claim,
  type ReopenedItem,
  type Step,
  type TakenReading,
  type Work,
} from 'wattograph-core';
import type { FloorEvent } from '../../server/floorEvent';

/** A reading with who took it, and with what. */
export interface KnownReading extends TakenReading {
  unit: string;
  instrument: string;
  author: string;
}

export interface StepProgress {
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
  trouble: FloorEvent | null;
  /** what whoever plans said to it; null: nothing yet */
  answer: FloorEvent | null;
  done: boolean;
}

/** Nothing that a bad sample takes back. */
const NOTHING_REFUSED: ReadonlyMap<string, unknown> = new Map();

/** What says nothing of how far a step is. */
const BESIDE: ReadonlySet<FloorEvent['kind']> = new Set<FloorEvent['kind']>([
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
export function isRungOut(steps: readonly ProvedStep[], events: readonly FloorEvent[], before: CarriedWork): boolean {
  const progress = measureProgress(steps, events, before);
  const tests = steps.filter(({ operation }) => operation === 'test');
  return tests.length > 0 && tests.every(({ id }) => progress.get(id)!.done);
}

/** No revision before this one. */
export const NOTHING_CARRIED: CarriedWork = { carried: [], reopened: [], undo: [] };

/**
 * What the events say of each step: later ones count over earlier ones, and each id once; what earlier revisions left done counts first. refused: by step
 * and item, what a bad sample takes back: not done, whoever ticked it.
 */
export function measureProgress(
  steps: readonly ProvedStep[],
  events: readonly FloorEvent[],
  before: CarriedWork = NOTHING_CARRIED,
  refused: ReadonlyMap<string, unknown> = NOTHING_REFUSED,
): Map<string, StepProgress> {
  const seen = new Set<string>();
  const ticks = new Map<string, Set<string>>();
  const troubles = new Map<string, FloorEvent | null>();
  const answers = new Map<string, FloorEvent>();
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
  for (const event of dropOvertaken(events)) {
    if (seen.has(event.id)) continue;
    seen.add(event.id);
    // who is where, what is in whose hand, and how long it took, says nothing of what is done
    if (BESIDE.has(event.kind)) continue;
    if (event.kind === 'reading') {
      const ofStep = readings.get(event.stepId) ?? new Map<string, KnownReading[]>();
      readings.set(event.stepId, ofStep);
      const { readId, value, unit, instrument, author } = event;
      const reading = { readId: readId!, value: value!, unit: unit!, instrument: instrument!, author };
      ofStep.set(event.itemId, [...(ofStep.get(event.itemId) ?? []), reading]);
      continue;
    }
    const ticked = ticks.get(event.stepId) ?? new Set<string>();
    ticks.set(event.stepId, ticked);
    // said anew in this revision: what an earlier one said counts no more
    carried.get(event.stepId)?.delete(event.itemId);
    // done over after it was tested or signed: it is neither any more
    if (event.kind === 'tick' || event.kind === 'untick')
      for (const testId of voids.get(event.stepId) ?? []) {
        ticks.get(testId)?.clear();
        carried.get(testId)?.clear();
      }
    if (event.kind === 'tick') ticked.add(event.itemId);
    else if (event.kind === 'untick') ticked.delete(event.itemId);
    else if (event.kind === 'answer') answers.set(event.stepId, event);
    else {
      // told anew it waits for an answer again
      troubles.set(event.stepId, event.kind === 'problem' ? event : null);
      answers.delete(event.stepId);
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

/** The next step that can be done now, after another one or from the first: of a lane of one's own before one that nobody has. null: none. */
export function findNext(
  work: readonly Work[],
  claims: ReadonlyMap<string, readonly Claim[]>,
  author: string,
  after: string | null,
): Work | null {
  const from = after === null ? 0 : work.findIndex(({ step }) => step.id === after) + 1;
  const ready = [...work.slice(from), ...work.slice(0, from)].filter(({ state, step }) => state === 'ready' && step.id !== after);
  const who = ({ lane }: Work) => (lane === null ? [] : (claims.get(lane) ?? []).map((claim) => claim.author));
  const here = after === null ? null : work[from - 1]!.lane;
  return (
    ready.find((one) => one.lane !== null && one.lane === here) ??
    ready.find((one) => who(one).includes(author)) ??
    ready.find((one) => who(one).length === 0) ??
    null
  );
}

/** Where to go on: the first step with something left that can be done now; the last where nothing is left. */
export function findResume(steps: readonly Step[], progress: ReadonlyMap<string, StepProgress>): number {
  const at = steps.findIndex((step) =>
    step.items.some(({ id, heldBecause }) => {
      const { ticked, failed } = progress.get(step.id)!;
      return heldBecause === null && (!ticked.has(id) || failed.has(id));
    }),
  );
  return at < 0 ? Math.max(0, steps.length - 1) : at;
}
