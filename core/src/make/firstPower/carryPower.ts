import type { CarriedWork } from '../carryOver';
import { TOUCHING } from '../prove/listProofs';
import { toTestId, type LoomSteps, type PowerEvent, type ReopenedPower } from './listPowerProofs';
import { POWER_STEP, type FirstPower, type PowerTest } from './types';

/** What is known of first power of a revision before. */
export interface EarlierPower {
  number: number;
  /** null: it has none */
  sheet: FirstPower | null;
  /** of any loom, in their order */
  events: readonly PowerEvent[];
}

/** What happened in a revision before, as far as first power of this one hangs on it. */
export interface CarriedEvent extends PowerEvent {
  /** the revision */
  release: number;
}

/** What revisions before leave to this one. */
export interface CarriedPower extends ReopenedPower {
  events: CarriedEvent[];
}

export const NO_CARRIED_POWER: CarriedPower = { events: [], open: [], undone: [] };

/**
 * Readings of revisions before that still say something of this one (craft E1): taken of the same cavity, plug, feed or device, with the switches
 * standing the same, through the same pieces. What they are judged by is what this revision expects. Work that is open again on their way
 * voids them; what has to be undone in a loom voids all that go through it, for nobody can say what it touches.
 *
 * @param earlier from the first that was read on, oldest first, those in which nothing was read too
 */
export function carryPower(
  sheet: FirstPower,
  earlier: readonly EarlierPower[],
  looms: readonly (LoomSteps & { carried: Pick<CarriedWork, 'reopened' | 'undo'> })[],
): CarriedPower {
  const now = new Map(sheet.tests.map((test) => [test.id, test]));
  const events = earlier.flatMap(({ number, sheet: before, events: told }) => {
    const then = new Map((before?.tests ?? []).map((test) => [test.id, test]));
    const isSame = (readId: string): boolean => {
      const id = readId.startsWith('woke ') ? toTestId(readId) : readId;
      const [a, b] = [then.get(id), now.get(id)];
      return a !== undefined && b !== undefined && toMeaning(a, before!) === toMeaning(b, sheet);
    };
    return told
      .filter((event) =>
        event.stepId === POWER_STEP
          ? event.kind === 'reading' && typeof event.readId === 'string' && isSame(event.readId)
          : event.kind === 'tick' || event.kind === 'untick',
      )
      .map((event): CarriedEvent => ({ ...event, release: number }));
  });
  return {
    events: events.some(({ stepId }) => stepId === POWER_STEP) ? events : [],
    open: looms.flatMap(listOpen),
    undone: looms.flatMap(({ loomId, carried }): [string, string][] =>
      carried.undo.slice(0, 1).map(({ title }) => [loomId, `to be undone in this revision: ${title}`]),
    ),
  };
}

/** All that a reading of a test is about; not what is expected of it. */
const toMeaning = ({ part, unit, path, endIds, wakes, stateId }: PowerTest, { states, elements }: FirstPower): string =>
  JSON.stringify([
    ...[part, unit, endIds, wakes],
    path.map((id) => elements.find((one) => one.id === id)?.wire ?? id),
    states.find(({ id }) => id === stateId)?.settings ?? null,
  ]);

function listOpen({ loomId, steps, carried }: Parameters<typeof carryPower>[2][number]): [string, string][] {
  const byId = new Map(steps.map((step) => [step.id, step]));
  return carried.reopened.flatMap(({ stepId, itemId }): [string, string][] => {
    const step = byId.get(stepId);
    if (!step || !TOUCHING.has(step.operation)) return [];
    const wires = step.items.find(({ id }) => id === itemId)?.wireIds ?? [];
    const places = [...wires, ...(step.endId === null ? [] : [step.endId])];
    return places.map((id) => [`${loomId}/${id}`, `${step.title}: open again in this revision`]);
  });
}
