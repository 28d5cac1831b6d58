import { useMemo, useSyncExternalStore } from 'react';
import {
  isPowered,
  isRungOut,
  judgePower,
  listPowerProofs,
  POWER_STEP,
  STAND_IN,
  type FirstPower,
  type JudgedPower,
  type PowerProof,
  type PowerTest,
} from 'wattograph-core';
import type { FloorState, FloorStore, Happened } from '../../client/floor/floorStore';
import type { FloorEvent } from '../../server/floorEvent';
import type { FirstPowerPack } from './firstPowerPack';

/** What is known of a vehicle that gets power. */
export interface PowerState {
  state: FloorState;
  proofs: ReadonlyMap<string, PowerProof>;
  /** readings that still hold */
  values: ReadonlyMap<string, number>;
  judged: JudgedPower;
  /** what has to be done before any power is put on; empty: it may be */
  blocks: { words: string; loomId: string }[];
  /** are there readings of the stand-in among those that hold */
  isSham: boolean;
}

/** Readings of first power with their last, those that still hold, and what they come to. */
export function readFirstPower(
  { looms, wireEnds, earlier }: Pick<FirstPowerPack, 'looms' | 'wireEnds' | 'earlier'>,
  sheet: FirstPower,
  events: readonly FloorEvent[],
  isPractice = false,
): Pick<PowerState, 'proofs' | 'values' | 'judged'> {
  const ends = new Map(wireEnds);
  const proofs = isPractice
    ? listPowerProofs(sheet, looms, ends, events)
    : listPowerProofs(sheet, looms, ends, [...earlier.events, ...events], earlier);
  const values = new Map([...proofs].flatMap(([id, { value, voidBecause }]) => (voidBecause === null ? [[id, value] as const] : [])));
  return { proofs, values, judged: judgePower(sheet, values) };
}

/** Readings of a vehicle as they stand, and what they come to; or those of a practice, which is of no vehicle. */
export function useFirstPower(
  pack: FirstPowerPack,
  sheet: FirstPower,
  store: FloorStore,
  practice: readonly FloorEvent[] | null,
): PowerState {
  const state = useSyncExternalStore(store.subscribe, store.get, store.get);
  const all = useMemo(() => [...state.events, ...state.waiting], [state.events, state.waiting]);
  const { proofs, values, judged } = useMemo(
    () => readFirstPower(pack, sheet, practice ?? all, practice !== null),
    [pack, sheet, practice, all],
  );
  const blocks = useMemo(() => (practice ? [] : listBlocks(pack.looms, all)), [practice, pack.looms, all]);
  const isSham = !practice && [...proofs.values()].some(({ instrument, voidBecause }) => instrument === STAND_IN && voidBecause === null);
  return { state, proofs, values, judged, blocks, isSham };
}

/** Looms that are not rung out, and what is held from power. */
function listBlocks(looms: FirstPowerPack['looms'], events: readonly FloorEvent[]): PowerState['blocks'] {
  return looms.flatMap(({ loomId, name, steps, carried, held }) => [
    ...(isRungOut(
      steps,
      events.filter((event) => event.loomId === loomId),
      carried,
    )
      ? []
      : [{ loomId, words: `the ${name} loom is not rung out` }]),
    ...held.map((words) => ({ loomId, words: `held from power: ${words}` })),
  ]);
}

const MOST_WORDS = 400;

/** A reading as it is kept with what happened on the floor: of the vehicle, of no loom. */
export const toPowerEvent = (
  test: PowerTest,
  readId: string,
  value: number,
  by: { instrument: string; author: string; words?: string },
): Happened => ({
  ...{
    loomId: '',
    stepId: POWER_STEP,
    itemId: test.part,
    kind: 'reading',
    words: (by.words ?? test.words).slice(0, MOST_WORDS),
    author: by.author,
  },
  ...{ readId, value, unit: readId === test.id ? test.unit : 'look', instrument: by.instrument.trim() },
});

/** May this be read while something stands in the way of power? */
export const isFree = (test: PowerTest, blocks: PowerState['blocks']): boolean => blocks.length === 0 || !isPowered(test.part);
