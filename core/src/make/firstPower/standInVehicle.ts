import { createRandom } from '../../units';
import type { FirstPower, PowerTest } from './types';

/** Faults that the stand-in vehicle can be given. open: a piece does not conduct; weak: it loses a quarter; joined: two feeds are one behind them. */
export const POWER_FAULTS = ['open', 'weak', 'joined', 'round'] as const;
export type PowerFaultKind = (typeof POWER_FAULTS)[number];

export type PowerFault =
  { kind: 'open' | 'weak'; elementId: string } | { kind: 'joined'; feedIds: [string, string] } | { kind: 'round'; stateId: string };

/** A made-up vehicle that can be measured: it stores nothing, and what it reads says nothing of any loom. */
export interface StandInVehicle {
  read: (test: PowerTest) => number;
  /** devices that wake with a feed and should not */
  listWoken: (test: PowerTest) => string[];
}

const AIR_C = 21;
const FEED_OHM = 47_000;
const GROUND_MILLIOHM = 3;
/** what a piece that is weak leaves of the voltage behind it */
const WEAK = 0.75;

/** A fault of a kind at a place that the seed chooses; null: this vehicle has no place for it. */
export function plantPowerFault(sheet: FirstPower, kind: PowerFaultKind, seed: number): PowerFault | null {
  const random = createRandom(seed);
  const pick = <T>(from: readonly T[]): T | undefined => from[Math.floor(random() * from.length)];
  if (kind === 'joined') {
    const feeds = sheet.tests.filter(({ part, wakes }) => part === 'feeds' && wakes.length > 0);
    const [one, other] = [pick(feeds), pick(feeds)];
    return one && other && one !== other
      ? { kind, feedIds: [one.id, other.id] }
      : feeds.length > 1
        ? { kind, feedIds: [feeds[0]!.id, feeds[1]!.id] }
        : null;
  }
  if (kind === 'round') {
    // a state in which nothing at all is live
    const dead = sheet.states.filter(({ id }) => sheet.tests.every(({ stateId, expected }) => stateId !== id || expected === 0));
    const state = pick(dead);
    return state ? { kind, stateId: state.id } : null;
  }
  const used = new Set(sheet.tests.flatMap(({ unit, path }) => (unit === 'V' ? path : [])));
  const element = pick(sheet.elements.filter(({ id }) => used.has(id)));
  return element ? { kind, elementId: element.id } : null;
}

/** A vehicle with these faults, with the noise of a usual meter. */
export function createStandInVehicle(sheet: FirstPower, faults: readonly PowerFault[], seed: number): StandInVehicle {
  const random = createRandom(seed);
  const noise = (share: number) => 1 + (random() * 2 - 1) * share;
  const most = Math.max(0, ...sheet.tests.map(({ unit, expected }) => (unit === 'V' ? (expected ?? 0) : 0)));
  const partnerOf = (test: PowerTest): PowerTest | undefined => {
    for (const fault of faults)
      if (fault.kind === 'joined' && fault.feedIds.includes(test.id))
        return sheet.tests.find(({ id }) => id !== test.id && fault.feedIds.includes(id));
    return undefined;
  };
  const readVolts = (test: PowerTest): number => {
    // of a sensor somewhere on its way
    if (test.expected === null) return 0.5 + 4 * random();
    if (test.expected === 0)
      return faults.some((one) => one.kind === 'round' && one.stateId === test.stateId) ? most * noise(0.005) : 0.02 * random();
    const factor = faults.reduce((left, fault) => {
      if ((fault.kind !== 'open' && fault.kind !== 'weak') || !test.path.includes(fault.elementId)) return left;
      return fault.kind === 'open' ? 0 : left * WEAK;
    }, 1);
    return test.expected * factor * noise(0.005);
  };
  return {
    read: (test) => {
      switch (test.unit) {
        case 'V':
          return readVolts(test);
        case 'A':
          return ((test.expected ?? 0) + (partnerOf(test)?.expected ?? 0)) * noise(0.01);
        case 'Ω':
          return test.expected ?? FEED_OHM;
        case 'mΩ':
          return GROUND_MILLIOHM * noise(0.05);
        case '°C':
          return AIR_C + (random() - 0.5);
        case 'look':
          return 1;
      }
    },
    listWoken: (test) => partnerOf(test)?.wakes ?? [],
  };
}
