import { useMemo, useSyncExternalStore } from 'react';
import {
  compareTimes,
  followCrimps,
  listChecked,
  measureTaken,
  MILESTONE_STEP,
  readMilestone,
  type CheckDeed,
  type MilestoneLoom,
  type MilestoneNeeds,
  type MilestoneReading,
  type TimesOf,
} from 'wattograph-core';
import { measureProgress } from '../../client/floor/floorProgress';
import { holdChanged } from '../../client/floor/holdChanged';
import type { FloorState, FloorStore } from '../../client/floor/floorStore';
import type { FloorEvent } from '../../server/floorEvent';
import { readFirstPower } from '../firstPower/useFirstPower';
import { toCrimpDeeds } from '../floor/crimp/useCrimps';
import type { MilestoneLoomPack, MilestonePack } from './milestonePack';

/** How far a vehicle is from a milestone, its checks with it. */
export interface MilestoneLeft extends MilestoneReading {
  needs: MilestoneNeeds;
  /** checks with who did them; null: not done */
  checks: { words: string; done: Pick<CheckDeed, 'author' | 'happenedAt'> | null }[];
}

export interface Milestones {
  state: FloorState;
  milestones: MilestoneLeft[];
  /** readings of first power, and those that are left; null: the vehicle has none */
  power: { of: number; left: number; failed: number } | null;
  times: TimesOf[];
}

const NOBODY: ReadonlyMap<string, unknown> = new Map();

/** What of a loom is done: ticked, not failed, not taken back by a bad sample. */
function toLoom({ loomId, name, steps, carried, crimping, minutes }: MilestoneLoomPack, events: readonly FloorEvent[]): MilestoneLoom {
  const { series, sampling, earlier } = crimping;
  // what a bad sample takes back hangs on nobody's session
  const { quarantines } = followCrimps(series, toCrimpDeeds(earlier, events, loomId), { author: '', nowMs: 0, standard: sampling });
  const refused = new Map(quarantines.flatMap((one) => one.places.map(({ stepId, itemId }) => [`${stepId} ${itemId}`, one] as const)));
  const progress = measureProgress(
    steps,
    events.filter((event) => event.loomId === loomId),
    carried,
    refused,
  );
  return {
    ...{ loomId, name, steps: holdChanged(steps, progress, NOBODY), minutes: new Map(minutes) },
    // where a shop pulls no samples none is waited for
    crimps: sampling.sampleFirst > 0 ? series : [],
    isDone: (stepId, itemId) => {
      const here = progress.get(stepId);
      return here !== undefined && here.ticked.has(itemId) && !here.failed.has(itemId);
    },
  };
}

/** How far a vehicle is from each of its milestones, by what is known on this device. */
export function useMilestones(pack: MilestonePack, store: FloorStore): Milestones {
  const { power, looms: packed, needs, checked: before, pauseMin, sessionMin } = pack;
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const all = useMemo(() => [...state.events, ...state.waiting], [state.events, state.waiting]);
  const looms = useMemo(() => packed.map((loom) => toLoom(loom, all)), [packed, all]);
  const milestones = useMemo(() => {
    const checked = listChecked([...before, ...all]);
    return needs.map((one): MilestoneLeft => {
      const checks = one.checks.map((words) => ({ words, done: checked.get(words) ?? null }));
      return { ...readMilestone(one, looms), needs: one, checks };
    });
  }, [needs, looms, before, all]);
  const read = useMemo(() => {
    if (!power.sheet) return null;
    const { tests, failed } = readFirstPower(power, power.sheet, all).judged;
    return { of: tests.length, left: tests.filter(({ verdict }) => verdict === 'unread').length, failed: failed.length };
  }, [power, all]);
  const times = useMemo(() => {
    const taken = measureTaken(
      all.flatMap((event) =>
        event.stepId === MILESTONE_STEP
          ? []
          : [{ ...event, stepId: `${event.loomId} ${event.stepId}`, atMs: Date.parse(event.happenedAt) }],
      ),
      { pauseMin, sessionMin },
    );
    return compareTimes(
      looms.map((loom) => ({
        ...loom,
        taken: new Map(
          loom.steps.flatMap(({ id }) => (taken.has(`${loom.loomId} ${id}`) ? [[id, taken.get(`${loom.loomId} ${id}`)!]] : [])),
        ),
      })),
    );
  }, [all, looms, pauseMin, sessionMin]);
  return { state, milestones, power: read, times };
}
