import type { LinkState } from '../../model';

/** Parts of the sheet, in the order in which they are gone through (craft E2). */
export const POWER_PARTS = [
  'bare',
  'grounds',
  'buses',
  'unplugged',
  'modules',
  'boxes',
  'feeds',
  'coding',
  'lamps',
  'inputs',
  'actuators',
  'cranking',
  'stand',
  'start',
  'later',
] as const;
export type PowerPart = (typeof POWER_PARTS)[number];

/** look: 1 where it is as said, 0 where it is not. */
export const POWER_UNITS = ['V', 'A', 'Ω', 'mΩ', '°C', 'look'] as const;
export type PowerUnit = (typeof POWER_UNITS)[number];

/** One thing that is read or looked at. */
export interface PowerTest {
  id: string;
  part: PowerPart;
  /** state of the vehicle in which it is read, of the sheet's states; null: of none */
  stateId: string | null;
  /** the cavity, plug, feed or device that it is about */
  name: string;
  /** where the probe is put, or what is looked at */
  words: string;
  /** what it hangs on, what wakes, what may hurt; empty: nothing to add */
  note: string;
  /** line that keeps people whole; empty: none */
  hazard: string;
  unit: PowerUnit;
  expected: number | null;
  least: number | null;
  most: number | null;
  /** what its current comes through, source first: ids of the sheet's elements */
  path: string[];
  /** ends, as loom/end, whose wires void it when they are worked on, beside those of its path */
  endIds: string[];
  /** devices that may wake with it, and no others; empty: nothing is said */
  wakes: string[];
}

/** A way in which switches stand, and what it is called. */
export interface PowerState {
  id: string;
  modeIds: string[];
  name: string;
  /** what the supply is limited to in it, A */
  limitA: number;
  /** what is set by hand to come to it, as "kill switch main pole: open" */
  settings: { name: string; state: LinkState | 'unsaid' }[];
}

/** A piece that a current comes through. */
export interface PowerElement {
  id: string;
  words: string;
  /** null: a link */
  wire: { loomId: string; wireId: string } | null;
}

/** What is gone through when a vehicle gets power for the first time. */
export interface FirstPower {
  states: PowerState[];
  tests: PowerTest[];
  elements: PowerElement[];
  /** what the supply may give above what flows already, A, by test of which it is known what it draws */
  limitA: Record<string, number>;
  /** temperatures at rest agree within this with the air, K */
  restApartK: number;
  /** cavities of which nothing can be told: how a switch stands is not said */
  untold: number;
  /** devices that are not there yet: faults of them are expected */
  absent: { deviceId: string; words: string }[];
  /** device id → name, of what may wake */
  devices: Record<string, string>;
}

/** The step of the floor under which first power is kept: it is of the vehicle, of no loom. */
export const POWER_STEP = 'first-power';
