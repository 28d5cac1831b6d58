import { useMemo, useSyncExternalStore } from 'react';
import {
  compareTimes,
  countPowerLeft,
  followCrimps,
  holdChanged,
  listChecked,
  measureProgress,
  measureTaken,
  MILESTONE_STEP,
  readMilestone,
  STAND_IN,
  type CheckDeed,
  type CrimpDeed,
  type MilestoneLoom,
  type MilestoneNeeds,
  type MilestoneReading,
  type PowerLeft,
  type TimesOf,
} from 'wattograph-core';
import type { FloorState, FloorStore } from '../../client/floor/floorStore';
import type { FloorEvent } from '../../server/floorEvent';
import { readFirstPower } from '../firstPower/useFirstPower';
import { toCrimpDeeds, toRefused } from '../floor/crimp/useCrimps';
import type { MilestoneLoomPack, MilestonePack } from './milestonePack';

/** How far a vehicle is from a milestone, its checks with it. */
export interface MilestoneLeft extends MilestoneReading {
  needs: MilestoneNeeds;
  /** readings of first power that it waits for; null: the vehicle has none */
  power: PowerLeft | null;
  /** checks with who did them; null: not done */
  checks: { words: string; done: Pick<CheckDeed, 'author' | 'happenedAt'> | null }[];
}

export interface Milestones {
  state: FloorState;
  milestones: MilestoneLeft[];
  times: TimesOf[];
}

const NOBODY: ReadonlyMap<string, unknown> = new Map();

/** What of a loom is done: ticked, not failed, not taken back by a bad sample. */
function toLoom(
  { loomId, name, steps, carried, crimping, minutes }: MilestoneLoomPack,
  events: readonly FloorEvent[],
  crimped: readonly CrimpDeed[],
): MilestoneLoom {
  const { series, sampling, earlier } = crimping;
  // what a bad sample takes back hangs on nobody's session
  const { quarantines } = followCrimps(series, [...earlier, ...crimped], { author: '', nowMs: 0, standard: sampling });
  const progress = measureProgress(
    steps,
    events.filter((event) => event.loomId === loomId),
    carried,
    toRefused(quarantines, loomId),
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
  const looms = useMemo(() => {
    const crimped = toCrimpDeeds(all);
    return packed.map((loom) => toLoom(loom, all, crimped));
  }, [packed, all]);
  const judged = useMemo(() => {
    if (!power.sheet) return null;
    const { proofs, judged: read } = readFirstPower(power, power.sheet, all);
    // what the stand-in read is of no vehicle
    return read.tests.map(({ test, verdict }) => ({
      test,
      verdict: proofs.get(test.id)?.instrument === STAND_IN ? ('unread' as const) : verdict,
    }));
  }, [power, all]);
  const milestones = useMemo(() => {
    const checked = listChecked([...before, ...all]);
    const ends = new Map(power.wireEnds);
    return needs.map((one): MilestoneLeft => {
      const checks = one.checks.map((words) => ({ words, done: checked.get(words) ?? null }));
      return { ...readMilestone(one, looms), needs: one, checks, power: judged && countPowerLeft(one, judged, ends) };
    });
  }, [needs, looms, before, all, judged, power.wireEnds]);
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
  return { state, milestones, times };
}
